import { describe, expect, it } from 'vitest';
import {
  barXml,
  problemFrom,
  randomFrom,
  randomNotes,
  type TestNote,
} from '../../../../../tests/helpers/music';
import { naiveLeftCost } from '../../../../../tests/helpers/naive';
import type { Ink, InkMarks } from '../../problem/ink';
import { NO_INK } from '../../problem/ink';
import { playable } from '../rules/constraints';
import { termTotals } from '../explain/explain';
import { LeftPlanner } from './planLeft';

const plannerOf = (notes: readonly TestNote[], tempo?: number) =>
  new LeftPlanner(problemFrom(barXml(notes, tempo)));
const inkOn = (uid: string, marks: Partial<InkMarks>): Ink => new Map([[uid, { ...NO_INK, ...marks }]]);
const chord = (...midi: number[]): TestNote[] => midi.map((one) => ({ midi: one, onset: 0, length: 4 }));

/** "finger@string/fret" of each strike, low to high within a moment. */
const shape = (planner: LeftPlanner, ink: Ink = new Map()) =>
  planner
    .plan(ink)
    .placements.map((place) => (place ? `${place.finger}@${place.string}/${place.fret}` : '-'));

/** A small hand keeps the naive search small; the planner sees the same hand. */
function smallProblem(seed: number, moments: number) {
  const problem = problemFrom(barXml(randomNotes(seed, moments), 60 + (seed % 5) * 30));
  return { ...problem, hand: { ...problem.hand, highestFret: 5 } };
}

describe('the optimum of the left hand', () => {
  it.each(Array.from({ length: 40 }, (_, seed) => seed))('equals brute force on random piece %i', (seed) => {
    const problem = smallProblem(seed, 3 + (seed % 2));
    const planner = new LeftPlanner(problem);
    if (planner.plan(new Map()).conflicts.length > 0) {
      expect(naiveLeftCost(problem)).toBe(Infinity);
      return;
    }
    expect(planner.plan(new Map()).cost).toBe(naiveLeftCost(problem));
  });

  it('is what its terms add up to, and all of it can be played', () => {
    for (let seed = 100; seed < 110; seed++) {
      const problem = problemFrom(barXml(randomNotes(seed, 8)));
      const plan = new LeftPlanner(problem).plan(new Map());
      const total = [...termTotals(problem, plan.states).values()].reduce((sum, cost) => sum + cost, 0);
      expect(total).toBe(plan.cost);
      expect(plan.lowerBound).toBe(plan.cost);
      for (const state of plan.states)
        expect(playable(state.placements, problem.fretboard, problem.hand)).toBe(true);
    }
  });

  it('prices every choice as the plan that is forced to it', () => {
    const problem = problemFrom(barXml(randomNotes(7, 6)));
    const planner = new LeftPlanner(problem);
    const free = planner.plan(new Map()).cost;
    for (const strike of problem.strikes) {
      for (const { place, extraCost } of planner.candidates(new Map(), strike.index)) {
        const forced = planner.plan(inkOn(strike.uids[0]!, place));
        expect(forced.cost - free).toBe(extraCost);
        expect(forced.placements[strike.index]).toEqual(place);
      }
    }
  });

  it('is the same again, whatever was asked in between', () => {
    const notes = randomNotes(11, 10);
    const planner = plannerOf(notes);
    const first = planner.plan(new Map());
    planner.plan(inkOn('n4', { finger: 4 }));
    planner.candidates(inkOn('n2', { finger: 1 }), 3);
    expect(planner.plan(new Map())).toEqual(first);
    expect(plannerOf(notes).plan(new Map())).toEqual(first);
  });
});

describe('ink', () => {
  it('is never changed', () => {
    const notes = randomNotes(3, 8);
    const planner = plannerOf(notes);
    for (const strike of planner.problem.strikes) {
      for (const { place } of planner.candidates(new Map(), strike.index)) {
        const { conflicts, placements } = planner.plan(
          inkOn(strike.uids[0]!, { finger: place.finger, string: place.string }),
        );
        expect(conflicts).toEqual([]);
        expect(placements[strike.index]).toEqual(place);
      }
    }
  });

  it('of a note is lifted when the note itself is priced', () => {
    const planner = plannerOf(randomNotes(9, 8));
    const plain = ({ place, extraCost }: { place: unknown; extraCost: number }) => ({ place, extraCost });
    for (const strike of planner.problem.strikes) {
      const free = planner.candidates(new Map(), strike.index).map(plain);
      const last = planner.candidates(new Map(), strike.index).at(-1)!;
      const asked = planner.candidates(inkOn(strike.uids[0]!, { finger: last.place.finger }), strike.index);
      expect(asked.map(plain)).toEqual(free);
    }
  });

  it('that no hand can play is named with the fewest notes, and the rest is planned', () => {
    // One finger on two strings at different frets.
    const planner = plannerOf(chord(48, 52, 60));
    const ink: Ink = new Map([
      ['n1', { finger: 2, string: 5, pluck: null }],
      ['n2', { finger: 2, string: 4, pluck: null }],
    ]);
    const plan = planner.plan(ink);
    expect(plan.conflicts).toHaveLength(1);
    expect(plan.conflicts[0]).toMatchObject({ byInk: true });
    expect(plan.conflicts[0]!.strikes).toHaveLength(1);
    expect(plan.placements.filter((place) => place === null)).toHaveLength(1);
  });

  it('that its string cannot give is named', () => {
    const plan = plannerOf([
      { midi: 40, onset: 0, length: 2 },
      { midi: 43, onset: 2, length: 2 },
    ]).plan(inkOn('n1', { string: 1 }));
    expect(plan.conflicts).toEqual([{ strikes: [0], byInk: true }]);
    expect(plan.placements[1]).not.toBeNull();
  });
});

describe('one planner asked again and again', () => {
  it.each([1, 2, 3, 4, 5, 6])(
    'answers as a new one would, contradictory ink among the rest (seed %i)',
    (seed) => {
      const problem = problemFrom(barXml(randomNotes(seed, 14), 100));
      const kept = new LeftPlanner(problem);
      const random = randomFrom(seed);
      let contradicted = 0;
      for (let round = 0; round < 12; round++) {
        const ink: Ink = new Map(
          problem.strikes
            .filter(() => random() < 0.12)
            .map(({ uids }) => [
              uids[0]!,
              {
                finger: random() < 0.7 ? Math.floor(5 * random()) : null,
                string: random() < 0.4 ? 1 + Math.floor(6 * random()) : null,
                pluck: null,
              },
            ]),
        );
        const answer = kept.plan(ink);
        expect(answer).toEqual(new LeftPlanner(problem).plan(ink));
        contradicted += answer.conflicts.length > 0 ? 1 : 0;
      }
      expect(contradicted).toBeGreaterThan(0);
    },
  );
});

describe('music that cannot be played', () => {
  it('is named note by note and the rest is planned', () => {
    // Two notes that only the sixth string has.
    const plan = plannerOf([...chord(40, 42, 64), { midi: 62, onset: 4, length: 2 }]).plan(new Map());
    expect(plan.conflicts).toHaveLength(1);
    expect(plan.conflicts[0]).toMatchObject({ byInk: false, strikes: [expect.any(Number)] });
    expect(plan.placements.filter((place) => place === null)).toHaveLength(1);
  });

  it('seven notes at once lose exactly one', () => {
    const plan = plannerOf(chord(40, 45, 50, 55, 59, 64, 67)).plan(new Map());
    expect(plan.placements.filter((place) => place === null)).toHaveLength(1);
  });
});

// Common practice: the shapes and rules that every method teaches.
describe('what a guitarist expects (common practice)', () => {
  it('C major in the first position is 3 2 0 1 0', () => {
    expect(shape(plannerOf(chord(48, 52, 55, 60, 64)))).toEqual([
      '3@5/3',
      '2@4/2',
      '0@3/0',
      '1@2/1',
      '0@1/0',
    ]);
  });
  it('A major lies 1 2 3 on the second fret, the lower finger on the lower string', () => {
    expect(shape(plannerOf(chord(45, 52, 57, 61, 64)))).toEqual([
      '0@5/0',
      '1@4/2',
      '2@3/2',
      '3@2/2',
      '0@1/0',
    ]);
  });
  it('F major on six strings is a barre with 3 4 2', () => {
    expect(shape(plannerOf(chord(41, 48, 53, 57, 60, 65)))).toEqual([
      '1@6/1',
      '3@5/3',
      '4@4/3',
      '2@3/2',
      '1@2/1',
      '1@1/1',
    ]);
  });
  it('the finger that holds the bass passes its note to 4', () => {
    const notes = [
      { midi: 48, onset: 0, length: 6, voice: 2 },
      { midi: 60, onset: 0, length: 2 },
      { midi: 62, onset: 2, length: 2 },
      { midi: 67, onset: 4, length: 2 },
    ];
    const placed = shape(plannerOf(notes));
    expect(placed[0]).toBe('3@5/3');
    expect(placed[2]).toBe('4@2/3');
    expect(placed[3]).toBe('4@1/3');
  });
  it('a scale in the first position takes a finger for each fret', () => {
    const scale = [60, 62, 64, 65, 67].map((midi, k) => ({ midi, onset: k, length: 1 }));
    expect(shape(plannerOf(scale, 120))).toEqual(['1@2/1', '3@2/3', '0@1/0', '1@1/1', '3@1/3']);
  });
  it('a hand that may not bar does not', () => {
    const problem = problemFrom(barXml(chord(41, 48, 53, 57, 60, 65)));
    const planner = new LeftPlanner({
      ...problem,
      hand: { ...problem.hand, barreStringsAtMost: 1, smallBarreStringsAtMost: 1 },
    });
    expect(planner.plan(new Map()).conflicts).toHaveLength(1);
  });
  it('a unison of two voices shares one stop', () => {
    const plan = plannerOf([
      { midi: 60, onset: 0, length: 4 },
      { midi: 60, onset: 0, length: 2, voice: 2 },
    ]).plan(new Map());
    expect(plan.placements).toHaveLength(1);
  });
});
