/** Changes of position: how far, in what time, carried by what. Source: handbook, "Shifts". */
import { movementMs } from '../../../instrument/handProfile';
import { anchorHigh, anchorId, anchorLow, anchorWay, NO_ANCHOR } from './anchor';
import { bearing, countIn, LEAVES, SLIDES, SQUEAKS, STAYS } from './fingers';
import { freedTicks, type Hand, LONG_FREE } from './hand';
import { handWayMm } from './handWay';
import type { Bill } from './ledger';
import { FINGER_OF, NO_PLACE } from './place';
import { fretOfStand } from './stand';
import type { CarriedRule, HandSetting } from './rule';
import type { HandStep } from './step';
import { CARRIER_SHARE, LONGEST_WINDOW_MS, QUICK_SHIFT, QUICK_WINDOW_MS, RELEASE_SHARE } from './shares';

/**
 * What carries the hand: an open string or rest when nothing holds it, a finger that slides, all of them (the
 * same shape moved), a finger that stays, or nothing.
 */
export type Carrier = keyof typeof CARRIER_SHARE;

/** What the fingers do for the hand; `squeaks`: every finger that slides does so on a wound string. */
const CARRIERS: readonly { readonly by: Exclude<Carrier, 'open'>; readonly squeaks: boolean }[] = [
  { by: 'none', squeaks: false },
  { by: 'guide', squeaks: false },
  { by: 'guide', squeaks: true },
  { by: 'shape', squeaks: false },
  { by: 'shape', squeaks: true },
  { by: 'pivot', squeaks: false },
];

function carrierOf(counts: number): number {
  if (countIn(counts, STAYS) > 0) return 5;
  const guides = countIn(counts, SLIDES);
  if (guides === 0) return 0;
  const squeaks = countIn(counts, SQUEAKS) === guides;
  const shape = guides > 1 && countIn(counts, LEAVES) === 0;
  return (shape ? 3 : 1) + Number(squeaks);
}

/** Less is reaching out of the position: the thumb stays. */
export const isShift = (start: number, end: number): boolean => anchorWay(start, end) !== 0;

/** Anchor before, and whether it is only remembered; 0 where no finger ever lay. */
const fromCode = (anchor: number, freed: boolean) => (anchor === NO_ANCHOR ? 0 : 2 * anchor + Number(freed));

/** The way of the hand from where it stays, or stayed before it was freed, to where it stays when it next stops something. */
export const SHIFT: CarriedRule = {
  id: 'shift',
  from: {
    code: (hand) => fromCode(hand.anchor, hand.down === 0),
    ms: (hand, step) => (hand.anchor === NO_ANCHOR ? 0 : windowMs(hand, step)),
  },
  to: { code: (hand) => (hand.down === 0 ? 0 : 2 * hand.anchor + Number(couldComeHigher(hand))) },
  carriers: CARRIERS.length,
  carrierOf,
  charge: (from, code, ms, carrier, bill) => {
    if (code === 0) return;
    const start = from >> 1;
    const to = code >> 1;
    // A stay is paid when the hand comes up, not for each note.
    const before = start === NO_ANCHOR ? FIRST_POSITION : start;
    const comes = start === NO_ANCHOR || isShift(start, to);
    const spared = comes && (code & 1) === 1 ? 1 : 0;
    bill.charge('position', Math.max(0, heightOf(leastFretOf(to) + spared) - heightOf(mostFretOf(before))));
    if (start === NO_ANCHOR || !isShift(start, to)) return;
    const { by, squeaks } = CARRIERS[carrier]!;
    // An open string or a rest carries the hand at the full way.
    chargeShift(
      handWayMm(start, to, bill.setting.fretboard),
      ms,
      by === 'none' && (from & 1) === 1 ? 'open' : by,
      bill,
    );
    if (squeaks) bill.charge('squeak', 1);
  },
};

const FIRST_POSITION = anchorId(1, 1);

/** Fingers 2, 3 and 4. */
const OTHERS = 0b1110;

/**
 * Fingers that come down without the first one could lie a fret higher, one number lower each: coming with the first
 * finger idle spares no height. At home every finger has its fret, and only whoever reaches for the fourth one could.
 * Source: handbook 13, "Height" (by where the notes lie).
 */
function couldComeHigher(hand: Hand): boolean {
  const { down, anchor } = hand;
  if ((down & 1) !== 0) return false;
  if (anchor === FIRST_POSITION) return fretOfStand(hand.standUnder(4)) >= 4;
  const isBetween = anchorLow(anchor) !== anchorHigh(anchor);
  const several = isBetween ? down === OTHERS : (down & (down - 1)) !== 0;
  return several && anchorLow(anchor) > 1;
}

/**
 * A hand that lies between frets has left the lower one by so much of the way to its middle: fingers drawn in out of the
 * first position are not free. Set by hand.
 */
const TOWARDS_MIDDLE = 0.9;
const leastFretOf = (anchor: number): number => anchorLow(anchor) + TOWARDS_MIDDLE * halfWidth(anchor);
const mostFretOf = (anchor: number): number => anchorHigh(anchor) - TOWARDS_MIDDLE * halfWidth(anchor);
const halfWidth = (anchor: number): number => (anchorHigh(anchor) - anchorLow(anchor)) / 2;

/** The first position is at home: whoever leaves it leaves a finger for each fret, and pays so much of a fret more. Set by hand. */
const LEAVING_HOME = 0.8;

/** Very high is harder. */
const heightOf = (fret: number): number =>
  fret - 1 + LEAVING_HOME * Math.min(1, fret - 1) + 12 * Math.max(0, fret - 12);

function chargeShift(distanceMm: number, windowMs: number, carrier: Carrier, bill: Bill) {
  const share = movementMs(distanceMm, bill.setting.hand) / Math.max(1, windowMs);
  const carried = CARRIER_SHARE[carrier];
  const quick = QUICK_SHIFT * Math.max(0, 1 - windowMs / QUICK_WINDOW_MS);
  bill.charge('shift', carried * (1 + quick));
  bill.charge('shiftDistance', distanceMm * carried);
  bill.charge('shiftHaste', share * carried);
  bill.charge('shiftTooFast', share);
  if (carrier === 'none') bill.charge('jump', 1);
}

/** Time in ms from when the last note that holds the hand may be released to the end of the step. */
function windowMs(hand: Hand, step: HandStep): number {
  const freed = freedTicks(hand, step);
  const waited = freed === LONG_FREE ? Infinity : step.msBefore(freed);
  return Math.min(LONGEST_WINDOW_MS, Math.max(waited, releasedMs(hand, step)));
}

/** When the last of the notes that are stopped may be let go. */
function releasedMs(hand: Hand, step: HandStep): number {
  let ms = Infinity;
  for (let column = 0; column < hand.columns; column++) {
    const place = hand.placeOn(column);
    if (place !== NO_PLACE && FINGER_OF[place]! > 0) ms = Math.min(ms, step.freeMs[column]!);
  }
  return ms === Infinity ? RELEASE_SHARE * step.ms : ms;
}

export interface ShiftMeasure {
  readonly distanceMm: number;
  readonly windowMs: number;
  readonly neededMs: number;
  readonly carrier: Carrier;
  /** The finger that guides or stays, 0 where none does; the lowest where several do. */
  readonly finger: number;
}

/** The change of position between two states, or null when the hand stays where it is. */
export function measuredShift(
  setting: HandSetting,
  from: Hand,
  to: Hand,
  step: HandStep,
): ShiftMeasure | null {
  const [start, end] = [from.anchor, to.anchor];
  if (start === NO_ANCHOR || to.down === 0 || !isShift(start, end)) return null;
  const bearings = [1, 2, 3, 4].map((finger) => bearing(from.standUnder(finger), to.standUnder(finger)));
  const { by } = CARRIERS[carrierOf(bearings.reduce((sum, one) => sum + one, 0))]!;
  const carries = by === 'pivot' ? STAYS : SLIDES;
  const distanceMm = handWayMm(start, end, setting.fretboard);
  return {
    distanceMm,
    windowMs: windowMs(from, step),
    neededMs: movementMs(distanceMm, setting.hand),
    carrier: by === 'none' && from.down === 0 ? 'open' : by,
    finger: by === 'none' ? 0 : bearings.findIndex((one) => countIn(one, carries) > 0) + 1,
  };
}
