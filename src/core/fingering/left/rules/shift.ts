/** Changes of position: how far, in what time, carried by what. Source: handbook, "Shifts". */
import { movementMs } from '../../../instrument/handProfile';
import type { FingeringProblem, Moment } from '../../problem/problem';
import type { HandRange, HandState } from './handState';
import { handWayFrets, handWayMm } from './handWay';
import { Bill, type Ledger } from './ledger';
import { fingersOf, windowMs } from './memory';
import { CARRIER_SHARE, LONGEST_WINDOW_MS, SQUEEZE_FRETS } from './terms';

/**
 * What carries the hand: an open string or rest when nothing holds it, a finger that slides, all of them (the
 * same shape moved), a finger that stays, or nothing.
 */
export type Carrier = keyof typeof CARRIER_SHARE;

export interface ShiftMeasure {
  readonly distanceMm: number;
  readonly windowMs: number;
  readonly neededMs: number;
  readonly carrier: Carrier;
  /** The finger that guides or stays, 0 where none does. */
  readonly finger: number;
  /** Whether every finger that slides does so on a wound string: it squeaks. */
  readonly squeaks: boolean;
}

export function shiftCost(
  problem: FingeringProblem,
  moment: Moment,
  from: HandState,
  next: Moment,
  to: HandState,
  ledger?: Ledger,
): number {
  const start = from.range ?? from.memory?.range;
  if (!start || !to.range) return 0;
  const bill = new Bill(problem.weights, ledger);
  if (handWayFrets(start, to.range) <= SQUEEZE_FRETS) {
    bill.charge('squeeze', handWayMm(start, to.range, problem.fretboard));
    return bill.sum;
  }
  const shift = measureShift(problem, moment, from, next, to)!;
  chargeShift(shift, bill);
  return bill.sum;
}

/** By the time that is needed over the time there is. */
export function chargeHaste(share: number, bill: Bill): void {
  bill.charge('shiftHaste', share);
  bill.charge('shiftTooFast', share);
}

function chargeShift(shift: ShiftMeasure, bill: Bill): void {
  bill.charge('shift', 1);
  bill.charge('shiftDistance', shift.distanceMm * CARRIER_SHARE[shift.carrier]);
  chargeHaste(shift.neededMs / Math.max(1, shift.windowMs), bill);
  if (shift.carrier === 'none') bill.charge('jump', 1);
  if (shift.squeaks) bill.charge('squeak', 1);
}

const stringOfCode = (code: number) => code >> 8;

/** Strings 4 to 6 are wound. */
const FIRST_WOUND_STRING = 4;

/** The least that a way between two ranges can cost: the best carrier, all the time that can be used. */
export function leastShiftCost(
  problem: Pick<FingeringProblem, 'fretboard' | 'hand' | 'weights'>,
  from: HandRange,
  to: HandRange,
): number {
  const bill = new Bill(problem.weights, undefined);
  const distanceMm = handWayMm(from, to, problem.fretboard);
  if (handWayFrets(from, to) <= SQUEEZE_FRETS) {
    bill.charge('squeeze', distanceMm);
    return bill.sum;
  }
  bill.charge('shift', 1);
  bill.charge('shiftDistance', distanceMm * Math.min(...Object.values(CARRIER_SHARE)));
  chargeHaste(movementMs(distanceMm, problem.hand) / LONGEST_WINDOW_MS, bill);
  return bill.sum;
}

/** The change of position between two states, or null when the hand stays where it is. */
export function measureShift(
  problem: FingeringProblem,
  moment: Moment,
  from: HandState,
  next: Moment,
  to: HandState,
): ShiftMeasure | null {
  const start = from.range ?? from.memory?.range;
  if (!start || !to.range || handWayFrets(start, to.range) <= SQUEEZE_FRETS) return null;
  const distanceMm = handWayMm(start, to.range, problem.fretboard);
  return {
    distanceMm,
    windowMs: windowMs(problem, moment, from, next),
    neededMs: movementMs(distanceMm, problem.hand),
    ...carrierOf(fingersOf(from), fingersOf(to), from.range === null),
  };
}

/** By the codes under fingers 1 to 4 before and after; the lowest finger that slides or stays is named. */
export function carrierOf(
  before: readonly number[],
  after: readonly number[],
  freed: boolean,
): Pick<ShiftMeasure, 'carrier' | 'finger' | 'squeaks'> {
  const guides: number[] = [];
  let others = 0;
  for (let k = 0; k < 4; k++) {
    const [a, b] = [before[k]!, after[k]!];
    if (a === 0 || b === 0) continue;
    if (a === b) return { carrier: 'pivot', finger: k + 1, squeaks: false };
    if (stringOfCode(a) === stringOfCode(b)) guides.push(k);
    else others++;
  }
  if (guides.length === 0) return { carrier: freed ? 'open' : 'none', finger: 0, squeaks: false };
  return {
    carrier: guides.length > 1 && others === 0 ? 'shape' : 'guide',
    finger: guides[0]! + 1,
    squeaks: guides.every((k) => stringOfCode(before[k]!) >= FIRST_WOUND_STRING),
  };
}
