/**
 * Where the hand stays: the fret of the index finger, or where it would be. A finger that stops a note a fret outside
 * reaches from there, and the hand comes back free; whoever goes further takes the hand along, which is a shift.
 * Source: handbook 13, "Height" and "Creeping".
 */
import type { HandRange } from './range';

/** No finger ever lay. */
export const NO_ANCHOR = 0;

/** Anchors are whole numbers below this. */
export const ANCHORS = 32;

/** How many frets a finger may reach out of the position. */
const REACH_FRETS = 1;

/**
 * From where a hand can stop what needs it in a range: one finger reaches by itself, several take the hand along, and a
 * barre holds it on its fret. The lowest first.
 */
export function anchorsFor({ low, high }: HandRange, fingers: number, barred: boolean): readonly number[] {
  if (barred) return [low];
  const play = fingers === 1 ? REACH_FRETS : 0;
  const first = Math.max(1, low - play);
  const last = Math.max(1, high + play);
  return Array.from({ length: last - first + 1 }, (_, k) => first + k);
}
