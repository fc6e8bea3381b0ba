/** How far fingers are from each other in a state, against what the hand reaches. */
import type { FingerPair } from '../../../instrument/handProfile';
import type { FingeringProblem } from '../../problem/problem';
import { fingerDistanceMm } from '../rules/constraints';
import type { HandState } from '../rules/handState';

export interface SpanUsed {
  readonly low: number;
  readonly high: number;
  readonly mm: number;
  readonly atEaseMm: number;
}

/** Null when not both fingers are down. Between their nearest tips. */
export function spanOfPair(
  { hand, fretboard }: Pick<FingeringProblem, 'hand' | 'fretboard'>,
  state: HandState,
  pair: FingerPair,
): SpanUsed | null {
  const [low, high] = [Number(pair[0]), Number(pair[1])];
  const under = (finger: number) => state.placements.filter((place) => place.finger === finger);
  const distances = under(low).flatMap((a) => under(high).map((b) => fingerDistanceMm(a, b, fretboard)));
  if (distances.length === 0) return null;
  return { low, high, mm: Math.min(...distances), atEaseMm: hand.reach[pair].atEaseMm };
}
