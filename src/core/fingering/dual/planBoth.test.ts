import { describe, expect, it } from 'vitest';
import { barXml, problemFrom, randomFrom, randomNotes } from '../../../../tests/helpers/music';
import { naiveJointCost } from '../../../../tests/helpers/naive';
import type { Ink, InkMarks } from '../problem/ink';
import { placeId } from '../left/rules/place';
import { LeftPlanner } from '../left/lattice/planLeft';
import type { Passes } from '../problem/passes';
import type { FingeringProblem } from '../problem/problem';
import { plainSetting, type RightSetting } from '../right/rules/setting';
import type { RightWeights } from '../right/rules/weights';
import { StrokeStore } from '../right/lattice/strokeStore';
import { walkRight } from '../right/explain/walk';
import { DualAscent } from './dualAscent';
import { JointPlanner } from './planBoth';
import { askBoth, QuestionColumns } from './question';

const problemAt = (seed: number, moments: number, passes?: Passes): FingeringProblem => {
  const bare = problemFrom(barXml(randomNotes(seed, moments), 60 + (seed % 7) * 25));
  return { ...bare, ...(passes ? { passes } : {}), hand: { ...bare.hand, highestFret: 5 } };
};

/** A dear right hand: so the best strings of the left hand by itself are often not those of both. */
function dear(problem: FingeringProblem, factor: number): RightSetting {
  const setting = plainSetting(problem);
  const styles = setting.styles.map((manner) => ({
    ...manner,
    weights: Object.fromEntries(
      Object.entries(manner.weights).map(([id, weight]) => [id, factor * weight]),
    ) as RightWeights,
  }));
  return { ...setting, styles };
}

const plannerFor = (problem: FingeringProblem, factor: number) => {
  const left = new LeftPlanner(problem);
  return { left, both: new JointPlanner(problem, left, dear(problem, factor)) };
};

describe('both hands together', () => {
  it.each(Array.from({ length: 36 }, (_, k) => k))('cost what brute force finds (seed %i)', (seed) => {
    const problem = problemAt(seed, 3 + (seed % 2));
    const factor = [1, 4, 10][seed % 3]!;
    const { left, both } = plannerFor(problem, factor);
    const first = left.plan(new Map());
    if (first.conflicts.length > 0) return;
    const plan = both.plan(new Map());
    expect(plan.cost).toBe(naiveJointCost(problem, dear(problem, factor), first.cost));
    expect(plan.lowerBound).toBe(plan.cost);
  });

  it('are bounded from below by the ascent, and mostly tightly', () => {
    let tight = 0;
    for (let seed = 0; seed < 36; seed++) {
      const problem = problemAt(seed, 3 + (seed % 2));
      const setting = dear(problem, 10);
      const { left, both } = plannerFor(problem, 10);
      const solved = left.solve(new Map());
      if (left.conflictsOf(solved.layers).length > 0) continue;
      const best = both.plan(new Map());
      const question = askBoth(
        { problem, setting, store: new StrokeStore(problem.hand), columns: new QuestionColumns() },
        solved,
        new Map(),
        null,
      );
      const { cost } = new DualAscent(problem).anew(question, best.cost, () =>
        walkRight(problem, setting, best.states, best.played),
      );
      expect(cost).toBeLessThanOrEqual(naiveJointCost(problem, setting, left.plan(new Map()).cost));
      if (cost === best.cost) tight++;
    }
    expect(tight).toBeGreaterThan(18);
  });

  // Here neither hand by itself, nor the ascent between them, comes upon the best plan.
  it.each([
    [465, 4, 10],
    [613, 4, 10],
    [463, 5, 10],
    [21, 5, 25],
    [56, 5, 25],
    [152, 5, 25],
    [356, 5, 25],
    [385, 5, 25],
  ])('are planned together where the ascent leaves a gap (seed %i)', (seed, moments, factor) => {
    const problem = problemAt(seed, moments);
    const { left, both } = plannerFor(problem, factor);
    const plan = both.plan(new Map());
    const first = left.plan(new Map());
    expect(plan.cost).toBe(naiveJointCost(problem, dear(problem, factor), first.cost));
    expect(plan.lowerBound).toBe(plan.cost);
  });

  it.each([1, 2, 3, 5, 8, 13])('with a passage that comes again (seed %i)', (seed) => {
    const passes: Passes = {
      plays: [1, 2, 2, 1],
      steps: [0, 1, 2, 1],
      returns: [{ from: 2, to: 1, times: 1, tick: 3 }],
    };
    const problem = problemAt(seed, 4, passes);
    const { left, both } = plannerFor(problem, 5);
    const first = left.plan(new Map());
    if (first.conflicts.length > 0) return;
    const plan = both.plan(new Map());
    expect(plan.cost).toBe(naiveJointCost(problem, dear(problem, 5), first.cost));
    expect(plan.lowerBound).toBe(plan.cost);
  });

  it.each([3, 7])('are the same whether asked for the first time or after other ink (seed %i)', (seed) => {
    const problem = problemAt(seed, 24);
    const { left, both } = plannerFor(problem, 3);
    const random = randomFrom(seed);
    let ink: Ink = new Map();
    for (let n = 0; n < 12; n++) {
      const strike = problem.strikes[Math.floor(random() * problem.strikes.length)]!;
      const { place } = left.candidates(ink, strike.index)[Math.floor(random() * 3)] ?? {};
      const marks: InkMarks | null =
        random() < 0.3 || !place
          ? null
          : {
              finger: place.finger,
              string: place.string,
              pluck: (['p', 'i', 'm'] as const)[Math.floor(random() * 3)]!,
            };
      const next = new Map(ink);
      if (marks) next.set(strike.uids[0]!, marks);
      else next.delete(strike.uids[0]!);
      ink = next;
      const [kept, fresh] = [both.plan(ink), plannerFor(problem, 3).both.plan(ink)];
      expect(kept.cost).toBe(fresh.cost);
      expect(kept.lowerBound).toBe(kept.cost);
      expect(fresh.lowerBound).toBe(fresh.cost);
    }
  });

  it.each([1, 2, 4, 6, 9, 11])('can be asked for quite another fingering of every note (seed %i)', (seed) => {
    const problem = problemAt(seed, 10);
    const { left, both } = plannerFor(problem, 3);
    both.plan(new Map());
    for (const { index } of problem.strikes) {
      const other = left.candidates(new Map(), index).at(-1);
      if (!other) continue;
      const { placements } = left.planOf(other.states(), []);
      const ink: Ink = new Map(
        problem.strikes.flatMap(({ uids }, n) => {
          const place = placements[n];
          return place
            ? [[uids[0]!, { finger: place.finger, string: place.string, pluck: null }] as const]
            : [];
        }),
      );
      expect(both.plan(ink).cost).toBe(plannerFor(problem, 3).both.plan(ink).cost);
    }
  });

  it('bounds every choice by no more than it costs', () => {
    const problem = problemAt(4, 12);
    const { left, both } = plannerFor(problem, 3);
    const free = both.plan(new Map());
    for (const strike of problem.strikes) {
      both.plan(new Map());
      const bounds = both.boundsFor(strike.index);
      for (const { place } of left.candidates(new Map(), strike.index).slice(0, 4)) {
        const { finger, string } = place;
        const forced = both.plan(new Map([[strike.uids[0]!, { finger, string, pluck: null }]]));
        expect(bounds.get(placeId(place))).toBeLessThanOrEqual(forced.cost - free.cost);
      }
    }
  });
});
