/** Which pitches a hand can hold at once. */
import type { Fretboard } from '../../instrument/fretboard';
import type { HandProfile } from '../../instrument/handProfile';
import type { Tuning } from '../../instrument/tuning';
import { playable } from '../left/rules/constraints';
import type { Placement } from '../left/rules/place';
import { placementsOf } from '../left/rules/placements';

/** Answers are remembered: a figure comes again and again. @param highestFret nothing lies above it */
export function gripsOf(
  tuning: Tuning,
  fretboard: Fretboard,
  hand: HandProfile,
  highestFret = Infinity,
): (midis: readonly number[]) => boolean {
  const known = new Map<string, boolean>();
  const holds = (midis: readonly number[], places: readonly Placement[]): boolean => {
    if (!playable(places, fretboard, hand)) return false;
    const [midi, ...rest] = midis;
    if (midi === undefined) return true;
    return placementsOf({ tuning, hand }, { midi, touch: null }).some(
      (place) => place.fret <= highestFret && holds(rest, [...places, place]),
    );
  };
  return (midis) => {
    const key = [...midis].sort((a, b) => a - b).join();
    let answer = known.get(key);
    if (answer === undefined) known.set(key, (answer = midis.length <= 6 && holds(midis, [])));
    return answer;
  };
}
