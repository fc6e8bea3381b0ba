/** Where a pitch can be stopped, played open or touched. */
import { openMidi, STRINGS } from '../../../instrument/tuning';
import type { FingeringProblem } from '../../problem/problem';
import type { Strike } from '../../problem/strike';
import type { Placement } from './place';

/** Strings, frets and fingers that could sound one pitch: open first, then by string and finger. */
export function placementsOf(
  problem: Pick<FingeringProblem, 'tuning' | 'hand'>,
  { midi, touch }: Pick<Strike, 'midi' | 'touch'>,
): readonly Placement[] {
  if (touch) return touch.flatMap((place) => [1, 2, 3, 4].map((finger) => ({ ...place, finger })));
  const all: Placement[] = [];
  for (const string of STRINGS) {
    const fret = midi - openMidi(problem.tuning, string);
    if (fret === 0) all.push({ string, fret, finger: 0 });
    if (fret < 1 || fret > problem.hand.highestFret) continue;
    for (let finger = 1; finger <= 4; finger++) all.push({ string, fret, finger });
  }
  return all;
}
