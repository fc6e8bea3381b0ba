/**
 * The naive dual check on every demo piece: all states and all pairs of states are enumerated by plain products;
 * the planner's costs to the end must never be beaten by a step, and must add up to the plan's cost.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { type HandState, handState } from '../../src/core/fingering/left/handState';
import { LeftPlanner } from '../../src/core/fingering/left/planLeft';
import { stateCost } from '../../src/core/fingering/left/stateCost';
import { entryCost } from '../../src/core/fingering/left/barreCost';
import { memoryAfter } from '../../src/core/fingering/left/memory';
import { follows, transitionCost } from '../../src/core/fingering/left/transition';
import { costToEnd, solveLattice, UNREACHABLE } from '../../src/core/fingering/lattice';
import { problemOf } from '../../src/core/fingering/problem';
import { strokeLayers } from '../../src/core/fingering/right/planRight';
import { groupCost, strokeTransitionCost } from '../../src/core/fingering/right/strokeCost';
import { sharingFor, stateAfter, type StrokeState } from '../../src/core/fingering/right/strokeState';
import { strokeGroupsOf } from '../../src/core/fingering/right/strokes';
import { CONCERT_FRETBOARD } from '../../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../../src/core/instrument/hands';
import { scoreOrThrow } from '../helpers/music';
import { naiveConfigurations, naiveSharings } from '../helpers/naive';

const folder = new URL('../../demo/', import.meta.url);
const pieces = readdirSync(folder).filter((name) => name.endsWith('.musicxml'));

const stateKey = (state: HandState) =>
  `${state.strikes
    .map((strike, k) => `${strike}:${state.codes[k]}`)
    .sort()
    .join(' ')}|${JSON.stringify(state.memory)}`;

const strokeKey = ({ letters, fingers, thumb }: StrokeState) => JSON.stringify([letters, fingers, thumb]);

describe.each(pieces)('%s', (name) => {
  const problem = problemOf(
    scoreOrThrow(readFileSync(new URL(name, folder), 'utf8')),
    CONCERT_FRETBOARD,
    ADULT_MEDIUM,
  );
  const planner = new LeftPlanner(problem);

  it('left hand: no step beats the costs to the end, and the start has the cost of the plan', () => {
    const layers = planner.layers;
    const solution = solveLattice(
      layers,
      layers.map(() => null),
    )!;
    const toEnd = layers.map(
      (layer, k) => new Map(layer.states.map((state, s) => [stateKey(state), costToEnd(solution, k, s)])),
    );
    // Every state that a hand could be in, with the memory that the state before it leaves.
    let before: HandState[] = naiveConfigurations(problem, problem.moments[0]!).map((one) =>
      handState(one.strikes, one.placements, null),
    );
    const starts = before.map(
      (state) =>
        stateCost(problem, problem.moments[0]!, state) +
        entryCost(problem, state) +
        toEnd[0]!.get(stateKey(state))!,
    );
    expect(Math.min(...starts)).toBe(planner.plan(new Map()).cost);

    for (let k = 1; k < problem.moments.length; k++) {
      const [moment, next] = [problem.moments[k - 1]!, problem.moments[k]!];
      const reached = new Map<string, HandState>();
      for (const bare of naiveConfigurations(problem, next)) {
        for (const from of before) {
          const memory = bare.range ? null : memoryAfter(problem, from, next);
          const to = memory ? handState(bare.strikes, bare.placements, memory) : bare;
          if (!follows(problem, from, to, next)) continue;
          const key = stateKey(to);
          const rest = toEnd[k]!.get(key);
          if (rest === undefined || rest >= UNREACHABLE)
            throw new Error(`moment ${k}: the planner lacks ${key}`);
          const step = transitionCost(problem, moment, from, next, to) + stateCost(problem, next, to);
          if (toEnd[k - 1]!.get(stateKey(from))! > step + rest)
            throw new Error(`moment ${k}: ${key} is cheaper than known`);
          reached.set(key, to);
        }
      }
      // A state may stand there that no way leads to; what can be reached is the same.
      const reachable = solution.forward.cost[k]!.filter((cost) => cost < UNREACHABLE);
      expect(reached.size).toBe(reachable.length);
      before = [...reached.values()];
    }
    expect([...toEnd.at(-1)!.values()].every((cost) => cost === 0)).toBe(true);
  });

  it('right hand: the same', () => {
    const plan = planner.plan(new Map());
    const groups = strokeGroupsOf(problem, plan.placements);
    const layers = strokeLayers(groups, ADULT_MEDIUM);
    const solution = solveLattice(
      layers,
      layers.map(() => null),
    )!;
    const toEnd = layers.map(
      (layer, k) => new Map(layer.states.map((state, s) => [strokeKey(state), costToEnd(solution, k, s)])),
    );
    let before = naiveSharings(groups[0]!.strokes.length).map((letters) =>
      stateAfter(null, groups[0]!, sharingFor(groups[0]!, letters)),
    );
    const starts = before.map(
      (state) => groupCost(groups[0]!, state.sharing) + toEnd[0]!.get(strokeKey(state))!,
    );
    expect(Math.min(...starts)).toBe(solution.cost);
    for (let k = 1; k < groups.length; k++) {
      const group = groups[k]!;
      const reached = new Map<string, (typeof before)[number]>();
      for (const from of before) {
        for (const letters of naiveSharings(group.strokes.length)) {
          const sharing = sharingFor(group, letters);
          const to = stateAfter(from, group, sharing);
          const step = strokeTransitionCost(from, group, sharing, ADULT_MEDIUM) + groupCost(group, sharing);
          const rest = toEnd[k]!.get(strokeKey(to));
          if (rest === undefined) throw new Error(`group ${k}: the planner lacks ${strokeKey(to)}`);
          if (toEnd[k - 1]!.get(strokeKey(from))! > step + rest)
            throw new Error(`group ${k}: a step is cheaper than known`);
          reached.set(strokeKey(to), to);
        }
      }
      expect(reached.size).toBe(layers[k]!.states.length);
      before = [...reached.values()];
    }
  });
});
