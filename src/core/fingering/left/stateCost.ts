/** What a state of the hand costs by itself, whatever came before. */
import { pairOf } from '../../instrument/handProfile';
import type { FingeringProblem, Moment, Strike } from '../problem';
import { fingerDistanceMm } from './constraints';
import { type HandState, type Placement, stringsUnder } from './handState';
import { middleOf } from './handWay';
import { Bill, type Ledger } from './ledger';
import { BARRE_SIZE } from './terms';

/** Effort in tenths of a point of holding this state at this moment and striking what begins there. */
export function stateCost(
  problem: FingeringProblem,
  moment: Moment,
  state: HandState,
  ledger?: Ledger,
): number {
  const bill = new Bill(problem.weights, ledger);
  chargeStanding(problem, state, bill);
  for (const strikeIndex of moment.struck) {
    const slot = state.strikes.indexOf(strikeIndex);
    if (slot < 0) continue;
    const middle = handMiddle(state);
    chargeStruck(problem.strikes[strikeIndex]!, state.placements[slot]!, middle, bill);
  }
  return bill.sum;
}

/** What the fingers that are down cost, whatever is struck. */
export function chargeStanding(problem: Geometry, state: HandState, bill: Bill): void {
  chargeShape(problem, state.placements, bill);
  if (state.barre) bill.charge('barreHold', BARRE_SIZE[stringsUnder(state.barre)]!);
  for (const barre of state.smallBarres) bill.charge('barreHold', BARRE_SIZE[stringsUnder(barre)]!);
}

/** The middle of the hand; the first position where no finger ever lay. */
export function handMiddle(state: HandState): number {
  const range = state.range ?? state.memory?.range;
  return range ? middleOf(range) : 1;
}

type Geometry = Pick<FingeringProblem, 'fretboard' | 'hand' | 'weights'>;

/** How the fingers lie to each other: opened, squeezed, out of order. */
export function chargeShape(problem: Geometry, placements: readonly Placement[], bill: Bill): void {
  for (let low = 1; low <= 3; low++) {
    const a = placements.filter((place) => place.finger === low);
    if (a.length === 0) continue;
    for (let high = low + 1; high <= 4; high++) {
      const b = placements.filter((place) => place.finger === high);
      if (b.length > 0) chargeTwoFingers(problem, low, a, high, b, bill);
    }
  }
}

function chargeTwoFingers(
  { fretboard, hand }: Geometry,
  low: number,
  a: readonly Placement[],
  high: number,
  b: readonly Placement[],
  bill: Bill,
) {
  const distances = a.flatMap((one) => b.map((other) => fingerDistanceMm(one, other, fretboard)));
  const reach = hand.reach[pairOf(low, high)];
  const beyondMm = Math.max(0, Math.min(...distances) - reach.atEaseMm);
  bill.charge('stretch', beyondMm / (reach.atMostMm - reach.atEaseMm));
  const frets = b[0]!.fret - a[0]!.fret;
  bill.charge('contraction', Math.max(0, high - low - frets - 1));
  const crossed = frets === 0 && b.some((one) => a.every((other) => one.string > other.string));
  bill.charge('order', crossed ? 1 : 0);
}

/** What striking a note there costs; `middle` is the fret of the middle of the hand. */
export function chargeStruck(
  strike: Pick<Strike, 'role' | 'printed' | 'ornamented'>,
  place: Placement,
  middle: number,
  bill: Bill,
): void {
  const { printed } = strike;
  const departures =
    (printed.finger !== null && printed.finger !== place.finger ? 1 : 0) +
    (printed.string !== null && printed.string !== place.string ? 1 : 0);
  bill.charge('printed', departures);
  if (strike.ornamented) bill.charge('ornament', place.finger);
  if (place.finger === 0) {
    if (strike.role === 'melody') bill.charge('openMelody', middle);
    return;
  }
  bill.charge('finger', place.finger);
  bill.charge('position', middle);
  if (place.string >= 4) bill.charge('wound', place.fret);
}
