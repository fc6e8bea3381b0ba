/** What a change of state takes away from notes that should go on. */
import type { FingeringProblem, Moment, Strike } from '../../problem/problem';
import type { HandState, Placement } from './handState';
import { Bill, type Ledger } from './ledger';
import { CHANGED_IN_HURRY, CUT_AT_ONCE, WEAK_PAIR_MS } from './terms';

/** What sounds in `from` and is let go, taken up elsewhere, or handed to another finger. */
export function cutsCost(
  problem: FingeringProblem,
  moment: Moment,
  from: HandState,
  next: Moment,
  to: HandState,
  ledger?: Ledger,
): number {
  const bill = new Bill(problem.weights, ledger);
  for (let slot = 0; slot < from.strikes.length; slot++) {
    const strike = problem.strikes[from.strikes[slot]!]!;
    if (strike.endTicks < next.tick) continue;
    const again = struckAgain(problem, strike, next, to);
    if (again >= 0) {
      // Struck again at the same pitch: the sound goes on, nothing is lost.
      chargeAgain(from.placements[slot]!, to.placements[again]!, hurryOf(problem, moment, next), bill);
      continue;
    }
    if (strike.endTicks <= next.tick) continue;
    const held = to.strikes.indexOf(strike.index);
    if (held < 0) chargeCut(problem, strike, next.tick, bill);
    else if (to.codes[held] !== from.codes[slot]) bill.charge('handOver', 1);
  }
  return bill.sum;
}

/** How much of the time in which fingers can follow each other at ease is lacking between two moments: 0 to 1. */
export const hurryOf = ({ spans }: FingeringProblem, moment: Moment, next: Moment): number =>
  Math.max(0, 1 - spans.spanMs(moment.tick, next.tick) / WEAK_PAIR_MS);

/** A pitch struck again had better stay where it is, under the finger that it has; in a tremolo above all. */
export function chargeAgain(before: Placement, after: Placement, hurry: number, bill: Bill): void {
  if (before.string !== after.string || before.fret !== after.fret) bill.charge('placeChanged', 1);
  else if (before.finger !== after.finger) bill.charge('fingerChanged', 1 + CHANGED_IN_HURRY * hurry);
}

/** Slot in `to` of a new strike at the pitch of an old one, −1 where there is none. */
function struckAgain(problem: FingeringProblem, strike: Strike, next: Moment, to: HandState): number {
  for (const index of next.struck) {
    if (problem.strikes[index]!.midi === strike.midi) return to.strikes.indexOf(index);
  }
  return -1;
}

const CUT_TERM = { melody: 'cutMelody', bass: 'cutBass', inner: 'cutInner' } as const;

/** A strike that ends at `tick`, before its time. */
export function chargeCut(problem: FingeringProblem, strike: Strike, tick: number, bill: Bill): void {
  const written = tick < strike.writtenEndTicks;
  const endTicks = written ? strike.writtenEndTicks : strike.endTicks;
  const lostShare = (endTicks - tick) / (endTicks - strike.onsetTicks);
  const lostQuarters = (endTicks - tick) / problem.ticksPerQuarter;
  const counted = lostQuarters * (CUT_AT_ONCE + (1 - CUT_AT_ONCE) * lostShare);
  bill.charge(written ? CUT_TERM[strike.role] : 'cutRing', counted);
  if (written && strike.mustRing) bill.charge('cutMustRing', 1);
}
