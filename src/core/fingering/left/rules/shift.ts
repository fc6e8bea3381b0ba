/** Changes of position: how far, in what time, carried by what. Source: handbook, "Shifts". */
import { movementMs } from '../../../instrument/handProfile';
import { bearing, countIn, LEAVES, SLIDES, SQUEAKS, STAYS } from './fingers';
import { freedTicks, type Hand, LONG_FREE } from './hand';
import { handWayFrets, handWayMm } from './handWay';
import type { Bill } from './ledger';
import { type HandRange, NO_RANGE, rangeAt } from './range';
import type { CarriedRule, HandSetting } from './rule';
import type { HandStep } from './step';
import { CARRIER_SHARE, LONGEST_WINDOW_MS, RELEASE_SHARE, SQUEEZE_FRETS } from './terms';

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

/** Less is an extension or a contraction: the thumb stays. */
export const isShift = (start: HandRange, end: HandRange): boolean =>
  handWayFrets(start, end) > SQUEEZE_FRETS;

/** Range before, and whether it is only remembered; 0 where no finger ever lay. */
const fromCode = (range: number, freed: boolean) =>
  range === NO_RANGE ? 0 : 2 * (range + 1) + Number(freed);

/** The way of the hand from where it stands, or stood before it was freed, to where it next stops something. */
export const SHIFT: CarriedRule = {
  id: 'shift',
  from: {
    code: (hand) => fromCode(hand.range, hand.down === 0),
    ms: (hand, step) => (hand.range === NO_RANGE ? 0 : windowMs(hand, step)),
  },
  to: { code: (hand) => (hand.down === 0 ? 0 : hand.range + 1) },
  carriers: CARRIERS.length,
  carrierOf,
  charge: (from, to, ms, carrier, bill) => {
    if (from === 0 || to === 0) return;
    const [start, end] = [rangeAt((from >> 1) - 1), rangeAt(to - 1)];
    if (!isShift(start, end)) {
      bill.charge('squeeze', handWayMm(start, end, bill.setting.fretboard));
      return;
    }
    const { by, squeaks } = CARRIERS[carrier]!;
    // An open string or a rest carries the hand at the full way.
    chargeShift(
      handWayMm(start, end, bill.setting.fretboard),
      ms,
      by === 'none' && (from & 1) === 1 ? 'open' : by,
      bill,
    );
    if (squeaks) bill.charge('squeak', 1);
  },
};

function chargeShift(distanceMm: number, windowMs: number, carrier: Carrier, bill: Bill) {
  const share = movementMs(distanceMm, bill.setting.hand) / Math.max(1, windowMs);
  bill.charge('shift', 1);
  bill.charge('shiftDistance', distanceMm * CARRIER_SHARE[carrier]);
  bill.charge('shiftHaste', share);
  bill.charge('shiftTooFast', share);
  if (carrier === 'none') bill.charge('jump', 1);
}

/** Time in ms from when the last note that holds the hand may be released to the end of the step. */
function windowMs(hand: Hand, step: HandStep): number {
  const freed = freedTicks(hand, step);
  const waited = freed === LONG_FREE ? Infinity : step.msBefore(freed);
  return Math.min(LONGEST_WINDOW_MS, Math.max(waited, RELEASE_SHARE * step.ms));
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
  if (from.range === NO_RANGE || to.down === 0) return null;
  const [start, end] = [rangeAt(from.range), rangeAt(to.range)];
  if (!isShift(start, end)) return null;
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
