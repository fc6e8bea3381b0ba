/** Short keys for rows of places, to look rows up by what they hold. */
import { PLACES } from '../rules/place';

/** A number this long is no object to the machine. */
const BITS = 30;

/**
 * Keys of rows of one width. A column knows few places, so each gets a number of few bits in the order of its first
 * sight, and the key of a row is the sum of its parts, one for each column. Where a column has no number left the part,
 * and so the sum, is not finite, and the row is keyed by a word. Equal rows have equal keys.
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
    let sum = 0;
    for (let column = 0; column < this.width; column++) sum += this.part(column, places[column]!);
    return this.keyed(sum, places);
  }

  /** @param sum of the parts of these places */
  keyed(sum: number, places: readonly number[]): number | string {
    return Number.isFinite(sum) ? sum : String.fromCharCode(...places);
  }

  part(column: number, place: number): number {
    const cell = column * (PLACES + 1) + place + 1;
    if (this.numbers[cell] === 0) this.numbers[cell] = ++this.seen[column]!;
    const number = this.numbers[cell]!;
    return number >> this.bits === 0 ? number << (column * this.bits) : Infinity;
  }
}
