import { describe, expect, it } from 'vitest';
import { barXml, problemFrom, randomFrom, randomNotes, type TestNote } from '../../../../tests/helpers/music';
import { naiveRightCost } from '../../../../tests/helpers/naive';
import { ADULT_MEDIUM } from '../../instrument/hands';
import type { Pluck } from '../../score/model';
import type { Ink } from '../ink';
import { LeftPlanner } from '../left/planLeft';
import { RightPlanner, strokeLayers } from './planRight';
import { displacementStrings } from './strokeCost';
import { RANK } from './strokeState';
import { sharingsOf, type StrokeGroup } from './strokes';
import { solveLattice } from '../lattice';

const groupsFrom = (seed: number, count: number): StrokeGroup[] => {
  const random = randomFrom(seed);
  return Array.from({ length: count }, (_, k) => {
    const strings = [6, 5, 4, 3, 2, 1].filter(() => random() < 0.3);
    if (strings.length === 0) strings.push(1 + Math.floor(random() * 6));
    const strokes = strings.map((string, n) => ({
      strike: 10 * k + n,
      string,
      role: (['melody', 'bass', 'inner'] as const)[Math.floor(random() * 3)]!,
      printed: null,
    }));
    return { momentIndex: k, timeMs: k * (100 + Math.floor(random() * 3) * 100), strokes };
  });
};

const lettersOf = (notes: readonly TestNote[], tempo: number, ink: Ink = new Map()) => {
  const problem = problemFrom(barXml(notes, tempo));
  const { placements } = new LeftPlanner(problem).plan(new Map());
  return new RightPlanner(problem).plan(placements, ink);
};

describe('the optimum of the right hand', () => {
  it.each(Array.from({ length: 40 }, (_, seed) => seed))(
    'equals brute force on random strokes %i',
    (seed) => {
      const groups = groupsFrom(seed, 6);
      const layers = strokeLayers(groups, ADULT_MEDIUM);
      expect(
        solveLattice(
          layers,
          layers.map(() => null),
        )!.cost,
      ).toBe(naiveRightCost(groups, ADULT_MEDIUM));
    },
  );

  it('is the same whether its layers are new or kept from other strings', () => {
    const problem = problemFrom(barXml(randomNotes(8, 10), 140));
    const left = new LeftPlanner(problem);
    const kept = new RightPlanner(problem);
    for (const strike of problem.strikes) {
      for (const { place } of left.candidates(new Map(), strike.index).slice(0, 4)) {
        const { placements } = left.plan(new Map([[strike.uids[0]!, { ...place, pluck: null }]]));
        expect(kept.plan(placements, new Map())).toEqual(
          new RightPlanner(problem).plan(placements, new Map()),
        );
      }
    }
  });

  it('prices each letter as the plan that is forced to it', () => {
    const problem = problemFrom(barXml(randomNotes(5, 8), 140));
    const { placements } = new LeftPlanner(problem).plan(new Map());
    const free = new RightPlanner(problem).plan(placements, new Map());
    for (const strike of problem.strikes) {
      for (const { pluck, extraCost } of free.candidates[strike.index]!) {
        const ink: Ink = new Map([[strike.uids[0]!, { finger: null, string: null, pluck }]]);
        const forced = new RightPlanner(problem).plan(placements, ink);
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
    expect(sharingsOf(3)).toHaveLength(8);
    expect(sharingsOf(6)).toEqual(expect.arrayContaining([['p', 'p', 'p', 'i', 'm', 'a']]));
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
