/** Fingers that leave one string for another, and fingers that hinder each other. */
import { acrossMm, fingertipMm } from '../../../instrument/fretboard';
import { FINGER_PAIRS, movementMs } from '../../../instrument/handProfile';
import type { FingeringProblem, Moment } from '../../problem/problem';
import { coversString, type HandState, type Placement, placeUnder } from './handState';
import { Bill, type Ledger } from './ledger';
import { RELEASE_SHARE, WEAK_PAIR_MS } from './terms';

export function hopsCost(
  problem: FingeringProblem,
  moment: Moment,
  from: HandState,
  next: Moment,
  to: HandState,
  ledger?: Ledger,
): number {
  if (!from.range || !to.range) return 0;
  const bill = new Bill(problem.weights, ledger);
  for (let finger = 1; finger <= 4; finger++) {
    const a = placeUnder(from, finger);
    const b = placeUnder(to, finger);
    if (!a || !b || a.string === b.string || (finger === 1 && swivels(from, to))) continue;
    bill.charge('hop', 1);
    bill.charge('hopHaste', hopMs(problem, a, b) / freeMs(problem, moment, from, finger, next));
  }
  const stepMs = problem.spans.spanMs(moment.tick, next.tick);
  if (stepMs < WEAK_PAIR_MS) {
    bill.charge('weakPair', turnWeakness(problem, from, to) * (1 - stepMs / WEAK_PAIR_MS));
  }
  return bill.sum;
}

/** Time in ms that a finger of `from` has before `next`: at least its share of the step. */
export function freeMs(
  problem: FingeringProblem,
  moment: Moment,
  from: HandState,
  finger: number,
  next: Moment,
): number {
  const strike = problem.strikes[from.strikes[from.slotOfFinger[finger]!]!]!;
  const restMs = strike.endTicks < next.tick ? problem.spans.spanMs(strike.endTicks, next.tick) : 0;
  return Math.max(1, restMs, RELEASE_SHARE * problem.spans.spanMs(moment.tick, next.tick));
}

/** How much the fingers that go down are hindered by those that lift. */
export function turnWeakness({ hand }: FingeringProblem, from: HandState, to: HandState): number {
  let sum = 0;
  for (const pair of FINGER_PAIRS) {
    const [low, high] = [Number(pair[0]), Number(pair[1])];
    const turns =
      (lifts(from, to, low) && lifts(to, from, high)) || (lifts(from, to, high) && lifts(to, from, low));
    if (turns) sum += hand.dependence[pair];
  }
  return sum;
}

/** Down in one state and not in the other. */
const lifts = (from: HandState, to: HandState, finger: number) =>
  from.slotOfFinger[finger]! >= 0 && to.slotOfFinger[finger]! < 0;

/** Finger 1 goes from a tip to a barre over the same string, or back: it swivels, it does not hop. */
function swivels(from: HandState, to: HandState): boolean {
  const barre = from.barre ?? to.barre;
  const tip = placeUnder(from.barre ? to : from, 1)!;
  return barre !== null && barre.fret === tip.fret && coversString(barre, tip.string);
}

/** Time in ms for a fingertip from one place to another. */
export function hopMs(
  problem: Pick<FingeringProblem, 'fretboard' | 'hand'>,
  a: Placement,
  b: Placement,
): number {
  const board = problem.fretboard;
  const alongA = fingertipMm(a.fret, board.scaleLengthMm);
  const alongB = fingertipMm(b.fret, board.scaleLengthMm);
  const across = acrossMm(a.string, alongA, board) - acrossMm(b.string, alongB, board);
  return movementMs(Math.hypot(alongA - alongB, across), problem.hand);
}
