/**
 * Seconds of a broken chord: two notes that have strings of their own in the first position, as a and the open b of B7,
 * or b flat and c of C7. They ring into each other, so such a step is no part of a line: in a figure that goes round it
 * comes again beside the same leap. Common practice.
 */
import { openMidi, STRINGS, type Tuning } from '../instrument/tuning';

const STEP_SEMITONES = 2;
/** So many notes on, a figure has come round. */
const LONGEST_ROUND = 9;
/** In the first position nothing is stopped further up. */
const HIGHEST_FRET = 4;

interface Second {
  readonly pair: string;
  /** Leaps to it and from it, over a third string. */
  readonly leaps: readonly string[];
}

/** Whether it is one, by pair of neighbours. @param row pitches in order of play, null for what is no single note */
export function ringingSeconds(row: readonly (number | null)[], tuning: Tuning): readonly boolean[] {
  const seconds = row.slice(1).map((_midi, k) => secondAt(row, k, tuning));
  const others = (one: Second, k: number): readonly number[] => {
    const found: number[] = [];
    for (let j = Math.max(0, k - LONGEST_ROUND); j <= k + LONGEST_ROUND; j++)
      if (j !== k && seconds[j]?.pair === one.pair) found.push(j);
    return found;
  };
  const comesRound = seconds.map(
    (one, k) =>
      one !== null && others(one, k).some((j) => seconds[j]!.leaps.some((leap) => one.leaps.includes(leap))),
  );
  return seconds.map(
    (one, k) => one !== null && (comesRound[k]! || others(one, k).some((j) => comesRound[j])),
  );
}

function secondAt(row: readonly (number | null)[], k: number, tuning: Tuning): Second | null {
  const [before, a, b, after] = [row[k - 1], row[k], row[k + 1], row[k + 2]];
  if (typeof a !== 'number' || typeof b !== 'number') return null;
  const [from, to] = [stringOf(a, tuning), stringOf(b, tuning)];
  const isStep = a !== b && Math.abs(a - b) <= STEP_SEMITONES;
  if (!isStep || from === null || to === null || from === to) return null;
  const leap = (midi: number | null | undefined, beside: number): readonly string[] => {
    if (typeof midi !== 'number' || Math.abs(midi - beside) <= STEP_SEMITONES) return [];
    const string = stringOf(midi, tuning);
    return string !== null && string !== from && string !== to ? [`${midi} ${beside}`] : [];
  };
  return { pair: [a, b].sort((x, y) => x - y).join(' '), leaps: [...leap(before, a), ...leap(after, b)] };
}

/** The string on which a pitch lies in the first position; null where it lies higher, or on none. */
const stringOf = (midi: number, tuning: Tuning): number | null =>
  STRINGS.find((string) => {
    const fret = midi - openMidi(tuning, string);
    return fret >= 0 && fret <= HIGHEST_FRET;
  }) ?? null;
