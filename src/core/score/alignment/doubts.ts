/**
 * Which pairs of notes are certain enough to carry ink without a word. A fingering belongs to a note in its place: where
 * voice, place or length differ, or the bar is mostly another one, the teacher is asked.
 */
import type { Score, ScoreNote } from '../model';
import { type BarContent, lengthText, placeKey } from './barContent';
import type { BarPair } from './barPairs';

/** What speaks against a pair, the weightiest first. */
export const DOUBTS = ['bar', 'place', 'voice', 'length'] as const;
export type Doubt = (typeof DOUBTS)[number];

/** A bar of which less than this is there again is another bar that has some notes in common. */
const LEAST_SHARED = 0.5;

interface Sides {
  readonly old: Score;
  readonly next: Score;
  readonly octaveShift: number;
}

/**
 * @param pairs old note by new note
 * @returns of each new note that is paired: what makes the pair doubtful, or null
 */
export function doubtOf(
  sides: Sides,
  pairs: ReadonlyMap<ScoreNote, ScoreNote>,
  bars: readonly BarPair[],
  contents: { readonly old: readonly BarContent[]; readonly next: readonly BarContent[] },
): (next: ScoreNote) => Doubt | null {
  const { old, next, octaveShift } = sides;
  const isInPlace = (to: ScoreNote, from: ScoreNote) =>
    placeKey(next, to, octaveShift) === placeKey(old, from, 0);
  const ownBar = new Map(bars.map((pair) => [pair.next, pair.old]));
  const inPlace = new Map<number, number>();
  for (const [to, from] of pairs)
    if (ownBar.get(to.measureIndex) === from.measureIndex && isInPlace(to, from))
      inPlace.set(to.measureIndex, (inPlace.get(to.measureIndex) ?? 0) + 1);
  const isSameBar = (to: ScoreNote, from: ScoreNote) => {
    if (ownBar.get(to.measureIndex) !== from.measureIndex) return false;
    const most = Math.max(
      contents.next[to.measureIndex]!.notes.length,
      contents.old[from.measureIndex]!.notes.length,
    );
    return (inPlace.get(to.measureIndex) ?? 0) >= LEAST_SHARED * most;
  };
  const voices = voicesOf(pairs);
  return (to) => {
    const from = pairs.get(to)!;
    if (!isSameBar(to, from)) return 'bar';
    if (!isInPlace(to, from)) return 'place';
    if (voices.get(from.voice) !== to.voice) return 'voice';
    return lengthText(old, from) === lengthText(next, to) ? null : 'length';
  };
}

/** Programs number voices as they like: a voice is the one in which most of its notes are found again. */
function voicesOf(pairs: ReadonlyMap<ScoreNote, ScoreNote>): ReadonlyMap<string, string> {
  const counts = new Map<string, Map<string, number>>();
  for (const [to, from] of pairs) {
    const own = counts.get(from.voice) ?? new Map<string, number>();
    own.set(to.voice, (own.get(to.voice) ?? 0) + 1);
    counts.set(from.voice, own);
  }
  return new Map(
    [...counts].map(([voice, own]) => [
      voice,
      [...own].reduce((best, one) => (one[1] > best[1] ? one : best))[0],
    ]),
  );
}
