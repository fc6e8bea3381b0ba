/** Where the effort of a plan lies: its cost by bar, left and right hand. */
import type { Measure } from '../score/model';
import type { HandState } from './left/handState';
import { entryCost } from './left/barreCost';
import { stateCost } from './left/stateCost';
import { transitionCost } from './left/transition';
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
  return states.map((state, k) => {
    const moment = problem.moments[k]!;
    const way =
      k === 0
        ? entryCost(problem, state)
        : transitionCost(problem, problem.moments[k - 1]!, states[k - 1]!, moment, state);
    return stateCost(problem, moment, state) + way;
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
