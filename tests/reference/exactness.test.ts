/**
 * The naive dual check on every demo piece and every calibration passage: all states and all pairs of states are enumerated by plain products;
 * the planner's costs to the end must never be beaten by a step, and must add up to the plan's cost.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { LeftPlanner } from '../../src/core/fingering/left/planLeft';
import { costToEnd, solveLattice } from '../../src/core/fingering/lattice';
import { problemOf } from '../../src/core/fingering/problem';
import { strokeLayers } from '../../src/core/fingering/right/planRight';
import { groupCost, strokeTransitionCost } from '../../src/core/fingering/right/strokeCost';
import { sharingFor, stateAfter, type StrokeState } from '../../src/core/fingering/right/strokeState';
import { strokeGroupsOf } from '../../src/core/fingering/right/strokes';
import { CONCERT_FRETBOARD } from '../../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../../src/core/instrument/hands';
import { PASSAGES } from '../../calibration/passages/all';
import { taskOf } from '../../calibration/passage';
import { scoreOrThrow } from '../helpers/music';
import { dualCheck } from '../helpers/dualCheck';
import { naiveSharings } from '../helpers/naive';

const folder = new URL('../../demo/', import.meta.url);
const pieces = readdirSync(folder).filter((name) => name.endsWith('.musicxml'));

const strokeKey = ({ letters, fingers, thumb }: StrokeState) => JSON.stringify([letters, fingers, thumb]);

describe.each(pieces)('%s', (name) => {
  const problem = problemOf(
    scoreOrThrow(readFileSync(new URL(name, folder), 'utf8')),
    CONCERT_FRETBOARD,
    ADULT_MEDIUM,
  );
  const planner = new LeftPlanner(problem);

  it('left hand: no step beats the costs to the end, and the start has the cost of the plan', () => {
    dualCheck(planner);
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

describe.each(Object.keys(PASSAGES))('calibration passages: %s', (category) => {
  it.each(PASSAGES[category]!.map((passage) => [passage.id, passage] as const))('%s', (_id, passage) => {
    dualCheck(new LeftPlanner(taskOf(passage).problem));
  });
});
