/** Short keys for rows of places, to look rows up by what they hold. */
import { PLACES } from './handTables';

/** A number this long is no object to the machine. */
const BITS = 30;

/**
 * Keys of rows of one width, column by column: a column knows few places, so each gets a number of few bits in the order
 * of its first sight. A row with a place that has no number left is keyed by a word. Equal rows have equal keys.
 */
export class RowKeys {
  private readonly bits: number;
  /** By column and place (from NO_PLACE on): its number, 0 before it is seen. */
  private readonly numbers: Int16Array;
  private readonly seen: Int16Array;

  constructor(private readonly width: number) {
    this.bits = width === 0 ? 0 : Math.floor(BITS / width);
    this.numbers = new Int16Array(width * (PLACES + 1));
    this.seen = new Int16Array(width);
  }

  of(places: readonly number[]): number | string {
    let key = 0;
    for (let column = 0; column < this.width; column++) {
      const number = this.numberOf(column, places[column]!);
      if (number >> this.bits > 0) return String.fromCharCode(...places);
      key = (key << this.bits) | number;
    }
    return key;
  }

  private numberOf(column: number, place: number): number {
    const cell = column * (PLACES + 1) + place + 1;
    if (this.numbers[cell] === 0) this.numbers[cell] = ++this.seen[column]!;
    return this.numbers[cell]!;
  }
}
