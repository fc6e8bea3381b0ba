/**
 * Where the hand stays: the fret of the index finger, or where it would be. A finger alone may stop a note a fret
 * outside: it reaches from there, and the hand comes back free. Several fingers take the hand along; where they spread
 * or squeeze it lies between the frets that they ask for. Whoever goes further takes the hand along, which is a shift.
 * Source: handbook 13, "Height" and "Creeping".
 */
import type { HandRange } from './range';

/** No finger ever lay. */
export const NO_ANCHOR = 0;

const FRETS = 32;
/** Anchors are whole numbers below this. */
export const ANCHORS = 8 * FRETS;

/** How many frets a finger may reach out of the position. */
const REACH_FRETS = 1;

export const anchorId = (low: number, high: number): number => low + FRETS * (high - low);

/** The frets between which it lies; nearly always one. */
export const anchorLow = (anchor: number): number => anchor % FRETS;
export const anchorHigh = (anchor: number): number => anchorLow(anchor) + Math.floor(anchor / FRETS);

/** From where a hand can stop what needs it in a range, the lowest first; never over the nut. */
export function anchorsFor({ low, high }: HandRange, fingers: number, barred: boolean): readonly number[] {
  if (barred || fingers > 1) return [anchorId(Math.max(1, low), Math.max(1, high))];
  const first = Math.max(1, low - REACH_FRETS);
  const last = Math.max(1, high + REACH_FRETS);
  return Array.from({ length: last - first + 1 }, (_, k) => anchorId(first + k, first + k));
}

/** Between spread fingers the middle of the hand may move so many frets while the thumb stays. From memory. */
const PLAY_FRETS = 1;

/**
 * How many frets the hand must go from one anchor to another, upwards above 0: the gap between them, or, where they
 * touch, what its middle moves beyond its play. May end on half a fret.
 */
export function anchorWay(from: number, to: number): number {
  const up = anchorLow(to) - anchorHigh(from);
  if (up > 0) return up;
  const down = anchorLow(from) - anchorHigh(to);
  if (down > 0) return -down;
  const moved = middle(to) - middle(from);
  return Math.sign(moved) * Math.max(0, Math.abs(moved) - PLAY_FRETS);
}

const middle = (anchor: number): number => (anchorLow(anchor) + anchorHigh(anchor)) / 2;
