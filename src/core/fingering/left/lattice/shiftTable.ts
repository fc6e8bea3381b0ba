/** What the hand's way costs for one window of time, by the ranges before and after. See `shiftCost` in shift.ts. */
import { movementMs } from '../../../instrument/handProfile';
import { handWayFrets, handWayMm } from '../rules/handWay';
import type { HandRange } from '../rules/handState';
import { Bill, priceOf } from '../rules/ledger';
import { chargeHaste, leastShiftCost } from '../rules/shift';
import { CARRIER_SHARE, SQUEEZE_FRETS } from '../rules/terms';
import type { Geometry } from './handTables';

/** A hand opens over some frets at each of some twenty places: no fretboard has more ranges. */
export const MOST_RANGES = 192;

export const CARRIED = { none: 0, guide: 1, shape: 2, pivot: 3 } as const;
const SHARES = [CARRIER_SHARE.none, CARRIER_SHARE.guide, CARRIER_SHARE.shape, CARRIER_SHARE.pivot] as const;
const LEAST_SHARE = Math.min(...SHARES);
const UNKNOWN = -1;

export class ShiftTable {
  /** The least of a cell's costs; filled when the cell is asked for. */
  readonly least = new Int32Array(MOST_RANGES * MOST_RANGES).fill(UNKNOWN);
  /** Four a cell, by what carries the hand; all equal where it is no shift. */
  readonly costs = new Int32Array(4 * MOST_RANGES * MOST_RANGES);
  readonly isShift = new Uint8Array(MOST_RANGES * MOST_RANGES);

  constructor(
    private readonly geometry: Geometry,
    private readonly ranges: readonly HandRange[],
    private readonly windowMs: number,
  ) {}

  /** The cell of two ranges; −1 before: no finger ever lay. */
  cell(from: number, to: number): number {
    const cell = from * MOST_RANGES + to;
    if (this.least[cell] === UNKNOWN) this.fill(cell, this.ranges[from]!, this.ranges[to]!);
    return cell;
  }

  private fill(cell: number, from: HandRange, to: HandRange) {
    const { weights, fretboard, hand } = this.geometry;
    if (handWayFrets(from, to) <= SQUEEZE_FRETS) {
      this.least[cell] = leastShiftCost(this.geometry, from, to);
      this.costs.fill(this.least[cell]!, 4 * cell, 4 * cell + 4);
      return;
    }
    const mm = handWayMm(from, to, fretboard);
    const share = movementMs(mm, hand) / Math.max(1, this.windowMs);
    const bill = new Bill(weights, undefined);
    bill.charge('shift', 1);
    chargeHaste(share, bill);
    const always = bill.sum;
    const carried = (part: number) => always + priceOf(weights, 'shiftDistance', mm * part);
    SHARES.forEach((part, carrier) => (this.costs[4 * cell + carrier] = carried(part)));
    this.least[cell] = carried(LEAST_SHARE);
    this.isShift[cell] = 1;
  }
}
