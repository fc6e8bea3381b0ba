import { describe, expect, it } from 'vitest';
import { barXml, problemFrom, type TestNote } from '../../../../tests/helpers/music';
import { LeftPlanner } from '../left/planLeft';
import { soundsUntilTicks } from './soundsUntil';

const untilOf = (notes: readonly TestNote[]) => {
  const problem = problemFrom(barXml(notes));
  const plan = new LeftPlanner(problem).plan(new Map());
  return soundsUntilTicks(problem, plan.states, plan.placements);
};

// Source: handbook, "What really rings".
describe('what really rings', () => {
  it('an open string rings on after its written end, a stopped note does not', () => {
    const [open, stopped] = untilOf([
      { midi: 40, onset: 0, length: 2 },
      { midi: 65, onset: 2, length: 2 },
      { midi: 67, onset: 6, length: 2 },
    ]);
    expect(open).toBe(8);
    expect(stopped).toBe(4);
  });
  it('an open string stops when it is played again', () => {
    expect(
      untilOf([
        { midi: 40, onset: 0, length: 2 },
        { midi: 41, onset: 4, length: 2 },
      ])[0],
    ).toBe(4);
  });
});
