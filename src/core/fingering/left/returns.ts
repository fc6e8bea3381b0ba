/**
 * The optimum of a chain with ways back. Each return joins the last moment of a passage to its first; fixing the
 * hand at the first makes it a cost of the last alone, so the chain can be solved. Branch and bound: hands are tried
 * in the order of what the chain without the return says, until that bound reaches the best found.
 */
import type { FingeringProblem } from '../problem';
import { costThrough, type Extras, type Mask, type Solution, solveLattice, UNREACHABLE } from '../lattice';
import type { Return } from '../passes';
import { barreCost } from './barreCost';
import type { HandState } from './handState';
import { hopsCost } from './hops';
import type { Ledger } from './ledger';
import type { PackedLayer } from './packed/packedLayer';
import { shiftCost } from './shift';

/** What one return costs: the way of the hand and its fingers; nothing is held over a jump. */
export function returnCost(
  problem: FingeringProblem,
  { from, to, tick }: Return,
  a: HandState,
  b: HandState,
  ledger?: Ledger,
): number {
  const last = problem.moments[from]!;
  const next = { ...problem.moments[to]!, tick, held: [] };
  return (
    shiftCost(problem, last, a, next, b, ledger) +
    hopsCost(problem, last, a, next, b, ledger) +
    // At the very beginning every play lays its barre anew: its own cost says so.
    (to === 0 ? 0 : barreCost(problem, a, b, ledger))
  );
}

/** Null when nothing can be played. `chain`: the solution without the returns. */
export function solveWithReturns(
  problem: FingeringProblem,
  layers: readonly PackedLayer[],
  masks: readonly Mask[],
  chain: Solution,
): Solution | null {
  const { returns } = problem.passes;
  let best: Solution | null = null;
  const explore = (n: number, solution: Solution, limits: readonly Mask[], extras: Extras) => {
    if (best && solution.cost >= best.cost) return;
    const one = returns[n];
    if (!one) {
      best = solution;
      return;
    }
    for (const s of statesByBound(solution, one.to)) {
      if (best && costThrough(solution, one.to, s) >= best.cost) break;
      const fixed = withOnly(limits, one.to, s, layers[one.to]!.rows.count);
      const paid = withReturn(problem, layers, one, s, extras);
      const next = solveLattice(layers, fixed, solution, paid);
      if (next) explore(n + 1, next, fixed, paid);
    }
  };
  explore(
    0,
    chain,
    masks,
    layers.map(() => null),
  );
  return best;
}

function statesByBound(solution: Solution, k: number): readonly number[] {
  const states = [...solution.forward.cost[k]!.keys()].filter(
    (s) => costThrough(solution, k, s) < UNREACHABLE,
  );
  return states.sort((a, b) => costThrough(solution, k, a) - costThrough(solution, k, b) || a - b);
}

const withOnly = (masks: readonly Mask[], k: number, s: number, count: number): readonly Mask[] =>
  masks.map((mask, j) => {
    if (j !== k) return mask;
    const only = new Uint8Array(count);
    only[s] = 1;
    return only;
  });

function withReturn(
  problem: FingeringProblem,
  layers: readonly PackedLayer[],
  one: Return,
  s: number,
  extras: Extras,
): Extras {
  const from = layers[one.from]!;
  const to = layers[one.to]!.state(s);
  const before = extras[one.from];
  const paid = Int32Array.from(
    { length: from.rows.count },
    (_, a) => (before?.[a] ?? 0) + one.times * returnCost(problem, one, from.state(a), to),
  );
  return extras.map((extra, k) => (k === one.from ? paid : extra));
}
