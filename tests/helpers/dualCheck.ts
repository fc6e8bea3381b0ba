/**
 * The naive dual check of a left-hand plan: all states are enumerated by plain products, all pairs of them priced by
 * the rules; the planner's cost to the end is, for every state, the best step with what comes after it, and its plan
 * costs what the best start says.
 */
import { expect } from 'vitest';
import { entryCost, stateCost, transitionCost } from '../../src/core/fingering/left/rules/prices';
import type { HandState } from '../../src/core/fingering/left/rules/handState';
import { arrivedFrom, follows } from '../../src/core/fingering/left/rules/follows';
import type { LeftPlanner } from '../../src/core/fingering/left/lattice/planLeft';
import { costToEnd, solveLattice, UNREACHABLE } from '../../src/core/fingering/solver/lattice';
import { naiveConfigurations } from './naive';

const stateKey = (state: HandState) =>
  `${state.strikes
    .map((strike, k) => `${strike}:${state.places[k]}`)
    .sort()
    .join(' ')}|${state.anchor}|${state.lying}|${JSON.stringify(state.memory)}`;

export function dualCheck(planner: LeftPlanner): void {
  const { problem, layers } = planner;
  const { plays, steps, returns } = problem.passes;
  const solution = solveLattice(
    layers,
    layers.map(() => null),
  )!;
  const toEnd = layers.map(
    (layer, k) => new Map(layer.states.map((state, s) => [stateKey(state), costToEnd(solution, k, s)])),
  );
  // Every state that a hand could be in, with the memory that the state before it leaves.
  let before: HandState[] = naiveConfigurations(problem, problem.moments[0]!);
  const starts = before.map(
    (state) =>
      plays[0]! * (stateCost(problem, problem.moments[0]!, state) + entryCost(problem, state)) +
      toEnd[0]!.get(stateKey(state))!,
  );
  expect(Math.min(...starts)).toBe(solution.cost);
  // Ways back are dearer than nothing: with them the chain is a bound.
  const { cost } = planner.plan(new Map());
  if (returns.length === 0) expect(cost).toBe(solution.cost);
  else expect(cost).toBeGreaterThanOrEqual(solution.cost);

  for (let k = 1; k < problem.moments.length; k++) {
    const next = problem.moments[k]!;
    const reached = new Map<string, HandState>();
    const best = new Map<string, number>();
    for (const bare of naiveConfigurations(problem, next)) {
      for (const from of before) {
        const to = arrivedFrom(problem, from, bare, next);
        if (!follows(problem, from, to, next)) continue;
        const key = stateKey(to);
        const rest = toEnd[k]!.get(key);
        if (rest === undefined || rest >= UNREACHABLE)
          throw new Error(`moment ${k}: the planner lacks ${key}`);
        const step =
          steps[k]! * transitionCost(problem, from, next, to) + plays[k]! * stateCost(problem, next, to);
        const fromKey = stateKey(from);
        best.set(fromKey, Math.min(best.get(fromKey) ?? Infinity, step + rest));
        reached.set(key, to);
      }
    }
    for (const [key, cost] of best) {
      if (toEnd[k - 1]!.get(key) !== cost) throw new Error(`moment ${k}: from ${key} the rest costs ${cost}`);
    }
    // A state may stand there that no way leads to; what can be reached is the same.
    const reachable = solution.forward.cost[k]!.filter((cost) => cost < UNREACHABLE);
    expect(reached.size).toBe(reachable.length);
    before = [...reached.values()];
  }
  expect([...toEnd.at(-1)!.values()].every((cost) => cost === 0)).toBe(true);
}
