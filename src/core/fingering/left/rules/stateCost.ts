/** What a state of the hand costs by itself, whatever came before. */
import { pairOf } from '../../../instrument/handProfile';
import type { FingeringProblem, Moment, Strike } from '../../problem/problem';
import { fingerDistanceMm } from './constraints';
import { type HandState, type Placement, placeUnder, stringsUnder } from './handState';
import { Bill, type Ledger } from './ledger';
import { BARRE_SIZE, INDEX_OPENS } from './terms';

/** Effort in tenths of a point of holding this state at this moment and striking what begins there. */
export function stateCost(
  problem: FingeringProblem,
  moment: Moment,
  state: HandState,
  ledger?: Ledger,
): number {
  const bill = new Bill(problem.weights, ledger);
  chargeStanding(problem, state, bill);
  const position = handPosition(state);
  let fingers = 0;
  for (const strikeIndex of moment.struck) {
    const slot = state.strikes.indexOf(strikeIndex);
    if (slot < 0) continue;
    const place = state.placements[slot]!;
    fingers |= 1 << place.finger;
    chargeStruck(problem.strikes[strikeIndex]!, place, position, bill);
  }
  chargeFingers(fingers, bill);
  return bill.sum;
}

/** What the fingers that are down cost, whatever is struck. */
export function chargeStanding(problem: Geometry, state: HandState, bill: Bill): void {
  chargeShape(problem, state.placements, bill);
  const fretOf = [1, 2, 3, 4].map((finger) => placeUnder(state, finger)?.fret ?? -1);
  chargeSpread(fretOf, bill);
  const { barre } = state;
  if (barre) {
    bill.charge('barreHold', BARRE_SIZE[stringsUnder(barre)]!);
    // Beside a barre, on its own fret, there is no room: it would have been laid further.
    if (state.placements.some(({ finger, fret }) => finger > 1 && fret === barre.fret))
      bill.charge('order', 1);
  }
  for (const small of state.smallBarres) bill.charge('barreHold', BARRE_SIZE[stringsUnder(small)]!);
}

/**
 * The fret where finger 1 lies, or would lie by the finger that says so highest: a finger squeezed towards the nut
 * takes the hand nowhere. Below 1 it would hang over the nut. The first position where no finger ever lay.
 */
export function handPosition(state: HandState): number {
  const range = state.range ?? state.memory?.range;
  return range ? range.high : 1;
}

type Geometry = Pick<FingeringProblem, 'fretboard' | 'hand' | 'weights'>;

/**
 * How neighbours among the fingers that are down differ from a fret for each finger: squeezed together or spread.
 * `fretOf`: by finger 1 to 4 at 0 to 3, −1 for one that is not down.
 */
export function chargeSpread(fretOf: ArrayLike<number>, bill: Bill): void {
  let last = -1;
  for (let k = 0; k < 4; k++) {
    if (fretOf[k]! < 0) continue;
    if (last >= 0) {
      const more = fretOf[k]! - fretOf[last]! - (k - last);
      if (more < 0) bill.charge('contraction', -more);
      if (more > 0) bill.charge('extension', more * (last === 0 ? INDEX_OPENS : 1));
    }
    last = k;
  }
}

/** How the fingers lie to each other: stretched, out of order. */
export function chargeShape(problem: Geometry, placements: readonly Placement[], bill: Bill): void {
  const byFinger: Placement[][] = [[], [], [], [], []];
  for (const place of placements) byFinger[place.finger]!.push(place);
  for (let low = 1; low <= 3; low++) {
    const a = byFinger[low]!;
    if (a.length === 0) continue;
    for (let high = low + 1; high <= 4; high++) {
      const b = byFinger[high]!;
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
  let nearestMm = Infinity;
  for (const one of a)
    for (const other of b) nearestMm = Math.min(nearestMm, fingerDistanceMm(one, other, fretboard));
  const reach = hand.reach[pairOf(low, high)];
  const beyondMm = Math.max(0, nearestMm - reach.atEaseMm);
  bill.charge('stretch', beyondMm / (reach.atMostMm - reach.atEaseMm));
  const frets = b[0]!.fret - a[0]!.fret;
  const crossed = frets === 0 && b.some((one) => a.every((other) => one.string > other.string));
  bill.charge('order', crossed ? 1 : 0);
}

/** What the fingers cost that stop struck notes, a bit for each: one that bars counts once. */
export function chargeFingers(fingers: number, bill: Bill): void {
  for (let finger = 1; finger <= 4; finger++) {
    if ((fingers & (1 << finger)) === 0) continue;
    bill.charge('grip', 1);
    bill.charge('finger', finger);
  }
}

/** What striking a note there costs; for `position` see `handPosition`. */
export function chargeStruck(
  strike: Pick<Strike, 'role' | 'printed' | 'ornamented'>,
  place: Placement,
  position: number,
  bill: Bill,
): void {
  const { printed } = strike;
  const departures =
    (printed.finger !== null && printed.finger !== place.finger ? 1 : 0) +
    (printed.string !== null && printed.string !== place.string ? 1 : 0);
  bill.charge('printed', departures);
  if (strike.ornamented) bill.charge('ornament', place.finger);
  if (place.finger === 0) {
    if (strike.role === 'melody') bill.charge('openMelody', position);
    return;
  }
  bill.charge('position', position);
  if (place.string >= 4) bill.charge('wound', place.fret);
}
