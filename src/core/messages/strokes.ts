/** What is said about the right hand: schools, reasons, slurs, formulas. */
import { points } from './units';
import type { SlurFault } from '../fingering/slurs/check';
import type { SlurCure, SlurSuggestion } from '../fingering/slurs/suggest';
import type { Way } from '../fingering/formulas/compare';
import type { FormulaLeaving, FormulaSpan } from '../fingering/formulas/recognise';
import type { RightChoice } from '../fingering/report/plan';
import type { PlannedStroke } from '../fingering/right/explain/report';
import type { StrokeAction } from '../fingering/right/explain/strokeScript';
import type { StrokeReason } from '../fingering/right/explain/reasons';
import type { RightSchoolId } from '../fingering/right/rules/schools';
import type { Reopening, RestStrokes } from '../fingering/right/rules/style';
import { RIGHT_TERMS, type RightTermId } from '../fingering/right/rules/terms';
import { wordsOf } from '../fingering/rules/costTerm';
import { TREMOLOS, type TremoloId } from '../fingering/right/rules/tremolo';
import type { EffectTag } from '../score/model';
import { formulaText, TEXTURE_NAMES } from './figures';
import type { PlaceOf } from './hand';

export const RIGHT_SCHOOL_NAMES: Readonly<Record<RightSchoolId, string>> = {
  balanced: 'balanced',
  stations: 'stations, a finger for each string',
  'strict-im': 'strict i m',
  'strict-ma': 'strict m a',
  'strict-ia': 'strict i a',
  'crossing-free': 'without crossings',
  'three-finger': 'three fingers, a m i',
  plectrum: 'plectrum, sweeping where the string changes',
  'plectrum-strict': 'plectrum, strictly down and up',
};

export const TREMOLO_NAMES = Object.fromEntries(
  Object.entries(TREMOLOS).map(([id, order]) => [id, order.join(' ')]),
) as Readonly<Record<TremoloId, string>>;

export const REST_STROKE_NAMES: Readonly<Record<RestStrokes, string>> = {
  never: 'all free',
  lines: 'rest in lines',
  melody: 'rest in lines and melody',
};

export const REOPENING_NAMES: Readonly<Record<Reopening, string>> = {
  oneByOne: 'one finger after the other',
  together: 'all together, with p',
};

export const EFFECT_NAMES: Readonly<Record<EffectTag, string>> = {
  rollUp: 'rolled upward',
  rollDown: 'rolled downward',
  brushDown: 'brushed down',
  brushUp: 'brushed up',
  rasgueado: 'rasgueado',
  tambora: 'tambora',
  pizzicato: 'pizzicato',
  percussive: 'percussive',
};

/** Where a letter makes notes go to other strings; empty where it makes none. */
export function otherStringsText(strings: RightChoice['strings'], place: PlaceOf): string {
  const [first, ...more] = strings.map(({ ticks, string }) => {
    const { bar, beat } = place(ticks);
    return `string ${string} in bar ${bar}, beat ${beat}`;
  });
  return first === undefined ? '' : `then ${[first, ...more].join(', ')}`;
}

export const STROKE_TERMS: Readonly<Record<RightTermId, string>> = wordsOf(RIGHT_TERMS);

const beat = (reason: { readonly ticks: number }, place: PlaceOf) => {
  const { bar, beat: at } = place(reason.ticks);
  return `bar ${bar}, beat ${at}`;
};

type StrokeTexts = {
  readonly [C in StrokeReason['code']]: (reason: Extract<StrokeReason, { readonly code: C }>) => string;
};

const REASONS: StrokeTexts = {
  crosses: (r) => `crosses from ${r.from} to ${r.to} against the hand in ${Math.round(r.ms)} ms`,
  again: (r) => `plays again after ${Math.round(r.ms)} ms`,
  moves: (r) =>
    `the hand moves by ${r.strings} ${r.strings === 1 ? 'string' : 'strings'} in ${Math.round(r.ms)} ms`,
  figure: (r) => figureText(r),
  strokeTerm: (r) => `${STROKE_TERMS[r.term]} +${points(r.difference)}`,
};

/** "p i m a m i, as in the bar before"; "i m: a line". */
function figureText({
  texture,
  formula,
  asBefore,
}: Extract<StrokeReason, { readonly code: 'figure' }>): string {
  const name = TEXTURE_NAMES[texture];
  const before = asBefore ? ', as in the bar before' : '';
  if (formula.length === 0) return `${name}${before}`;
  return asBefore ? `${formulaText(formula)}${before}` : `${formulaText(formula)}: ${article(name)}`;
}

const PLURALS: ReadonlySet<string> = new Set(['chords', 'parallels', 'bass and afterbeats', 'mixed']);
const article = (name: string) => (PLURALS.has(name) ? name : `a ${name}`);

/** "m here crosses from 3 to 2 against the hand in 125 ms"; elsewhere with its place. */
export function strokeReasonText(reason: StrokeReason, place: PlaceOf): string {
  const text = (REASONS[reason.code] as (value: StrokeReason) => string)(reason);
  if (reason.code === 'figure') return text;
  const letter = 'letter' in reason ? `${reason.letter} ` : '';
  if (reason.here) return letter ? `${letter}here ${text}` : `${text} here`;
  return `${letter}${text} (${beat(reason, place)})`;
}

export const SLUR_FAULTS: Readonly<Record<SlurFault, string>> = {
  strings: 'The slurred notes lie on two strings: the second has to be plucked.',
  fingers: 'These fingers cannot slur in that direction: the second note has to be plucked.',
  planted: 'The finger that the pull-off goes to still holds another note.',
  weak: 'A slur by weak fingers.',
};

const CURES: Readonly<Record<SlurCure, string>> = {
  crossing: 'takes a crossing away',
  repeat: 'spares a finger that would play again',
  speed: 'eases a fast line',
};

/** What a slur cures, and how the count goes on. */
export const slurSuggestionText = (one: SlurSuggestion): string =>
  `${CURES[one.cure]}, saves ${points(one.saves)}${one.weak ? ', by weak fingers' : ''}; then ${one.letters.join(' ')} instead of ${one.before.join(' ')}`;

const strings = (count: number) => `${count} ${count === 1 ? 'string' : 'strings'}`;

/** What there is to say about a stroke of the plan. */
export function strokeWords({
  letters,
  strings: on,
  move,
  again,
  rest,
  effect,
  order,
}: PlannedStroke): readonly string[] {
  const each = letters.map((letter, k) => `${letter} on ${on[k]}`).join(', ');
  const strummed = effect !== null && new Set(letters).size === 1;
  return [
    strummed ? `${order.join(' ')} over ${on.join(' ')}` : each,
    ...(effect ? [EFFECT_NAMES[effect]] : []),
    ...(move
      ? [
          move.against
            ? `crosses ${strings(move.strings)} against the hand in ${Math.round(move.ms)} ms`
            : `the hand moves by ${strings(move.strings)} in ${Math.round(move.ms)} ms`,
        ]
      : []),
    ...(again ? [`${again.letter} again after ${Math.round(again.ms)} ms`] : []),
    ...(rest ? ['rest stroke'] : []),
  ];
}

export const formulaName = (id: string): string => [...id].join(' ');

const LEAVINGS: Readonly<Record<FormulaLeaving, string>> = {
  chord: 'a chord comes',
  rest: 'the strings rest',
  crossing: 'its next finger would cross against the hand',
  other: 'another figure begins',
  end: 'the piece ends',
};

/** "p i m a, 16 strokes; ends because a chord comes". */
export const formulaSpanText = ({ formula, strokes, leaving }: FormulaSpan): string =>
  `${formulaName(formula)}, ${strokes} strokes; ends because ${LEAVINGS[leaving]}`;

export const wayName = ({ formula, school }: Pick<Way, 'formula' | 'school'>): string =>
  formula !== null ? formulaName(formula) : school !== null ? RIGHT_SCHOOL_NAMES[school] : 'as planned';

/** "p on 5"; "i m a on 3 2 1 at once"; "i m a open". */
export function strokeActionText({ kind, letters, strings }: StrokeAction): string {
  const names = letters.join(' ');
  if (kind === 'reopen') return `${names} ${letters.length === 1 ? 'opens' : 'open'}`;
  const on = `${names} on ${strings.join(' ')}`;
  if (kind === 'stroke') return `strike ${on}`;
  if (kind === 'strum') return `${names} over ${strings.join(' ')}`;
  return letters.length > 1 ? `plant ${on} at once` : `plant ${on}`;
}
