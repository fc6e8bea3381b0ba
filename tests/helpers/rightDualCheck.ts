/**
 * The naive dual check of a right-hand plan: every memory that any letters leave is walked through with every sharing
 * of the next group, priced by the rules; the planner's costs to the end are the best step with what comes after it.
 */
import { expect } from 'vitest';
import { costToEnd, solveLattice } from '../../src/core/fingering/solver/lattice';
import type { FingeringProblem } from '../../src/core/fingering/problem/problem';
import {
  fingersKey,
  memoryAfter,
  NO_MEMORY,
  type Played,
  type RightMemory,
  sharingFor,
  thumbKey,
} from '../../src/core/fingering/right/rules/memory';
import { type Placed, RightPlanner } from '../../src/core/fingering/right/lattice/planRight';
import { plainSetting } from '../../src/core/fingering/right/rules/setting';
import { strokeChain } from '../../src/core/fingering/right/lattice/strokeChain';
import { groupCost, strokeTransitionCost } from '../../src/core/fingering/right/rules/strokeCost';
import { modeNumber } from '../../src/core/fingering/right/rules/modes';
import { strokeGroup } from '../../src/core/fingering/right/rules/strokes';
import { StrokeStore } from '../../src/core/fingering/right/lattice/strokeStore';
import { naivePlayed } from './naive';

const nameOf = ({ letters, mode }: Played) => `${letters.join('')}${modeNumber(mode)}`;
const keyOf = ({ fingers, thumb }: RightMemory) => `${fingersKey(fingers)}|${thumbKey(thumb)}`;

export function rightDualCheck(problem: FingeringProblem, placed: Placed): void {
  const setting = plainSetting(problem);
  const { plays, steps } = problem.passes;
  const groups = placed.map((strikes, k) => strokeGroup(problem, setting, k, strikes));
  const store = new StrokeStore(problem.hand);
  const layers = strokeChain(
    problem,
    store,
    groups.map((group) => [group]),
  );
  const solution = solveLattice(
    layers,
    layers.map(() => null),
  )!;
  expect(new RightPlanner(problem).plan(placed, new Map()).cost).toBe(solution.cost);
  const toEnd = layers.map(
    (layer, k) =>
      new Map(
        layer.shared.states.map(({ played }, s) => {
          const memory = store.memoryIn(layer.shared.situations, layer.shared.situationOf[s]!);
          return [`${nameOf(played)}|${keyOf(memory)}`, costToEnd(solution, k, s)];
        }),
      ),
  );
  let before = new Map([[`0|${keyOf(NO_MEMORY)}`, NO_MEMORY]]);
  groups.forEach((group, k) => {
    const reached = new Map<string, RightMemory>();
    for (const [key, memory] of before) {
      let best = Infinity;
      for (const played of naivePlayed(group)) {
        const sharing = sharingFor(group, played);
        const after = memoryAfter(memory, sharing);
        const afterKey = `${nameOf(played)}|${keyOf(after)}`;
        const rest = toEnd[k + 1]!.get(afterKey);
        if (rest === undefined) throw new Error(`moment ${k}: the planner lacks ${afterKey}`);
        const way = strokeTransitionCost(memory, group, sharing, problem.hand);
        const step = (k === 0 ? plays[0]! : steps[k]!) * way + plays[k]! * groupCost(group, sharing);
        best = Math.min(best, step + rest);
        reached.set(afterKey, after);
      }
      if (toEnd[k]!.get(key) !== best) throw new Error(`moment ${k}: from ${key} the rest costs ${best}`);
    }
    expect(reached.size).toBe(layers[k + 1]!.shared.states.length);
    before = reached;
  });
  expect(solution.cost).toBe([...toEnd[0]!.values()][0]);
}
