/** The way of each finger: from string to string, under a barre, and what it does for the hand that moves. */
import { acrossMm, fingertipMm } from '../../../instrument/fretboard';
import { movementMs } from '../../../instrument/handProfile';
import { columnUnder, type Hand, isArched } from './hand';
import { type Bill, priceOf } from './ledger';
import { isWound, type Placement } from './place';
import type { StateColumn, HandSetting, TimedColumn, WayRule } from './rule';
import {
  coversString,
  maybeStandAt,
  NO_STAND,
  sameTip,
  type Stand,
  stringOfStand,
  stringsUnder,
} from './stand';
import type { HandStep } from './step';
import { BARRE_SIZE } from './terms';
import { BARRE_PREPARED_SHARE, FINGER_TIME } from './shares';

/** A stand, and whether it is only what a freed hand remembers. */
const fromCode = (stand: number, remembered: boolean) =>
  stand === NO_STAND ? 0 : 2 * stand + Number(remembered);
/** A stand, and whether it is a barre that must arch. */
const toCode = (stand: number, arched: boolean) => 2 * stand + Number(arched);
const standIn = (code: number) => code >> 1;
const flagIn = (code: number) => (code & 1) === 1;

const fingerBefore = (finger: number): TimedColumn => ({
  code: (hand) => fromCode(hand.standUnder(finger), hand.down === 0),
  ms: (hand, step) => (hand.down & (1 << (finger - 1)) ? freeMs(hand, finger, step) : 0),
});

const fingerAfter = (finger: number): StateColumn => ({
  code: (hand) => (hand.down === 0 ? 0 : toCode(hand.standUnder(finger), finger === 1 && isArched(hand))),
});

/** Time in ms that a finger that is down has before the end of a step. */
function freeMs(hand: Hand, finger: number, step: HandStep): number {
  return Math.max(1, step.freeMs[columnUnder(hand, finger)]!);
}

/** By finger 1 to 4: columns are shared, so that whatever looks at the same is priced at once. */
const COLUMNS = [1, 2, 3, 4].map((finger) => ({
  finger,
  from: fingerBefore(finger),
  to: fingerAfter(finger),
}));

/** A finger that leaves one string for another, in the time that it has. */
export const HOPS: readonly WayRule[] = COLUMNS.map(({ finger, from, to }) => ({
  id: `hop ${finger}`,
  from,
  to,
  charge: (a, b, ms, bill) => {
    if (flagIn(a)) return;
    const [before, after] = [maybeStandAt(standIn(a)), maybeStandAt(standIn(b))];
    if (before && after && !(finger === 1 && swivels(before, after))) chargeHop(before, after, ms, bill);
  },
  bears: (a, b) => bearing(standIn(a), standIn(b)),
}));

function chargeHop(a: Stand, b: Stand, freeMs: number, bill: Bill) {
  if (a.string === b.string) return;
  bill.charge('hop', 1);
  bill.charge('hopHaste', hopMs(bill.setting, a, b) / freeMs);
}

/** Finger 1 goes from a tip to a barre over the same string, or back: it swivels, it does not hop. */
function swivels(a: Stand, b: Stand): boolean {
  const [barre, tip] = a.strings.length > 1 ? [a, b] : [b, a];
  return barre.strings.length > 1 && barre.fret === tip.fret && coversString(barre, tip.string);
}

/** Time in ms for a fingertip from one place to another. */
export function hopMs(
  { fretboard: board, hand }: Pick<HandSetting, 'fretboard' | 'hand'>,
  a: Pick<Placement, 'string' | 'fret'>,
  b: Pick<Placement, 'string' | 'fret'>,
): number {
  const alongA = fingertipMm(a.fret, board.scaleLengthMm);
  const alongB = fingertipMm(b.fret, board.scaleLengthMm);
  const across = acrossMm(a.string, alongA, board) - acrossMm(b.string, alongB, board);
  return FINGER_TIME * movementMs(Math.hypot(alongA - alongB, across), hand);
}

/** The barre that lies, or else what is under finger 1. */
const BARRE_BEFORE: TimedColumn = {
  code: (hand) =>
    hand.lying === NO_STAND ? fromCode(hand.standUnder(1), hand.down === 0) : fromCode(hand.lying, false),
  ms: () => 0,
};

/** Laying barres: what is left to do when one, or a finger on its fret, lies there already. */
export const BARRES: readonly WayRule[] = COLUMNS.map(({ finger, from, to }) => ({
  id: `barre ${finger}`,
  from: finger === 1 ? BARRE_BEFORE : from,
  to,
  charge: (a, b, _ms, bill) => {
    const barre = maybeStandAt(standIn(b));
    if (!barre || barre.strings.length === 1) return;
    const before = flagIn(a) ? null : maybeStandAt(standIn(a));
    if (finger === 1) chargeBarre(before, barre, flagIn(b), bill);
    else if (!before || !liesAlready(before, barre)) bill.charge('smallBarre', stringsUnder(barre) - 1);
  },
}));

function chargeBarre(before: Stand | null, barre: Stand, arched: boolean, bill: Bill) {
  if (before && liesAlready(before, barre)) return;
  const full = priceOf(bill.setting.weights, 'barre', barre.fret) * BARRE_SIZE[stringsUnder(barre)]!;
  const onFret = before?.fret === barre.fret;
  const smaller = onFret && before!.strings.length > 1;
  const share = smaller ? BARRE_PREPARED_SHARE.smallerBarre : onFret ? BARRE_PREPARED_SHARE.finger : 1;
  bill.add('barre', Math.round(full * share));
  if (arched) bill.charge('archedBarre', 1);
}

const liesAlready = (before: Stand, barre: Stand) =>
  before.strings.length > 1 &&
  before.fret === barre.fret &&
  before.firstString <= barre.firstString &&
  before.lastString >= barre.lastString;

/**
 * What a finger does for the hand, in counts of three bits each: it stays, it slides along its string, it slides along a
 * wound one, it leaves its string.
 */
export const STAYS = 1;
export const SLIDES = 1 << 3;
export const SQUEAKS = 1 << 6;
export const LEAVES = 1 << 9;
export const countIn = (counts: number, of: number): number => Math.floor(counts / of) & 7;

export function bearing(before: number, after: number): number {
  if (before === NO_STAND || after === NO_STAND) return 0;
  if (sameTip(before, after)) return STAYS;
  const string = stringOfStand(before);
  if (string !== stringOfStand(after)) return LEAVES;
  return isWound(string) ? SLIDES + SQUEAKS : SLIDES;
}
