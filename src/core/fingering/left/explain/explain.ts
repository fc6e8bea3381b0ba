/** The total of a left-hand plan, term by term, and the difference between two of them. */
import type { FingeringProblem } from '../../problem/problem';
import type { Reason } from '../../report/plan';
import type { HandState } from '../rules/handState';
import { entryCost, returnCost, stateCost, transitionCost } from '../rules/prices';
import type { LeftTermId } from '../rules/terms';

export type TermTotals = ReadonlyMap<LeftTermId, number>;

/** Sums each term over a path of states, as often as it is played; the values add up to the plan's cost. */
export function termTotals(problem: FingeringProblem, states: readonly HandState[]): TermTotals {
  const totals = new Map<LeftTermId, number>();
  const counting = (times: number) => (term: LeftTermId, cost: number) =>
    void totals.set(term, (totals.get(term) ?? 0) + times * cost);
  const { plays, steps, returns } = problem.passes;
  states.forEach((state, k) => {
    const { own, way } = momentTerms(problem, k, states[k - 1] ?? null, state);
    for (const [term, cost] of own) counting(plays[k]!)(term, cost);
    for (const [term, cost] of way) counting(k === 0 ? plays[0]! : steps[k]!)(term, cost);
  });
  for (const one of returns)
    returnCost(problem, one, states[one.from]!, states[one.to]!, counting(one.times));
  return totals;
}

/** What one moment costs, term by term: by itself, and the way to it from the state before. */
export interface MomentTerms {
  readonly own: ReadonlyMap<LeftTermId, number>;
  readonly way: ReadonlyMap<LeftTermId, number>;
}

interface Known extends MomentTerms {
  readonly problem: FingeringProblem;
  readonly k: number;
  readonly from: HandState | null;
}
/** States are asked about again and again, and nearly all of a plan stays when one note is changed. */
const known = new WeakMap<HandState, Known>();

/** @param from the state before, null at the start */
export function momentTerms(
  problem: FingeringProblem,
  k: number,
  from: HandState | null,
  state: HandState,
): MomentTerms {
  const before = known.get(state);
  if (before && before.problem === problem && before.k === k && before.from === from) return before;
  const [own, way] = [new Map<LeftTermId, number>(), new Map<LeftTermId, number>()];
  const into = (sums: Map<LeftTermId, number>) => (term: LeftTermId, cost: number) =>
    void sums.set(term, (sums.get(term) ?? 0) + cost);
  const moment = problem.moments[k]!;
  stateCost(problem, moment, state, into(own));
  if (from) transitionCost(problem, from, moment, state, into(way));
  else entryCost(problem, state, into(way));
  const terms = { problem, k, from, own, way };
  known.set(state, terms);
  return terms;
}

/** Whether two plans are the same at a moment, the way to it included. */
export const sameAt = (a: readonly HandState[], b: readonly HandState[], k: number): boolean =>
  a[k] === b[k] && a[k - 1] === b[k - 1];

/** What makes `other` dearer than `best`, the largest differences first. */
export function reasonsBetween(
  problem: FingeringProblem,
  best: readonly HandState[],
  other: readonly HandState[],
): readonly Reason[] {
  const differences = new Map<LeftTermId, number>();
  const counting = (times: number) => (term: LeftTermId, cost: number) =>
    void differences.set(term, (differences.get(term) ?? 0) + times * cost);
  const { plays, steps, returns } = problem.passes;
  other.forEach((_state, k) => {
    if (sameAt(best, other, k)) return;
    for (const [states, sign] of [
      [other, 1],
      [best, -1],
    ] as const) {
      const { own, way } = momentTerms(problem, k, states[k - 1] ?? null, states[k]!);
      for (const [term, cost] of own) counting(sign * plays[k]!)(term, cost);
      for (const [term, cost] of way) counting(sign * (k === 0 ? plays[0]! : steps[k]!))(term, cost);
    }
  });
  for (const one of returns) {
    returnCost(problem, one, other[one.from]!, other[one.to]!, counting(one.times));
    returnCost(problem, one, best[one.from]!, best[one.to]!, counting(-one.times));
  }
  return [...differences]
    .map(([term, difference]) => ({ term, difference }))
    .filter((reason) => reason.difference !== 0)
    .sort((a, b) => b.difference - a.difference || a.term.localeCompare(b.term));
}
