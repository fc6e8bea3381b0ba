import { describe, expect, it } from 'vitest';
import { barXml, problemFrom, randomNotes } from '../../../../../tests/helpers/music';
import { naiveLeftCost } from '../../../../../tests/helpers/naive';
import type { Passes } from '../../problem/passes';
import type { FingeringProblem } from '../../problem/problem';
import { termTotals } from '../explain/explain';
import { LeftPlanner } from './planLeft';

/** Four moments under a repeat of the middle two, a da capo of all, and both. */
const PASSES: Readonly<Record<string, Passes>> = {
  repeat: {
    plays: [1, 2, 2, 1],
    steps: [0, 1, 2, 1],
    returns: [{ from: 2, to: 1, times: 1, tick: 3 }],
  },
  'da capo': {
    plays: [2, 2, 2, 2],
    steps: [0, 2, 2, 2],
    returns: [{ from: 3, to: 0, times: 1, tick: 4 }],
  },
  'repeat three times, then da capo': {
    plays: [2, 4, 4, 2],
    steps: [0, 2, 4, 2],
    returns: [
      { from: 2, to: 1, times: 2, tick: 3 },
      { from: 3, to: 0, times: 1, tick: 4 },
    ],
  },
};

function problemWith(seed: number, passes: Passes): FingeringProblem {
  const problem = problemFrom(barXml(randomNotes(seed, 4), 80 + 20 * (seed % 5)));
  return { ...problem, passes, hand: { ...problem.hand, highestFret: 5 } };
}

describe.each(Object.entries(PASSES))('a passage played again: %s', (_name, passes) => {
  it.each([1, 2, 3, 4, 5, 6, 7, 8])('has the least effort of all plays together (seed %i)', (seed) => {
    const problem = problemWith(seed, passes);
    const plan = new LeftPlanner(problem).plan(new Map());
    if (plan.conflicts.length > 0) return expect(naiveLeftCost(problem)).toBe(Infinity);
    expect(plan.cost).toBe(naiveLeftCost(problem));
    const total = [...termTotals(problem, plan.states).values()].reduce((sum, cost) => sum + cost, 0);
    expect(total).toBe(plan.cost);
  });

  it('prices every choice as the plan that is forced to it', () => {
    const planner = new LeftPlanner(problemWith(2, passes));
    const free = planner.plan(new Map()).cost;
    for (const strike of planner.problem.strikes) {
      const candidates = planner.candidates(new Map(), strike.index);
      expect(candidates[0]!.extraCost).toBe(0);
      for (const { place, extraCost } of candidates) {
        const ink = new Map([[strike.uids[0]!, { finger: place.finger, string: place.string, pluck: null }]]);
        expect(planner.plan(ink).cost - free).toBe(extraCost);
      }
    }
  });
});

describe('the way back', () => {
  it('can decide the fingering: the hand that goes back stays nearer', () => {
    let differ = 0;
    for (let seed = 1; seed <= 60; seed++) {
      const problem = problemWith(seed, PASSES['da capo']!);
      const once = { ...problem, passes: { ...problem.passes, returns: [] } };
      const [back, straight] = [new LeftPlanner(problem), new LeftPlanner(once)].map((one) =>
        one.plan(new Map()),
      );
      if (JSON.stringify(back!.placements) !== JSON.stringify(straight!.placements)) differ++;
    }
    expect(differ).toBeGreaterThan(0);
  });
});
