/**
 * Ways out where no hand can play everything, or a note cannot last. Each is one setting of the edition, so that
 * accepting it is an operation that can be undone; nothing is ever applied unasked.
 */
import { fraction, fractionText } from '../../music/fraction';
import { pitchText, spellMidi } from '../../music/pitchText';
import { TUNINGS, tuningOrThrow } from '../../instrument/tuning';
import { withCapo } from '../../instrument/fretboard';
import type { Score } from '../../score/model';
import { pitchInFile } from '../../score/pitchInFile';
import { type Attribute, type Value, PIECE } from '../edition/attributes';
import type { Ink } from '../problem/ink';
import { barresPlayable, pairPlayable } from '../left/rules/constraints';
import type { Placement } from '../left/rules/place';
import { placementsOf } from '../left/rules/placements';
import type { FingeringProblem, Moment } from '../problem/problem';
import type { Strike } from '../problem/strike';

export type RemedyKind =
  | 'pluck'
  | 'leaveOut'
  | 'octaveUp'
  | 'octaveDown'
  | 'noteOctaveUp'
  | 'noteOctaveDown'
  | 'tuning'
  | 'capo'
  | 'letGo'
  | 'pencil';

export interface Remedy {
  readonly kind: RemedyKind;
  readonly target: string;
  readonly attribute: Attribute;
  /** Null takes ink back. */
  readonly value: Value;
  /** Of `letGo`: how long the note then lasts. */
  readonly quarters: number | null;
}

const CAPOS = [1, 2, 3, 4, 5];

const remedy = (kind: RemedyKind, target: string, attribute: Attribute, value: Value): Remedy => ({
  kind,
  target,
  attribute,
  value,
  quarters: null,
});

const tried = new WeakMap<Moment, Map<string, readonly Remedy[]>>();

/**
 * What makes a moment playable that no hand can play: each proposal was tried on the moment by itself. Nothing else of
 * the piece matters, so it is tried once.
 */
export function remediesForMoment(
  problem: FingeringProblem,
  score: Score,
  moment: Moment,
  leftOut: readonly number[],
): readonly Remedy[] {
  const known = tried.get(moment) ?? new Map<string, readonly Remedy[]>();
  tried.set(moment, known);
  const key = leftOut.join();
  const remedies = known.get(key) ?? tryOnMoment(problem, score, moment, leftOut);
  known.set(key, remedies);
  return remedies;
}

function tryOnMoment(
  problem: FingeringProblem,
  score: Score,
  moment: Moment,
  leftOut: readonly number[],
): readonly Remedy[] {
  const struck = moment.struck.map((index) => problem.strikes[index]!);
  const found: Remedy[] = [];
  const bass = struck.reduce((a, b) => (b.midi < a.midi ? b : a));
  for (const [kind, semitones] of [
    ['octaveUp', 12],
    ['octaveDown', -12],
  ] as const) {
    const moved = struck.map((strike) =>
      strike === bass ? { ...strike, midi: strike.midi + semitones } : strike,
    );
    if (canStandAlone(problem, moved))
      found.push(remedy(kind, bass.uids[0]!, 'pitch', shiftedPitch(score, bass, semitones)));
  }
  for (const index of innerFirst(struck, leftOut)) {
    const rest = struck.filter((strike) => strike.index !== index);
    if (rest.length > 0 && canStandAlone(problem, rest))
      found.push(remedy('leaveOut', problem.strikes[index]!.uids[0]!, 'leftOut', true));
  }
  for (const { id } of TUNINGS) {
    if (id !== problem.tuning.id && canStandAlone({ ...problem, tuning: tuningOrThrow(id) }, struck))
      found.push(remedy('tuning', PIECE, 'tuning', id));
  }
  if (score.capo === 0) {
    // A capo shortens the stretches; the pitches that are read stay.
    const capo = CAPOS.find((fret) =>
      canStandAlone({ ...problem, fretboard: withCapo(problem.fretboard, fret) }, struck),
    );
    if (capo !== undefined) found.push(remedy('capo', PIECE, 'capo', capo));
  }
  return found;
}

/** A note that no string has: an octave that some string has, a tuning that reaches it, or without it. */
export function remediesForOutside(
  problem: FingeringProblem,
  score: Score,
  strike: Strike,
): readonly Remedy[] {
  const has = (tuning: FingeringProblem['tuning'], midi: number) =>
    placementsOf({ ...problem, tuning }, { ...strike, midi }).length > 0;
  const target = strike.uids[0]!;
  const found: Remedy[] = [];
  for (const [kind, semitones] of [
    ['noteOctaveUp', 12],
    ['noteOctaveDown', -12],
  ] as const)
    if (has(problem.tuning, strike.midi + semitones))
      found.push(remedy(kind, target, 'pitch', shiftedPitch(score, strike, semitones)));
  for (const { id } of TUNINGS)
    if (id !== problem.tuning.id && has(tuningOrThrow(id), strike.midi))
      found.push(remedy('tuning', PIECE, 'tuning', id));
  return [...found, remedy('leaveOut', target, 'leftOut', true)];
}

/** Inner notes can be missed most easily, the melody least. */
function innerFirst(struck: readonly Strike[], leftOut: readonly number[]): readonly number[] {
  const rank = { inner: 0, bass: 1, melody: 2 } as const;
  return [...struck]
    .sort(
      (a, b) =>
        rank[a.role] - rank[b.role] || Number(leftOut.includes(b.index)) - Number(leftOut.includes(a.index)),
    )
    .map((strike) => strike.index);
}

/** Whether one hand can strike all of it at once, whatever lies around it. */
function canStandAlone(
  geometry: Pick<FingeringProblem, 'fretboard' | 'hand' | 'tuning'>,
  struck: readonly Strike[],
): boolean {
  const { fretboard, hand } = geometry;
  const choices = struck.map((strike) => placementsOf(geometry, strike));
  const fits = (chosen: readonly Placement[], place: Placement) =>
    chosen.every((one) => pairPlayable(one, place, fretboard, hand));
  const descend = (chosen: readonly Placement[]): boolean =>
    chosen.length === choices.length
      ? barresPlayable(chosen)
      : choices[chosen.length]!.some((place) => fits(chosen, place) && descend([...chosen, place]));
  return descend([]);
}

function shiftedPitch(score: Score, { uids }: Strike, semitones: number): string {
  const note = score.notes.find((one) => one.uid === uids[0])!;
  const fifths = score.keys.filter((key) => key.tick <= note.onsetTicks).at(-1)?.fifths ?? 0;
  const octaves = semitones / 12;
  const pitch = Number.isInteger(octaves)
    ? { ...note.pitch, octave: note.pitch.octave + octaves }
    : spellMidi(note.soundingMidi + semitones, fifths);
  return pitchText(pitchInFile(score, note, pitch));
}

/** A note that is let go early can be written as short as it sounds. */
export function remediesForCut(
  problem: FingeringProblem,
  strike: Strike,
  soundsUntilTicks: number,
): readonly Remedy[] {
  const ticks = soundsUntilTicks - strike.onsetTicks;
  if (ticks <= 0 || strike.grace) return [];
  const length = fraction(ticks, problem.ticksPerQuarter);
  return strike.uids.map((uid) => ({
    ...remedy('letGo', uid, 'length', fractionText(length)),
    quarters: ticks / problem.ticksPerQuarter,
  }));
}

/** A slur that no hand can play: the second note is plucked. */
export const remediesForSlur = (toUid: string): readonly Remedy[] => [remedy('pluck', toUid, 'slur', false)];

/** Contradictory ink: giving one of the inked marks back. */
export const remediesForInk = (uids: readonly string[], ink: Ink): readonly Remedy[] =>
  uids.flatMap((uid) =>
    (['finger', 'string'] as const)
      .filter((attribute) => (ink.get(uid)?.[attribute] ?? null) !== null)
      .map((attribute) => remedy('pencil', uid, attribute, null)),
  );
