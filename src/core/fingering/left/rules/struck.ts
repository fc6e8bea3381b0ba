/** What it costs to stop or leave open the notes that are struck at a moment. */
import type { Strike } from '../../problem/strike';
import type { Hand } from './hand';
import type { Bill } from './ledger';
import { FINGER_OF, isWound, NO_PLACE, type Placement, PLACEMENTS } from './place';
import { NO_RANGE, rangeAt } from './range';
import type { OwnRule } from './rule';
import type { StruckNote } from './step';

/**
 * The fret where finger 1 lies, or would lie by the finger that says so highest: a finger squeezed towards the nut
 * takes the hand nowhere. Below 1 it would hang over the nut. The first position where no finger ever lay.
 */
export const handPosition = (range: number): number => (range === NO_RANGE ? 1 : rangeAt(range).high);

/** Positions from so many frets beyond the nut on fit a code. */
const BEYOND_NUT = 8;
const POSITIONS = 40;

/** The k-th note that is struck. */
export const struckRule = (note: StruckNote, k: number): OwnRule => ({
  id: `struck ${note.role === 'melody'} ${note.printed.finger} ${note.printed.string} ${note.ornamented}`,
  code: (hand) => {
    const place = hand.placeOfStruck(k);
    return place === NO_PLACE ? 0 : (place + 1) * POSITIONS + handPosition(hand.range) + BEYOND_NUT;
  },
  charge: (code, bill) => {
    if (code === 0) return;
    const place = PLACEMENTS[Math.floor(code / POSITIONS) - 1]!;
    chargeStruck(note, place, (code % POSITIONS) - BEYOND_NUT, bill);
  },
});

/** For `position` see `handPosition`. */
export function chargeStruck(
  { role, printed, ornamented }: Pick<Strike, 'role' | 'printed' | 'ornamented'>,
  place: Placement,
  position: number,
  bill: Bill,
): void {
  const departures =
    (printed.finger !== null && printed.finger !== place.finger ? 1 : 0) +
    (printed.string !== null && printed.string !== place.string ? 1 : 0);
  bill.charge('printed', departures);
  if (ornamented) bill.charge('ornament', place.finger);
  if (place.finger === 0) {
    if (role === 'melody') bill.charge('openMelody', position);
    return;
  }
  bill.charge('position', position);
  if (isWound(place.string)) bill.charge('wound', place.fret);
}

/** The fingers that stop struck notes. */
export const stoppingRule = (struck: number): OwnRule => ({
  id: 'stopping',
  code: (hand) => stoppingFingers(hand, struck),
  charge: (code, bill) => chargeFingers(code, bill),
});

function stoppingFingers(hand: Hand, struck: number): number {
  let fingers = 0;
  for (let k = 0; k < struck; k++) {
    const place = hand.placeOfStruck(k);
    if (place !== NO_PLACE) fingers |= 1 << FINGER_OF[place]!;
  }
  return fingers;
}

/** A bit for each finger, 0 for open strings: one that bars counts once. */
export function chargeFingers(fingers: number, bill: Bill): void {
  for (let finger = 1; finger <= 4; finger++) {
    if ((fingers & (1 << finger)) === 0) continue;
    bill.charge('grip', 1);
    bill.charge('finger', finger);
  }
}
