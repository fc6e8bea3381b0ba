import { describe, expect, it } from 'vitest';
import { Arena } from './arena';

describe('rows cut from large blocks', () => {
  it('are empty, and apart from each other whatever their kinds', () => {
    const arena = new Arena();
    const rows = [
      arena.uint8(3),
      arena.float64(5),
      arena.int16(7),
      arena.int32(9),
      arena.uint16(1),
      arena.float64(2),
    ];
    for (const row of rows) expect([...row].every((value) => value === 0)).toBe(true);
    rows.forEach((row, k) => row.fill(k + 1));
    rows.forEach((row, k) => expect([...row].every((value) => value === k + 1)).toBe(true));
  });

  it('may be longer than a block, and go on in the next one', () => {
    const arena = new Arena();
    const short = arena.int32(10).fill(1);
    const long = arena.int32(1_000_000).fill(2);
    const after = arena.float64(10).fill(3);
    expect([long.length, long[999_999]]).toEqual([1_000_000, 2]);
    expect([...short, ...after]).toEqual([...Array<number>(10).fill(1), ...Array<number>(10).fill(3)]);
  });
});
