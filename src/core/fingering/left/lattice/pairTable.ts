/**
 * What rules charge for pairs of codes: one flat array, filled where it is asked for. It says nothing of a piece, so
 * that the next layer and the next piece find it.
 */
import { Bill } from '../rules/ledger';
import { CODES, type CarriedRule, type HandSetting, type WayRule } from '../rules/rule';

/** Not worked out yet. */
export const UNKNOWN = -1;

/** A plain entry: the cost in the low bits, what it counts for the hand above. */
export const COST_BITS = 20;
const LARGEST_COST = (1 << COST_BITS) - 1;

const FIRST_ROWS = 16;
const FIRST_SHIFT = 4;

/** Rows and columns are numbered as they come up; the array grows with them. */
abstract class GrowingTable {
  /** Entry of row r and column c: numbers from `((r << shift) + c) << cellBits` on. */
  entries: Int32Array;
  shift = FIRST_SHIFT;
  private readonly rowOfCode = new Map<number, Map<number, number>>();
  private readonly columnOfCode = new Int16Array(CODES).fill(-1);
  protected readonly rowCodes: number[] = [];
  protected readonly rowMs: number[] = [];
  protected readonly columnCodes: number[] = [];
  private room = FIRST_ROWS;

  constructor(protected readonly cellBits: number) {
    this.entries = this.blank();
  }

  /** How many numbers it holds. */
  get size(): number {
    return this.entries.length;
  }

  /** The row of what a state before a step shows, and the time that the step leaves it. */
  rowOf(code: number, ms: number): number {
    let rows = this.rowOfCode.get(ms);
    if (!rows) this.rowOfCode.set(ms, (rows = new Map()));
    let row = rows.get(code);
    if (row === undefined) {
      rows.set(code, (row = this.rowCodes.length));
      this.rowCodes.push(code);
      this.rowMs.push(ms);
      if (row >= this.room) this.grow(2 * this.room, this.shift);
    }
    return row;
  }

  columnOf(code: number): number {
    let column = this.columnOfCode[code]!;
    if (column < 0) {
      column = this.columnCodes.length;
      this.columnOfCode[code] = column;
      this.columnCodes.push(code);
      if (column >= 1 << this.shift) this.grow(this.room, this.shift + 1);
    }
    return column;
  }

  private blank(): Int32Array {
    return new Int32Array(this.room << (this.shift + this.cellBits)).fill(UNKNOWN);
  }

  private grow(room: number, shift: number): void {
    const { entries, room: rows, cellBits } = this;
    const width = 1 << (this.shift + cellBits);
    this.room = room;
    this.shift = shift;
    this.entries = this.blank();
    for (let r = 0; r < rows; r++)
      this.entries.set(entries.subarray(r * width, (r + 1) * width), r << (shift + cellBits));
  }
}

/** Rules that look at the same of both states. */
export class PairTable extends GrowingTable {
  constructor(
    private readonly rules: readonly WayRule[],
    private readonly setting: HandSetting,
  ) {
    super(0);
  }

  /** @throws RangeError for a cost that does not fit an entry: a weight is far too large */
  fill(row: number, column: number): number {
    const [from, to, ms] = [this.rowCodes[row]!, this.columnCodes[column]!, this.rowMs[row]!];
    const bill = new Bill(this.setting, undefined);
    let counts = 0;
    for (const { charge, bears } of this.rules) {
      charge(from, to, ms, bill);
      if (bears) counts += bears(from, to);
    }
    if (bill.sum > LARGEST_COST) throw new RangeError(`${this.rules[0]!.id}: a step costs ${bill.sum}`);
    const entry = (counts << COST_BITS) | bill.sum;
    this.entries[(row << this.shift) + column] = entry;
    return entry;
  }
}

/** A rule that depends on what carries the hand: the least cost, and that of each of up to seven carriers. */
const CARRIED_BITS = 3;

export class CarriedTable extends GrowingTable {
  readonly carrierOf: Uint8Array;

  constructor(
    private readonly rule: CarriedRule,
    private readonly setting: HandSetting,
    counts: number,
  ) {
    super(CARRIED_BITS);
    this.carrierOf = Uint8Array.from({ length: counts }, (_, count) => rule.carrierOf(count));
  }

  /** Where the entries of a pair begin: the least cost, then that of each carrier. */
  cell(row: number, column: number): number {
    const cell = ((row << this.shift) + column) << CARRIED_BITS;
    if (this.entries[cell] === UNKNOWN) this.fill(cell, row, column);
    return cell;
  }

  private fill(cell: number, row: number, column: number): void {
    const [from, to, ms] = [this.rowCodes[row]!, this.columnCodes[column]!, this.rowMs[row]!];
    let least = Infinity;
    for (let carrier = 0; carrier < this.rule.carriers; carrier++) {
      const bill = new Bill(this.setting, undefined);
      this.rule.charge(from, to, ms, carrier, bill);
      this.entries[cell + 1 + carrier] = bill.sum;
      least = Math.min(least, bill.sum);
    }
    this.entries[cell] = least;
  }
}
