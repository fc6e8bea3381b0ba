/** The state of an edition: what is set, as registers of (target, attribute), and the views of it. */
import { maybeFraction } from '../../music/fraction';
import { maybePitch } from '../../music/pitchText';
import type { BarCorrection, Corrections, NoteCorrection } from '../../score/corrections';
import { type Ink, type InkMarks, NO_INK } from '../problem/ink';
import { DEFAULT_PLAYER, maybePlayer, type Player } from '../../instrument/hands';
import type { Texture } from '../../figures/texture';
import type { Damp } from '../../marks/dampMarks';
import { type Expression, EXPRESSION_IDS, type ExpressionId } from '../../marks/expressions';
import type { Showing } from '../../marks/shown';
import { type Density, type MarkStyle, PLAIN_MARKS } from '../../marks/style';
import type { LeftSchoolId } from '../left/rules/schools';
import type { RightSchoolId } from '../right/rules/schools';
import { PLAIN_STYLE, type RightStyle } from '../right/rules/style';
import {
  type Attribute,
  INK_ATTRIBUTES,
  LENS_ATTRIBUTES,
  PIECE,
  STYLE_ATTRIBUTES,
  type Value,
} from './attributes';

export type RegisterKey = `${string} ${Attribute}`;

/** Only what is set; a register without an entry is null. */
export type Registers = ReadonlyMap<RegisterKey, NonNullable<Value>>;

export interface Register {
  readonly target: string;
  readonly attribute: Attribute;
  readonly value: NonNullable<Value>;
}

export const NO_REGISTERS: Registers = new Map();

export const keyOf = (target: string, attribute: Attribute): RegisterKey => `${target} ${attribute}`;

export const valueAt = (registers: Registers, target: string, attribute: Attribute): Value =>
  registers.get(keyOf(target, attribute)) ?? null;

export function listRegisters(registers: Registers): readonly Register[] {
  return [...registers].map(([key, value]) => {
    const [target, attribute] = key.split(' ') as [string, Attribute];
    return { target, attribute, value };
  });
}

/** The teacher's fingering, by note. */
export function inkOf(registers: Registers): Ink {
  const ink = new Map<string, InkMarks>();
  for (const { target, attribute, value } of listRegisters(registers)) {
    if (!(INK_ATTRIBUTES as readonly Attribute[]).includes(attribute)) continue;
    ink.set(target, { ...(ink.get(target) ?? NO_INK), [attribute]: value });
  }
  return ink;
}

export const isCorrection = (attribute: Attribute): boolean =>
  !([...INK_ATTRIBUTES, ...LENS_ATTRIBUTES, ...STYLE_ATTRIBUTES] as readonly Attribute[]).includes(attribute);

/** Whose hand, on which instrument, of which school the piece is planned for. */
export interface Lens {
  readonly player: Player;
  readonly school: LeftSchoolId;
  readonly right: RightStyle;
  /** Bars with a school of the right hand of their own. */
  readonly schoolOfBar: ReadonlyMap<string, RightSchoolId>;
  /** Notes whose texture the teacher has named. */
  readonly textureOf: ReadonlyMap<string, Texture>;
}

export function lensOf(registers: Registers): Lens {
  const hand = valueAt(registers, PIECE, 'hand');
  const school = valueAt(registers, PIECE, 'school');
  return {
    player: (typeof hand === 'string' && maybePlayer(hand)) || DEFAULT_PLAYER,
    school: (school as LeftSchoolId | null) ?? 'balanced',
    right: rightStyleOf(registers),
    schoolOfBar: valuesOf<RightSchoolId>(registers, 'strokeSchool'),
    textureOf: valuesOf<Texture>(registers, 'texture'),
  };
}

/** By target: what is set of one attribute. */
const valuesOf = <T extends Value>(registers: Registers, of: Attribute): ReadonlyMap<string, T> =>
  new Map(
    listRegisters(registers)
      .filter(({ attribute }) => attribute === of)
      .map(({ target, value }) => [target, value as T]),
  );

/** Equal for lenses that are the same. */
export const lensKey = (registers: Registers): string =>
  listRegisters(registers)
    .filter(({ attribute }) => (LENS_ATTRIBUTES as readonly Attribute[]).includes(attribute))
    .map(({ target, attribute, value }) => `${target} ${attribute} ${value}`)
    .sort()
    .join();

function rightStyleOf(registers: Registers): RightStyle {
  const set = <T extends Value>(attribute: Attribute, otherwise: T) =>
    (valueAt(registers, PIECE, attribute) as T | null) ?? otherwise;
  return {
    school: set('rightSchool', PLAIN_STYLE.school),
    startFinger: set('startFinger', PLAIN_STYLE.startFinger),
    tremolo: set('tremolo', PLAIN_STYLE.tremolo),
    restStrokes: set('restStrokes', PLAIN_STYLE.restStrokes),
    reopening: set('reopening', PLAIN_STYLE.reopening),
    littleFinger: set('littleFinger', PLAIN_STYLE.littleFinger),
  };
}

/** How the edition wants its page marked. */
export function markStyleOf(registers: Registers): MarkStyle {
  const set = <T extends Value>(attribute: Attribute, otherwise: T) =>
    (valueAt(registers, PIECE, attribute) as T | null) ?? otherwise;
  return {
    density: set('density', PLAIN_MARKS.density),
    barreLetter: set('barreLetter', PLAIN_MARKS.barreLetter),
    barreFraction: set('barreFraction', PLAIN_MARKS.barreFraction),
    pluckSide: set('pluckSide', PLAIN_MARKS.pluckSide),
    size: set('markSize', PLAIN_MARKS.size),
  };
}

/** What of the fingering is printed. */
export function showingOf(registers: Registers): Showing {
  return {
    density: markStyleOf(registers).density,
    densityOfBar: valuesOf<Density>(registers, 'barDensity'),
    kept: new Set(valuesOf<true>(registers, 'alwaysPrint').keys()),
  };
}

/** Where strings are stopped, by note. */
export const dampsOf = (registers: Registers): ReadonlyMap<string, Damp> => valuesOf<Damp>(registers, 'damp');

/** How notes are to sound. */
export const expressionsOf = (registers: Registers): readonly Expression[] =>
  listRegisters(registers).flatMap(({ target, attribute, value }) =>
    isExpression(attribute) ? [{ uid: target, attribute, value: String(value) }] : [],
  );

const isExpression = (attribute: Attribute): attribute is ExpressionId =>
  (EXPRESSION_IDS as readonly Attribute[]).includes(attribute);

/** The teacher's remarks, by bar. */
export const remarksOf = (registers: Registers): ReadonlyMap<string, string> =>
  valuesOf<string>(registers, 'remark');

/** The corrections of the score, read from their texts. */
export function correctionsOf(registers: Registers): Corrections {
  const notes = new Map<string, NoteCorrection>();
  const bars = new Map<string, BarCorrection>();
  let piece: Corrections['piece'] = {};
  for (const { target, attribute, value } of listRegisters(registers)) {
    if (isSlide({ target, attribute, value })) notes.set(target, { ...notes.get(target), slideOn: true });
    if (!isCorrection(attribute)) continue;
    const read = readValue(attribute, value);
    if (target === PIECE) piece = { ...piece, [attribute]: read };
    else if (target.startsWith('b')) bars.set(target, { ...bars.get(target), [attribute]: read });
    else notes.set(target, { ...notes.get(target), [attribute]: read });
  }
  return { notes, bars, piece };
}

/** A slide is said like vibrato, but the hand has to do it: the plan knows of it. */
const isSlide = ({ attribute, value }: Register): boolean => attribute === 'gesture' && value === 'slide';

function readValue(attribute: Attribute, value: NonNullable<Value>) {
  if (attribute === 'pitch') return maybePitch(String(value));
  if (attribute === 'length') return maybeFraction(String(value));
  return value;
}

/** The corrections that change the score itself, as a text that is equal when they are. */
export function scoreCorrectionsKey(registers: Registers): string {
  return listRegisters(registers)
    .filter(
      (one) =>
        isSlide(one) ||
        (isCorrection(one.attribute) && one.attribute !== 'chord' && one.attribute !== 'form'),
    )
    .map(({ target, attribute, value }) => `${target} ${attribute} ${JSON.stringify(value)}`)
    .sort()
    .join('\n');
}
