import { describe, expect, it } from 'vitest';
import { before, Column, here, over, whole } from './column';

const objects = (...names: readonly string[]) => names.map((name) => ({ name }));

describe('a column', () => {
  it('keeps the elements whose dependencies are the same objects, and the row where all are', () => {
    const column = new Column<string[]>();
    const row = objects('a', 'b', 'c');
    const joined = (of: readonly { name: string }[]) =>
      column.of(3, [here(of), before(of)], (_k, one, last) => [last?.name ?? '', one.name]);
    const first = joined(row);
    expect(first).toEqual([
      ['', 'a'],
      ['a', 'b'],
      ['b', 'c'],
    ]);
    expect(joined([...row])).toBe(first);
    const second = joined([row[0]!, { name: 'x' }, row[2]!]);
    expect(second[0]).toBe(first[0]);
    expect(second.slice(1)).toEqual([
      ['a', 'x'],
      ['x', 'c'],
    ]);
  });

  it('knows spans of other rows, and values of the whole', () => {
    const column = new Column<{ readonly sum: number; readonly until: number }>();
    const sums = (numbers: readonly number[], factor: number) =>
      column.of(2, [over(numbers, (k, { until }) => [k, until]), whole(factor)], (k, row, by) => ({
        sum: by * (row[k]! + row[k + 1]!),
        until: k + 1,
      }));
    const first = sums([1, 2, 3], 1);
    const second = sums([1, 2, 4], 1);
    expect(second[0]).toBe(first[0]);
    expect(second[1]!.sum).toBe(6);
    expect(sums([1, 2, 4], 2).map(({ sum }) => sum)).toEqual([6, 12]);
  });

  it('may depend on its own element before, or on what of it counts', () => {
    const column = new Column<{ readonly name: string; readonly odd: boolean }>();
    const run = (row: readonly number[]) =>
      column.of(
        row.length,
        [here(row), column.own((element, last) => element.name.endsWith(last?.odd ? '!' : '.'))],
        (_k, one, last) => ({ name: `${one}${last?.odd ? '!' : '.'}`, odd: one % 2 === 1 }),
      );
    const first = run([1, 2, 3]);
    expect(first.map(({ name }) => name)).toEqual(['1.', '2!', '3.']);
    // The first is another one, but as odd as before.
    const second = run([5, 2, 3]);
    expect(second[0]!.name).toBe('5.');
    expect(second[1]).toBe(first[1]);
    const third = run([4, 2, 3]);
    expect(third.map(({ name }) => name)).toEqual(['4.', '2.', '3.']);
    expect(third[2]).toBe(first[2]);
  });

  it('begins anew where there are more elements', () => {
    const column = new Column<number[]>();
    const row = objects('a', 'b');
    const first = column.of(2, [here(row)], (k) => [k]);
    const longer = column.of(3, [here([...row, { name: 'c' }])], (k) => [k]);
    expect(longer[0]).not.toBe(first[0]);
  });
});
