/**
 * How a note is to sound: the teacher's words on loudness, articulation, colour. Rows: what can be said, how it is written,
 * and what a score file has for it. Source: MusicXML 4.0, `dynamics`, `articulations`, `words`; handbook 6, "Rest or free stroke".
 */
import type { Role } from '../fingering/problem/strike';
import type { Mark } from './mark';

interface Value {
  readonly sign: string;
  /** As it is said, and found by name. */
  readonly words: string;
  /** Inner markup of a direction, or of `articulations`. */
  readonly direction?: string;
  readonly articulation?: string;
  /** Inner markup of `ornaments`. */
  readonly ornament?: string;
  /** A line to the next note of the voice. */
  readonly slide?: true;
}

interface Row {
  /** Below the staff, as loudness is. */
  readonly below: boolean;
  readonly values: Readonly<Record<string, Value>>;
}

const dynamic = (sign: string, words: string): Value => ({
  sign,
  words,
  direction: `<dynamics><${sign}/></dynamics>`,
});
const spoken = (sign: string, words = sign): Value => ({ sign, words, direction: `<words>${sign}</words>` });

const wavy = (type: 'start' | 'stop') => `<wavy-line type="${type}"/>`;

export const EXPRESSIONS = {
  dynamic: {
    below: true,
    values: {
      pp: dynamic('pp', 'very soft'),
      p: dynamic('p', 'soft'),
      mp: dynamic('mp', 'rather soft'),
      mf: dynamic('mf', 'rather loud'),
      f: dynamic('f', 'loud'),
      ff: dynamic('ff', 'very loud'),
    },
  },
  articulation: {
    below: false,
    values: {
      accent: { sign: '>', words: 'accent', articulation: '<accent/>' },
      short: { sign: '·', words: 'short', articulation: '<staccato/>' },
      held: { sign: '–', words: 'held', articulation: '<tenuto/>' },
    },
  },
  gesture: {
    below: false,
    values: {
      // A wavy line is what the format has for vibrato: "Wavy lines are one way to indicate trills and vibrato."
      vibrato: { sign: 'vibr.', words: 'vibrato', ornament: wavy('start') + wavy('stop') },
      slide: { sign: 'slide', words: 'slide', slide: true },
    },
  },
  colour: {
    below: false,
    values: {
      bridge: spoken('near the bridge'),
      hole: spoken('over the hole'),
      neck: spoken('over the neck'),
    },
  },
  attack: { below: false, values: { rest: spoken('rest stroke'), free: spoken('free stroke') } },
} as const satisfies Readonly<Record<string, Row>>;

export type ExpressionId = keyof typeof EXPRESSIONS;
export const EXPRESSION_IDS = Object.keys(EXPRESSIONS) as readonly ExpressionId[];

export interface Expression {
  readonly uid: string;
  readonly attribute: ExpressionId;
  readonly value: string;
}

const rowOf = (attribute: ExpressionId): Row => EXPRESSIONS[attribute];

export const expressionValue = ({
  attribute,
  value,
}: Pick<Expression, 'attribute' | 'value'>): Value | null => rowOf(attribute).values[value] ?? null;

/** Dynamics go under the staff, all else over it, but under the bass. */
export const expressionMarks = (
  expressions: readonly Expression[],
  roles: ReadonlyMap<string, Role>,
): readonly Mark[] =>
  expressions.flatMap((one): Mark[] => {
    const value = expressionValue(one);
    if (!value) return [];
    return [
      {
        id: `expression:${one.attribute}:${one.uid}`,
        kind: 'expression',
        uid: one.uid,
        toUid: one.uid,
        text: value.sign,
        state: 'ink',
        below: rowOf(one.attribute).below || roles.get(one.uid) === 'bass',
        causes: [{ code: 'decided' }],
        departs: null,
      },
    ];
  });
