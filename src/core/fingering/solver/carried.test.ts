import { describe, expect, it, vi } from 'vitest';
import { carried } from './carried';

describe('a row that is carried over', () => {
  const earlier = ['a', 'b', 'c'];

  it('is the earlier one where all of it holds', () => {
    expect(carried(3, earlier, () => true, String)).toBe(earlier);
  });

  it('is the earlier one, too, where what is made anew comes out as it was', () => {
    expect(
      carried(
        3,
        earlier,
        () => false,
        (k) => earlier[k]!,
      ),
    ).toBe(earlier);
  });

  it('makes only what does not hold, after what comes before it', () => {
    const make = vi.fn((k: number, made: readonly string[]) => `${made.at(-1)}${k}`);
    expect(carried(3, earlier, (k) => k !== 1, make)).toEqual(['a', 'a1', 'c']);
    expect(make).toHaveBeenCalledTimes(1);
  });

  it('tells what follows a change by what was made', () => {
    const afterTheSame = (k: number, made: readonly string[]) => k === 0 || made[k - 1] === earlier[k - 1];
    expect(carried(3, ['x', 'b', 'c'], (k, made) => k > 0 && afterTheSame(k, made), String)).toEqual([
      '0',
      '1',
      '2',
    ]);
  });

  it('is made anew where there was none, or one of another length', () => {
    expect(carried(2, null, () => true, String)).toEqual(['0', '1']);
    expect(carried(2, earlier, () => true, String)).toEqual(['0', '1']);
  });
});
