import { describe, expect, it } from 'vitest';
import { NO_PLACE } from '../rules/place';
import { RowKeys } from './rowKeys';

/** Every row of three places that can be made of these. */
const rowsOf = (places: readonly number[]) =>
  places.flatMap((a) => places.flatMap((b) => places.map((c) => [a, b, c])));

describe('keys of rows of places', () => {
  const few = [NO_PLACE, 0, 1, 7, 300];
  const many = Array.from({ length: 20 }, (_, k) => k - 1);

  it('tell all rows apart, however many places a column knows', () => {
    for (const width of [3, 12]) {
      const rows = rowsOf(width === 3 ? few : many).map((row) => [
        ...row,
        ...Array<number>(width - 3).fill(NO_PLACE),
      ]);
      const keys = new RowKeys(width);
      expect(new Set(rows.map((row) => keys.of(row))).size).toBe(rows.length);
    }
  });

  it('are the same whether a row is taken whole or by the sum of its parts', () => {
    const keys = new RowKeys(12);
    for (const row of rowsOf(many)) {
      const wide = [...row, ...Array<number>(9).fill(4)];
      const sum = wide.reduce((parts, place, column) => parts + keys.part(column, place), 0);
      expect(keys.keyed(sum, wide)).toBe(keys.of(wide));
    }
  });

  it('of nothing are one', () => {
    const keys = new RowKeys(0);
    expect(keys.of([])).toBe(keys.of([]));
  });
});
