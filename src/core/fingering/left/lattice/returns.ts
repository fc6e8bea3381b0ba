/**
 * The optimum of a chain with ways back. Each return joins the last moment of a passage to its first; fixing the
 * hand at the first makes it a cost of the last alone, so the chain can be solved. Branch and bound: hands are tried
 * in the order of what the chain without the return says, until that bound reaches the best found.
 */
import type { FingeringProblem } from '../../problem/problem';
import {
  costThrough,
  type Extras,
  type Mask,
  type Solution,
  solveLattice,
  UNREACHABLE,
} from '../../solver/lattice';
import type { Return } from '../../problem/passes';
import { returnCost } from '../rules/prices';
import type { HandLayer } from './handLayer';

/**
 * Null when nothing can be played.
 * @param chain the solution without the returns, under the same `extras`
 */
export function solveWithReturns(
  problem: FingeringProblem,
  layers: readonly HandLayer[],
  masks: readonly Mask[],
  chain: Solution,
  extras: Extras = layers.map(() => null),
): Solution | null {
  let best: Solution | null = null;
  exploreReturns(
    problem,
    { layers, masks, chain, extras },
    { limit: () => best?.cost ?? UNREACHABLE, visit: ({ solution }) => (best = solution) },
  );
  return best;
}

/** The hand fixed at the first moment of each return. */
export interface FixedReturns {
  /** Without what the returns cost in `extras`. */
  readonly states: readonly number[];
  readonly masks: readonly Mask[];
  readonly solution: Solution;
}

/** A chain without its returns, solved under `extras`. */
export interface OpenChain {
  readonly layers: readonly HandLayer[];
  readonly masks: readonly Mask[];
  /** Its layers may be other than `layers`: the same ones with every cost times `scale`. */
  readonly chain: Solution;
  readonly extras: Extras;
  readonly scale?: number;
}

/** A visit may lower the limit. */
export interface Visitor {
  readonly limit: () => number;
  readonly visit: (fixed: FixedReturns) => void;
}

/** Visits every choice of hands at the returns whose least cost is below the limit. */
export function exploreReturns(
  problem: FingeringProblem,
  { layers, masks, chain, extras, scale = 1 }: OpenChain,
  { limit, visit }: Visitor,
): void {
  const { returns } = problem.passes;
  const explore = (states: readonly number[], solution: Solution, limits: readonly Mask[], paid: Extras) => {
    if (solution.cost >= limit()) return;
    const one = returns[states.length];
    if (!one) return visit({ states, masks: limits, solution });
    for (const s of statesByBound(solution, one.to)) {
      if (costThrough(solution, one.to, s) >= limit()) break;
      const fixed = withOnly(limits, one.to, s, layers[one.to]!.rows.count);
      const more = withReturn(problem, layers, paid, one, { s, scale });
      const next = solveLattice(chain.layers, fixed, solution, more);
      if (next) explore([...states, s], next, fixed, more);
    }
  };
  explore([], chain, masks, extras);
}

/** What the returns cost when the hand is fixed at their first moments. */
export const returnExtras = (
  problem: FingeringProblem,
  layers: readonly HandLayer[],
  states: readonly number[],
): Extras =>
  problem.passes.returns.reduce<Extras>(
    (extras, one, n) => withReturn(problem, layers, extras, one, { s: states[n]!, scale: 1 }),
    layers.map(() => null),
  );

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
  layers: readonly HandLayer[],
  extras: Extras,
  one: Return,
  { s, scale }: { readonly s: number; readonly scale: number },
): Extras {
  const from = layers[one.from]!;
  const to = layers[one.to]!.state(s);
  const before = extras[one.from];
  const paid = Int32Array.from(
    { length: from.rows.count },
    (_, a) => (before?.[a] ?? 0) + scale * one.times * returnCost(problem, one, from.state(a), to),
  );
  return extras.map((extra, k) => (k === one.from ? paid : extra));
}
