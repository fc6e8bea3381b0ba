import { describe, expect, it } from 'vitest';
import { clockOf } from './tempo';

const mark = (tick: number, quartersPerMinute: number) => ({ tick, quartersPerMinute, assumed: false });

describe('the clock of a score', () => {
  it('turns ticks into ms at one tempo: a quarter at 60 lasts a second', () => {
    const clock = clockOf([mark(0, 60)], 4);
    expect([clock(0), clock(1), clock(4), clock(6)]).toEqual([0, 250, 1000, 1500]);
  });

  it('goes on from where a change of tempo stands', () => {
    const clock = clockOf([mark(0, 60), mark(4, 120)], 4);
    expect([clock(4), clock(8), clock(2)]).toEqual([1000, 1500, 500]);
  });

  it('refuses marks that leave the beginning without a tempo', () => {
    expect(() => clockOf([], 4)).toThrow(RangeError);
    expect(() => clockOf([mark(4, 60)], 4)).toThrow(RangeError);
  });
});
