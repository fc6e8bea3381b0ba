/** The total of a left-hand plan, term by term, and the difference between two of them. */
import type { FingeringProblem } from '../problem';
import type { Reason } from '../plan';
import type { HandState } from './handState';
import { entryCost } from './barreCost';
import { returnCost } from './returns';
import { stateCost } from './stateCost';
import type { LeftTermId } from './terms';
import { transitionCost } from './transition';

export type TermTotals = ReadonlyMap<LeftTermId, number>;

/** Sums each term over a path of states, as often as it is played; the values add up to the plan's cost. */
export function termTotals(problem: FingeringProblem, states: readonly HandState[]): TermTotals {
  const totals = new Map<LeftTermId, number>();
  const counting = (times: number) => (term: LeftTermId, cost: number) =>
    void totals.set(term, (totals.get(term) ?? 0) + times * cost);
  const { plays, steps, returns } = problem.passes;
  states.forEach((state, k) => {
    const moment = problem.moments[k]!;
    stateCost(problem, moment, state, counting(plays[k]!));
    if (k === 0) entryCost(problem, state, counting(plays[k]!));
    else transitionCost(problem, problem.moments[k - 1]!, states[k - 1]!, moment, state, counting(steps[k]!));
  });
  for (const one of returns)
    returnCost(problem, one, states[one.from]!, states[one.to]!, counting(one.times));
  return totals;
}

/** What makes `other` dearer than `best`, the largest differences first. */
export function reasonsBetween(best: TermTotals, other: TermTotals): readonly Reason[] {
  const terms = new Set([...best.keys(), ...other.keys()]);
  return [...terms]
    .map((term) => ({ term, difference: (other.get(term) ?? 0) - (best.get(term) ?? 0) }))
    .filter((reason) => reason.difference !== 0)
    .sort((a, b) => b.difference - a.difference || a.term.localeCompare(b.term));
}
