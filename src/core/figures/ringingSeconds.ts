/**
 * Seconds of a broken chord: an open string beside a note that is stopped on the next one, as a and b of B7 at the nut.
 * They ring into each other, so such a step is no part of a line: in a figure that goes round it comes again beside the
 * same leap. Common practice.
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
  const others = (one: Second, k: number) =>
    [...seconds.keys()].filter(
      (j) => j !== k && Math.abs(j - k) <= LONGEST_ROUND && seconds[j]?.pair === one.pair,
    );
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
  const [from, to] = [placeOf(a, tuning), placeOf(b, tuning)];
  const isStep = a !== b && Math.abs(a - b) <= STEP_SEMITONES;
  if (!isStep || !from || !to || from.string === to.string) return null;
  const leap = (midi: number | null | undefined, beside: number): readonly string[] => {
    if (typeof midi !== 'number' || Math.abs(midi - beside) <= STEP_SEMITONES) return [];
    const place = placeOf(midi, tuning);
    return place && place.string !== from.string && place.string !== to.string ? [`${midi} ${beside}`] : [];
  };
  return { pair: [a, b].sort((x, y) => x - y).join(' '), leaps: [...leap(before, a), ...leap(after, b)] };
}

/** Where a pitch lies in the first position. */
function placeOf(midi: number, tuning: Tuning): { readonly string: number; readonly isOpen: boolean } | null {
  const string = STRINGS.find((one) => {
    const fret = midi - openMidi(tuning, one);
    return fret >= 0 && fret <= HIGHEST_FRET;
  });
  return string === undefined ? null : { string, isOpen: openMidi(tuning, string) === midi };
}
