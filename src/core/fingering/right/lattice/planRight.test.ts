import { describe, expect, it } from 'vitest';
import {
  barXml,
  problemFrom,
  randomFrom,
  randomNotes,
  type TestNote,
} from '../../../../../tests/helpers/music';
import { naiveRightCost } from '../../../../../tests/helpers/naive';
import type { Pluck } from '../../../score/model';
import type { Ink } from '../../problem/ink';
import { LeftPlanner } from '../../left/lattice/planLeft';
import type { Passes } from '../../problem/passes';
import type { FingeringProblem } from '../../problem/problem';
import { RANK } from '../rules/memory';
import { type Placed, RightPlanner } from './planRight';
import { RIGHT_SCHOOL_IDS } from '../rules/schools';
import { plainSetting } from '../rules/setting';
import { displacementStrings } from '../rules/strokeCost';
import { fingerSharings, placedOn } from '../rules/strokes';
import { PLAIN_STYLE } from '../rules/style';

/** Notes on any strings, as if a left hand could do everything: the right hand looks at nothing else. */
function anyStrings(problem: FingeringProblem, seed: number): Placed {
  const random = randomFrom(seed);
  return problem.moments.map(({ struck }) => {
    const free = [1, 2, 3, 4, 5, 6];
    return struck.map((strike) => {
      const [string] = free.splice(Math.floor(random() * free.length), 1);
      const fret = Math.floor(random() * 8);
      return {
        strike,
        place: { string: string!, fret, finger: Math.min(fret, 1) },
        slurred: random() < 0.1,
      };
    });
  });
}

const lettersOf = (notes: readonly TestNote[], tempo: number, ink: Ink = new Map()) => {
  const problem = problemFrom(barXml(notes, tempo));
  const { states } = new LeftPlanner(problem).plan(new Map());
  return new RightPlanner(problem).plan(placedOn(problem, states), ink);
};

describe('the optimum of the right hand', () => {
  it.each(Array.from({ length: 80 }, (_, seed) => seed))(
    'equals brute force on random strokes %i',
    (seed) => {
      const problem = problemFrom(barXml(randomNotes(seed, 4), 60 + (seed % 9) * 20));
      const school = RIGHT_SCHOOL_IDS[seed % RIGHT_SCHOOL_IDS.length]!;
      const setting = plainSetting(problem, { ...PLAIN_STYLE, school, littleFinger: seed % 5 === 0 });
      const placed = anyStrings(problem, seed);
      const plan = new RightPlanner(problem, setting).plan(placed, new Map());
      expect(plan.cost).toBe(naiveRightCost(problem, plan.groups));
    },
  );

  it('pays for ways back and on to other endings as brute force does', () => {
    const passes: Passes = {
      plays: [1, 2, 2, 1],
      steps: [0, 1, 2, 0],
      returns: [
        { from: 2, to: 1, times: 1, tick: 3 },
        { from: 1, to: 3, times: 2, tick: 2 },
      ],
    };
    let differ = 0;
    for (let seed = 0; seed < 30; seed++) {
      const bare = problemFrom(barXml(randomNotes(seed, 4), 100));
      const problem = { ...bare, passes };
      const placed = anyStrings(problem, seed);
      const plan = new RightPlanner(problem).plan(placed, new Map());
      expect(plan.cost).toBe(naiveRightCost(problem, plan.groups));
      const without = { ...problem, passes: { ...passes, returns: [] } };
      if (naiveRightCost(without, plan.groups) < plan.cost) differ++;
    }
    expect(differ).toBeGreaterThan(5);
  });

  it('is the same whether its layers are new or kept from other strings', () => {
    const problem = problemFrom(barXml(randomNotes(8, 10), 140));
    const kept = new RightPlanner(problem);
    for (let seed = 0; seed < 12; seed++) {
      const placed = anyStrings(problem, seed);
      expect(kept.plan(placed, new Map())).toEqual(new RightPlanner(problem).plan(placed, new Map()));
    }
  });

  it('prices each letter as the plan that is forced to it', () => {
    const problem = problemFrom(barXml(randomNotes(5, 8), 140));
    const placed = placedOn(problem, new LeftPlanner(problem).plan(new Map()).states);
    const planner = new RightPlanner(problem);
    const free = planner.plan(placed, new Map());
    for (const strike of problem.strikes) {
      for (const { pluck, extraCost } of planner.candidates(placed, new Map(), strike.index)) {
        const ink: Ink = new Map([[strike.uids[0]!, { finger: null, string: null, pluck }]]);
        const forced = new RightPlanner(problem).plan(placed, ink);
        expect(forced.cost - free.cost).toBe(extraCost);
        expect(forced.plucks[strike.index]).toBe(pluck);
      }
    }
  });
});

// Source: handbook, "Crossing": the set's place is string number + rank.
describe('displacement (handbook)', () => {
  const moved = (a: Pluck, fromString: number, b: Pluck, toString: number) =>
    displacementStrings(fromString + RANK[a], toString + RANK[b]);
  it('i on 3 then m on 2 moves nothing', () => expect(moved('i', 3, 'm', 2)).toBe(0));
  it('m on 3 then i on 2 moves the hand by 2, one more than the fingers spread', () =>
    expect(moved('m', 3, 'i', 2)).toBe(1));
  it('m on 3 then i on 1 by 3', () => expect(moved('m', 3, 'i', 1)).toBe(2));
});

describe('what a guitarist expects (common practice)', () => {
  it('a chord of four takes p i m a in the order of the strings', () => {
    const notes = [45, 57, 60, 64].map((midi) => ({ midi, onset: 0, length: 4 }));
    expect(lettersOf(notes, 90).plucks).toEqual(['p', 'i', 'm', 'a']);
  });
  it('an arpeggio over the open fifth keeps i m a on 3 2 1', () => {
    const notes = [45, 57, 60, 64, 60, 57].map((midi, k) => ({
      midi,
      onset: k,
      length: 1,
      voice: k === 0 ? 2 : 1,
    }));
    expect(lettersOf(notes, 120).plucks).toEqual(['p', 'i', 'm', 'a', 'm', 'i']);
  });
  it('repeated fast notes on one string alternate', () => {
    const notes = Array.from({ length: 8 }, (_, k) => ({ midi: 64, onset: k, length: 1 }));
    const { plucks } = lettersOf(notes, 180);
    plucks.forEach((pluck, k) => expect(pluck).not.toBe(plucks[k + 1]));
  });
  it('the second note of a slur is not plucked', () => {
    const slur = (type: string) => `<notations><slur type="${type}" number="1"/></notations>`;
    const notes = [
      { midi: 60, onset: 0, length: 1, extra: slur('start') },
      { midi: 62, onset: 1, length: 1, extra: slur('stop') },
      { midi: 64, onset: 2, length: 1 },
    ];
    expect(lettersOf(notes, 120).plucks[1]).toBeNull();
  });
  it('eight ways to share out three strings: subsets of i m a with p for the rest', () => {
    expect(fingerSharings(3)).toHaveLength(8);
    expect(fingerSharings(6)).toEqual(expect.arrayContaining([['p', 'p', 'p', 'i', 'm', 'a']]));
  });
  it('inked letters out of order are named, and kept out of the plan', () => {
    const notes = [45, 57, 60].map((midi) => ({ midi, onset: 0, length: 4 }));
    const ink: Ink = new Map([
      ['n1', { finger: null, string: null, pluck: 'a' }],
      ['n2', { finger: null, string: null, pluck: 'i' }],
    ]);
    const plan = lettersOf(notes, 90, ink);
    expect(plan.conflicts).toHaveLength(1);
    expect(plan.conflicts[0]).toHaveLength(1);
  });
});
