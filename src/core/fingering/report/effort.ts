/** Where the effort of a plan lies: its cost by bar, left and right hand. */
import type { Measure } from '../../score/model';
import type { HandState } from '../left/rules/handState';
import { momentTerms } from '../left/explain/explain';
import { returnCost } from '../left/rules/prices';
import type { FingeringProblem } from '../problem/problem';

export interface BarEffort {
  /** Tenths of a point. */
  readonly left: number;
  readonly right: number;
}

/** What one moment costs the left hand: by itself, and the way to it. */
export interface MomentEffort {
  readonly own: number;
  readonly way: number;
}

export function leftEffortOf(
  problem: FingeringProblem,
  k: number,
  from: HandState | null,
  state: HandState,
): MomentEffort {
  const sum = (terms: ReadonlyMap<string, number>) =>
    [...terms.values()].reduce((total, cost) => total + cost, 0);
  const { own, way } = momentTerms(problem, k, from, state);
  return { own: sum(own), way: sum(way) };
}

/** The cost of a left hand whose moments cost so much, as often as each is played. */
export function leftCostOf(
  problem: FingeringProblem,
  states: readonly HandState[],
  efforts: readonly MomentEffort[],
): number {
  const { plays, steps, returns } = problem.passes;
  const moments = efforts.reduce(
    (sum, { own, way }, k) => sum + plays[k]! * own + (k === 0 ? plays[0]! : steps[k]!) * way,
    0,
  );
  return returns.reduce(
    (sum, one) => sum + one.times * returnCost(problem, one, states[one.from]!, states[one.to]!),
    moments,
  );
}

/** Sums over bars; what comes before the first bar line (a grace note) counts in the first bar. */
export function effortByBar(
  problem: FingeringProblem,
  measures: readonly Measure[],
  left: readonly MomentEffort[],
  right: readonly MomentEffort[],
): readonly BarEffort[] {
  const sums = measures.map(() => ({ left: 0, right: 0 }));
  let bar = 0;
  problem.moments.forEach((moment, k) => {
    while (bar + 1 < measures.length && measures[bar + 1]!.startTicks <= moment.tick) bar++;
    sums[bar]!.left += left[k]!.own + left[k]!.way;
    sums[bar]!.right += right[k]!.own + right[k]!.way;
  });
  return sums;
}
