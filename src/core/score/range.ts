/** A passage that is marked: from one onset to another, both counted, of all voices or of one. */
import type { Score, ScoreNote } from './model';

export interface Range {
  readonly from: number;
  readonly to: number;
  /** Null for all of them. */
  readonly voice: string | null;
}

/** From which tick, and up to which, that one not counted. */
export interface TickRange {
  readonly from: number;
  readonly to: number;
}

export const isInRange = ({ onsetTicks, voice }: ScoreNote, range: Range): boolean =>
  onsetTicks >= range.from && onsetTicks <= range.to && (range.voice === null || voice === range.voice);

export const notesIn = ({ notes }: Score, range: Range): readonly ScoreNote[] =>
  notes.filter((note) => isInRange(note, range));

/** Between two notes, whichever comes first. */
export const rangeBetween = (a: ScoreNote, b: ScoreNote): Range => ({
  from: Math.min(a.onsetTicks, b.onsetTicks),
  to: Math.max(a.onsetTicks, b.onsetTicks),
  voice: null,
});

export const rangeOfBars = ({ measures }: Score, first: number, last: number): Range => ({
  from: measures[first]!.startTicks,
  to: measures[last]!.startTicks + measures[last]!.durationTicks - 1,
  voice: null,
});

export const wholeRange = (score: Score): Range => rangeOfBars(score, 0, score.measures.length - 1);

/** Indices of the first and the last bar that it touches. */
export function barsOf(
  { measures }: Score,
  { from, to }: Range,
): { readonly first: number; readonly last: number } {
  const barAt = (tick: number) =>
    Math.max(
      0,
      measures.findLastIndex(({ startTicks }) => startTicks <= tick),
    );
  return { first: barAt(from), last: barAt(to) };
}

/** The phrase around a tick in one voice: from a rest to a rest. */
export function breathAround({ notes }: Score, tick: number, voice: string): Range {
  const own = notes.filter((note) => note.voice === voice && !note.grace);
  const isJoined = (a: ScoreNote, b: ScoreNote) => a.onsetTicks + a.durationTicks >= b.onsetTicks;
  let first = Math.max(
    0,
    own.findLastIndex(({ onsetTicks }) => onsetTicks <= tick),
  );
  let last = first;
  while (first > 0 && isJoined(own[first - 1]!, own[first]!)) first--;
  while (last < own.length - 1 && isJoined(own[last]!, own[last + 1]!)) last++;
  return { from: own[first]!.onsetTicks, to: own[last]!.onsetTicks, voice: null };
}
