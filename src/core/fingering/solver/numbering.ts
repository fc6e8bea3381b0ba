/** Small numbers for the distinct values of a column, in order of appearance. */
import type { Arena } from './arena';

const ROOM = 1 << 19;

/** One numbering is made at a time, so all of them can share the scratch array. */
const numberOf = new Int16Array(ROOM).fill(-1);

export interface Numbered {
  /** The distinct values. */
  readonly values: readonly number[];
  /** By row: index of its value. */
  readonly of: Uint16Array;
}

/**
 * @param valueAt whole numbers from 0 to 524287, by row
 * @throws RangeError for a value out of that range
 */
export function numbered(arena: Arena, rows: number, valueAt: (row: number) => number): Numbered {
  const values: number[] = [];
  const of = arena.uint16(rows);
  for (let row = 0; row < rows; row++) {
    const value = valueAt(row);
    if (!(value >= 0 && value < ROOM))
      throw new RangeError(`numbering: ${value} is no whole number below ${ROOM}`);
    let number = numberOf[value]!;
    if (number < 0) {
      number = values.length;
      numberOf[value] = number;
      values.push(value);
    }
    of[row] = number;
  }
  for (let k = 0; k < values.length; k++) numberOf[values[k]!] = -1;
  return { values, of };
}
