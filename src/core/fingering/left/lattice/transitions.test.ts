/** Ways that are priced when asked for, against all of them priced at once. */
import { describe, expect, it } from 'vitest';
import { barXml, problemFrom, randomFrom, randomNotes } from '../../../../../tests/helpers/music';
import { UNREACHABLE } from '../../solver/lattice';
import { LeftPlanner } from './planLeft';
import { follows } from '../rules/follows';
import { transitionCost } from '../rules/prices';

const SEEDS = [1, 2, 3, 4, 5, 6, 7, 8];

describe('the ways of the left hand', () => {
  it.each(SEEDS)('give the least way in and out of every state (seed %i)', (seed) => {
    const problem = problemFrom(barXml(randomNotes(seed, 5), 60 + 20 * seed));
    const { layers } = new LeftPlanner(problem);
    const random = randomFrom(seed);
    let compared = 0;
    for (let k = 1; k < layers.length; k++) {
      const [from, to] = [layers[k - 1]!, layers[k]!];
      const costs = (count: number) =>
        Int32Array.from({ length: count }, () => (random() < 0.1 ? UNREACHABLE : Math.floor(random() * 900)));
      const before = costs(from.states.length);
      const rest = costs(to.states.length);
      const least = new Int32Array(to.states.length).fill(UNREACHABLE);
      const via = new Int32Array(least.length).fill(-1);
      to.ways!.pull(before, null, least, via, 1);
      const back = new Int32Array(from.states.length).fill(UNREACHABLE);
      const onward = new Int32Array(back.length).fill(-1);
      to.ways!.push(rest, back, onward, 1);
      const way = (a: number, b: number) =>
        follows(problem, from.states[a]!, to.states[b]!, problem.moments[k]!)
          ? transitionCost(problem, from.states[a]!, problem.moments[k]!, to.states[b]!)
          : UNREACHABLE;
      to.states.forEach((_, b) => {
        const sums = from.states.map((_one, a) => Math.min(UNREACHABLE, before[a]! + way(a, b)));
        const expected = Math.min(...sums);
        expect(least[b]).toBe(expected);
        if (expected < UNREACHABLE) expect(via[b]).toBe(sums.indexOf(expected));
        compared++;
      });
      from.states.forEach((_, a) => {
        const sums = to.states.map((_one, b) => Math.min(UNREACHABLE, rest[b]! + way(a, b)));
        const expected = Math.min(...sums);
        expect(back[a]).toBe(expected);
        if (expected < UNREACHABLE) expect(onward[a]).toBe(sums.indexOf(expected));
      });
    }
    expect(compared).toBeGreaterThan(20);
  });
});
