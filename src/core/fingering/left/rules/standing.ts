/** What the fingers that are down cost by how they lie to each other, whatever is struck. */
import { type FingerPair, pairOf } from '../../../instrument/handProfile';
import { fingerDistanceMm } from './constraints';
import type { Fresh } from './fresh';
import type { Hand } from './hand';
import type { Bill } from './ledger';
import { FINGER_OF, NO_PLACE, STRING_OF } from './place';
import type { OwnRule } from './rule';
import {
  fretOfStand,
  isBarre,
  maybeStandAt,
  shapeOfStand,
  type Stand,
  stringOfStand,
  stringsUnder,
} from './stand';
import { BARRE_SIZE } from './terms';
import { CROWDED_FAR_APART, FAR_APART, INDEX_OPENS, UNBARRED, WITHOUT_INDEX } from './shares';
import { isTaught } from './taughtShapes';

/** By finger 1 to 4 at 0 to 3; null for a finger that is free. */
type Shape = readonly (Stand | null)[];

const SHAPES = 25 << 6;

/** A shape is paid as something is stopped in it: an open string changes nothing about it. */
export const standingRule = (fresh: Fresh): OwnRule => ({
  id: 'standing',
  code: (hand) =>
    hand.down !== 0 && stopsSomething(hand, fresh.of(hand)) ? 2 * codeOf(hand) + Number(couldBar(hand)) : 0,
  charge: (code, bill) => chargeStanding(shapeOf(Math.floor(code / 2)), code % 2 === 1, bill),
});

/** @param placed numbers of the notes that are placed */
function stopsSomething(hand: Hand, placed: readonly number[]): boolean {
  for (const k of placed) {
    const place = hand.placeOfStruck(k);
    if (place !== NO_PLACE && FINGER_OF[place]! > 0) return true;
  }
  return false;
}

function codeOf(hand: Hand): number {
  let code = 0;
  for (let finger = 1; finger <= 4; finger++) code = code * SHAPES + shapeOfStand(hand.standUnder(finger));
  return code;
}

/** So far apart two notes on one fret are a barre's. */
const ACROSS = 4;

/**
 * Tips on one fret where finger 1 would lie across them at ease: three, two of them side by side and one far from them
 * (F as 1 2 3, with 4 for a), or two far apart while all four fingers are needed (B minor as 1 4 3 2). Not where finger 1
 * lies elsewhere, or an open string sounds between. Source: handbook 13, "Shapes"; common practice.
 */
function couldBar(hand: Hand): boolean {
  const tips = fingersDown(hand).map((finger) => hand.standUnder(finger));
  if (tips.length < 3 || tips.some(isBarre)) return false;
  const fret = fretOfStand(tips[0]!);
  const level = tips.filter((tip) => fretOfStand(tip) === fret).map(stringOfStand);
  const [first, last] = [Math.min(...level), Math.max(...level)];
  const haveNeighbours = level.some((string) => level.includes(string + 1));
  const areThree = level.length >= 3 && last - first > 2 && haveNeighbours;
  const areTwo = level.length === 2 && last - first >= ACROSS && tips.length === 4;
  return (areThree || areTwo) && !isOpenBetween(hand, first, last);
}

const fingersDown = ({ down }: Hand): readonly number[] =>
  [1, 2, 3, 4].filter((finger) => (down & (1 << (finger - 1))) !== 0);

function isOpenBetween(hand: Hand, first: number, last: number): boolean {
  for (let column = 0; column < hand.columns; column++) {
    const place = hand.placeOn(column);
    if (place === NO_PLACE || FINGER_OF[place] !== 0) continue;
    if (STRING_OF[place]! > first && STRING_OF[place]! < last) return true;
  }
  return false;
}

function shapeOf(code: number): Shape {
  const shape: (Stand | null)[] = [];
  for (let rest = code, k = 3; k >= 0; k--, rest = Math.floor(rest / SHAPES)) {
    const one = rest % SHAPES;
    // Which of its notes comes first is nothing to the shape.
    shape[k] = one === 0 ? null : maybeStandAt(((one >> 6) << 9) | (one & 63));
  }
  return shape;
}

function chargeStanding(shape: Shape, unbarred: boolean, bill: Bill): void {
  for (let low = 1; low <= 3; low++) {
    for (let high = low + 1; high <= 4; high++) {
      const [a, b] = [shape[low - 1]!, shape[high - 1]!];
      if (a && b) chargeTwoFingers(pairOf(low, high), a, b, bill);
    }
  }
  if (!isTaught(shape)) {
    chargeSpread(shape, bill);
    if (unbarred) bill.charge('contraction', UNBARRED);
  }
  if (leavesIndexOut(shape)) bill.charge('contraction', WITHOUT_INDEX);
  for (const stand of shape)
    if (stand && stand.strings.length > 1) bill.charge('barreHold', BARRE_SIZE[stringsUnder(stand)]!);
  const [index, ...others] = shape;
  // Beside a barre, on its own fret, there is no room: it would have been laid further.
  if (index && index.strings.length > 1 && others.some((stand) => stand?.fret === index.fret))
    bill.charge('order', 1);
}

/** 2 3 4 side by side on one fret and on neighbouring strings, where 1 2 3 would do: A major. Source: handbook 13, "Shapes". */
function leavesIndexOut([index, second, third, fourth]: Shape): boolean {
  if (index || !second || !third || !fourth) return false;
  const areLevel = second.fret === third.fret && third.fret === fourth.fret;
  return areLevel && Math.abs(second.lastString - fourth.lastString) === 2;
}

/** @param pair the fingers, the lower-numbered one at `a` */
function chargeTwoFingers(pair: FingerPair, a: Stand, b: Stand, bill: Bill) {
  const { fretboard, hand } = bill.setting;
  let nearestMm = Infinity;
  for (const one of a.strings) {
    for (const other of b.strings) {
      const mm = fingerDistanceMm({ ...a, string: one }, { ...b, string: other }, fretboard);
      nearestMm = Math.min(nearestMm, mm);
    }
  }
  const reach = hand.reach[pair];
  const beyondMm = Math.max(0, nearestMm - reach.atEaseMm);
  bill.charge('stretch', beyondMm / (reach.atMostMm - reach.atEaseMm));
  const crossed = a.fret === b.fret && b.lastString > a.lastString;
  bill.charge('order', crossed ? 1 : 0);
}

/** Four fingers side by side on one fret are crowded by so many frets more: nearly forbidden. Source: handbook 13. */
const FOUR_ABREAST = 5;

/** Fingers far apart across the strings lie askew and have room on one fret: what is felt of their crowding. */
function crowdedShare(a: Stand, b: Stand): number {
  const apart = Math.max(a.firstString - b.lastString, b.firstString - a.lastString);
  return apart >= FAR_APART ? CROWDED_FAR_APART : 1;
}

/** How neighbours among the fingers that are down differ from a fret for each finger: squeezed together or spread. */
function chargeSpread(shape: Shape, bill: Bill): void {
  let last = -1;
  for (let k = 0; k < 4; k++) {
    if (!shape[k]) continue;
    if (last >= 0) {
      const more = shape[k]!.fret - shape[last]!.fret - (k - last);
      if (more < 0) bill.charge('contraction', -more * crowdedShare(shape[last]!, shape[k]!));
      if (more > 0) bill.charge('extension', more * (last === 0 ? INDEX_OPENS : 1));
    }
    last = k;
  }
  const [index] = shape;
  if (shape.every((stand) => stand !== null && stand.fret === index!.fret))
    bill.charge('contraction', FOUR_ABREAST);
}
