/**
 * Crossings of the right hand from stroke to stroke. Source: handbook 6: favourable when the order of the fingers
 * (i m a) and of the strings' pitches agree, unfavourable when they do not.
 */
import type { FrettedPlace } from './vocabulary';

const RANK: Readonly<Record<string, number>> = { i: 0, m: 1, a: 2 };

/** Whether the way from one stroke to the next, on another string, goes against the fingers. */
export function isUnfavourable(
  from: { readonly string: number; readonly letter: string },
  to: { readonly string: number; readonly letter: string },
): boolean {
  const fingers = (RANK[to.letter] ?? NaN) - (RANK[from.letter] ?? NaN);
  const strings = from.string - to.string;
  return fingers * strings < 0;
}

/** @param letters that take turns */
export function crossingsIn(places: readonly FrettedPlace[], letters: string): number {
  const strokes = places.map(({ string }, k) => ({ string, letter: letters[k % letters.length]! }));
  return strokes.filter((stroke, k) => k > 0 && isUnfavourable(strokes[k - 1]!, stroke)).length;
}

/** The letters, begun with the one that gives the fewest unfavourable crossings; the first of them where several do. */
export function fewestCrossings(places: readonly FrettedPlace[], letters: string): string {
  const begun = [...letters].map((_, k) => letters.slice(k) + letters.slice(0, k));
  const counts = begun.map((order) => crossingsIn(places, order));
  return begun[counts.indexOf(Math.min(...counts))]!;
}
