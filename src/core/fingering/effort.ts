/** Where the effort of a plan lies: its cost by bar, left and right hand. */
import type { Measure } from '../score/model';
import type { HandState } from './left/handState';
import { momentTerms } from './left/explain';
import type { FingeringProblem } from './problem';

export interface BarEffort {
  /** Tenths of a point. */
  readonly left: number;
  readonly right: number;
}

/** The cost that each moment adds, with the way to it from the moment before. */
export function leftEffortByMoment(
  problem: FingeringProblem,
  states: readonly HandState[],
): readonly number[] {
  const sum = (terms: ReadonlyMap<string, number>) =>
    [...terms.values()].reduce((total, cost) => total + cost, 0);
  return states.map((_state, k) => {
    const { own, way } = momentTerms(problem, states, k);
    return sum(own) + sum(way);
  });
}

/** Sums over bars; what comes before the first bar line (a grace note) counts in the first bar. */
export function effortByBar(
  problem: FingeringProblem,
  measures: readonly Measure[],
  left: readonly number[],
  right: readonly number[],
): readonly BarEffort[] {
  const sums = measures.map(() => ({ left: 0, right: 0 }));
  let bar = 0;
  problem.moments.forEach((moment, k) => {
    while (bar + 1 < measures.length && measures[bar + 1]!.startTicks <= moment.tick) bar++;
    sums[bar]!.left += left[k] ?? 0;
    sums[bar]!.right += right[k] ?? 0;
  });
  return sums;
}
