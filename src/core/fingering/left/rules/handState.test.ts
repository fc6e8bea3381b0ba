import { describe, expect, it } from 'vitest';
import { handState, positionOf } from './handState';
import type { Placement } from './place';

const places = (text: string): readonly Placement[] =>
  text.split(' ').map((row) => {
    const [string, fret, finger] = row.split(/[/.]/).map(Number);
    return { string: string!, fret: fret!, finger: finger! };
  });
const stateOf = (text: string) => handState([...places(text).keys()], places(text), null);

describe('where the hand stands', () => {
  it('as wide as its fingers are spread or squeezed together', () => {
    expect(stateOf('3/2.1 2/5.3').range).toEqual({ low: 2, high: 3 });
    expect(stateOf('4/2.1 3/2.2 2/2.3').range).toEqual({ low: 0, high: 2 });
  });

  it('under a barre where finger 1 lies, however the others are placed', () => {
    const barred = stateOf('5/3.1 4/5.2 3/5.3 2/5.4 1/3.1');
    expect(barred.range).toEqual({ low: 3, high: 3 });
    expect(positionOf(barred.placements)).toBe(3);
  });

  it('nowhere while nothing is stopped', () => {
    expect(stateOf('6/0.0 1/0.0').range).toBeNull();
  });
});
