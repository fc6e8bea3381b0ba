/** What the left hand does at a moment: which sounding strike lies where, under which finger. */
import type { FingeringProblem } from '../problem';
import { fretDistanceMm } from '../../instrument/fretboard';

export interface Placement {
  /** 1 (highest) to 6 (lowest). */
  readonly string: number;
  /** 0 is the open string. */
  readonly fret: number;
  /** 1 to 4; 0 on an open string. */
  readonly finger: number;
}

/** A placement in one number, for fast comparison; never 0. */
export const codeOf = ({ string, fret, finger }: Placement): number => (string * 32 + fret) * 8 + finger;

export interface Barre {
  readonly fret: number;
  /** Highest-pitched and lowest-pitched string under finger 1: firstString < lastString. */
  readonly firstString: number;
  readonly lastString: number;
}

/**
 * Where the hand can stand: the least and the greatest fret at which finger 1 would lie for the fingers that
 * are down. Extensions and contractions make it wide; a hand that stays inside does not move.
 */
export interface HandRange {
  readonly low: number;
  readonly high: number;
}

/** Where the hand was before it was freed by open strings. */
export interface HandMemory {
  readonly range: HandRange;
  readonly freedTick: number;
}

/** Equal for memories that mean the same. */
export const memoryKey = (memory: HandMemory | null): string =>
  memory ? `${memory.range.low}-${memory.range.high}@${memory.freedTick}` : '';

export interface HandState {
  /** Strikes that sound, ascending; a held strike that is missing has been let go. */
  readonly strikes: readonly number[];
  readonly placements: readonly Placement[];
  readonly codes: readonly number[];
  /** Index of the strike's place in `strikes` by finger (1 to 4), −1 when the finger is free. */
  readonly slotOfFinger: readonly number[];
  readonly barre: Barre | null;
  /** Null when nothing is stopped. */
  readonly range: HandRange | null;
  /** Only when nothing is stopped. */
  readonly memory: HandMemory | null;
}

/** Makes a state; the caller has checked that a hand can do it. */
export function handState(
  strikes: readonly number[],
  placements: readonly Placement[],
  memory: HandMemory | null,
): HandState {
  const slotOfFinger = [-1, -1, -1, -1, -1];
  placements.forEach((place, slot) => {
    if (place.finger > 0 && slotOfFinger[place.finger] === -1) slotOfFinger[place.finger] = slot;
  });
  return {
    strikes,
    placements,
    codes: placements.map(codeOf),
    slotOfFinger,
    barre: barreOf(placements),
    range: rangeOf(placements),
    memory,
  };
}

/** The barre that finger 1 must lay, or null when it stops at most one string. */
export function barreOf(placements: readonly Placement[]): Barre | null {
  const under = placements.filter((place) => place.finger === 1);
  if (under.length < 2) return null;
  const strings = under.map((place) => place.string);
  return { fret: under[0]!.fret, firstString: Math.min(...strings), lastString: Math.max(...strings) };
}

function rangeOf(placements: readonly Placement[]): HandRange | null {
  let low = Infinity;
  let high = -Infinity;
  for (const { finger, fret } of placements) {
    if (finger === 0) continue;
    low = Math.min(low, fret - (finger - 1));
    high = Math.max(high, fret - (finger - 1));
  }
  return low > high ? null : { low, high };
}

/** Half a fret of the middle of the hand is only the fingers lying differently. From memory. */
const OWN_PLAY_FRETS = 0.5;

const middle = (range: HandRange) => (range.low + range.high) / 2;

/**
 * How many frets the hand moves from one range to another: the gap between them, or, when they overlap, what
 * its middle moves beyond the play of the fingers. May end on half a fret.
 */
export function handWayFrets(from: HandRange, to: HandRange): number {
  const gap = Math.max(to.low - from.high, from.low - to.high);
  return Math.max(0, gap, Math.abs(middle(to) - middle(from)) - OWN_PLAY_FRETS);
}

/** The same way in mm, measured from the middle of `from`. */
export function handWayMm(from: HandRange, to: HandRange, problem: FingeringProblem): number {
  const frets = handWayFrets(from, to);
  if (frets === 0) return 0;
  const start = middle(from);
  const end = Math.max(0, middle(to) > start ? start + frets : start - frets);
  const { scaleLengthMm } = problem.fretboard;
  return Math.abs(fretDistanceMm(end, scaleLengthMm) - fretDistanceMm(start, scaleLengthMm));
}

/**
 * The position as a guitarist names it: the fret where finger 1 lies, or would lie by the lowest finger that
 * is down. Null when nothing is stopped.
 */
export function positionOf(placements: readonly Placement[]): number | null {
  const stopped = placements.filter((place) => place.finger > 0);
  if (stopped.length === 0) return null;
  const lowest = stopped.reduce((a, b) => (b.finger < a.finger ? b : a));
  return Math.max(1, lowest.fret - (lowest.finger - 1));
}
