/** What strokes cost: by themselves, and after the strokes before. */
import { movementMs, type HandProfile } from '../../instrument/handProfile';
import { type RightFinger, RIGHT_FINGERS, type RightPair } from '../../instrument/rightProfile';
import { isPick, type Pluck } from '../../score/model';
import { price } from '../costTerm';
import {
  type FingersMemory,
  type FingersPart,
  type PickMemory,
  PLACE_PARTS,
  RANK,
  type RightMemory,
  type Sharing,
  type ThumbMemory,
  type ThumbPart,
} from './memory';
import type { Role } from '../problem';
import { EFFECTS } from './effects';
import type { Manner } from './setting';
import type { StrokeGroup } from './strokes';
import {
  BLOCK_REPEAT_SHARE,
  BUSY_LEAP_FRETS,
  FIND_AGAIN_MS,
  HOME_PLACE,
  OWN_SPREAD_STRINGS,
  REPEAT_FREE_MS,
  RIGHT_TERMS,
  type RightTermId,
  SLIDE_REPEAT_SHARE,
  STRING_GAP_AT_SOUNDHOLE_MM,
  THUMB_REPEAT_FREE_MS,
  THUMB_SLIDE_SHARE,
} from './terms';

export type RightLedger = (term: RightTermId, cost: number) => void;

/** Adds up what is charged, in whole tenths of a point. */
class Bill {
  sum = 0;
  constructor(
    private readonly manner: Manner,
    private readonly ledger: RightLedger | undefined,
  ) {}
  charge(term: RightTermId, value: number, share = 1): void {
    const cost = Math.round(share * price(RIGHT_TERMS[term], value, this.manner.weights[term]));
    if (cost === 0) return;
    this.sum += cost;
    this.ledger?.(term, cost);
  }
}

/** Effort of playing a group with these letters, whatever came before. */
export function groupCost(group: StrokeGroup, { letters, fingers }: Sharing, ledger?: RightLedger): number {
  const bill = new Bill(group.manner, ledger);
  const { strokes, manner, onBeat, effect } = group;
  const strummed = effect !== null && EFFECTS[effect].letters !== null;
  letters.forEach((letter, k) => {
    const { string, role, printed, wanted } = strokes[k]!;
    if (printed !== null && printed !== letter) bill.charge('printed', 1);
    if (wanted !== null && wanted !== letter) bill.charge('wanted', 1);
    if (letter === 'p') {
      bill.charge('thumbString', string);
      if (role === 'melody') bill.charge('thumbMelody', 1);
      if (letters[k - 1] === 'p' && !strummed) bill.charge('brush', strokes[k - 1]!.string - string);
    } else if (RANK[letter] <= RANK.c) {
      if (role === 'bass') bill.charge('fingerBass', 1);
      if (letter === 'a' && !strummed) bill.charge('ring', 1);
      if (letter === 'c') bill.charge('little', 1);
    }
    if (strokes.length === 1 && inLine(role, letter)) {
      const { pair, order } = manner.school;
      if (pair && !isOf(pair, letter)) bill.charge('offPair', 1);
      if (order && !isOf(order, letter)) bill.charge('offOrder', 1);
    }
    if (!isPick(letter)) bill.charge('station', awayFromStation(letter, string));
  });
  if (isPick(letters[0] ?? null)) {
    if ((letters[0] === 'down') !== onBeat) bill.charge('pickOffBeat', 1);
    bill.charge('pickGap', strokes[0]!.string - strokes.at(-1)!.string - (strokes.length - 1));
  }
  // A rasgueado goes out on a beat and back beside it, as a plectrum does.
  if (effect === 'rasgueado' && (letters[0] !== 'i') !== onBeat) bill.charge('pickOffBeat', 1);
  if (fingers && !strummed) {
    bill.charge('home', Math.abs(fingers.place / PLACE_PARTS - HOME_PLACE));
    bill.charge('spread', spreadStrings(letters, strokes));
  }
  return bill.sum;
}

/** Schools say how a line is played; the bass is the thumb's in all of them. */
const inLine = (role: Role, letter: Pluck) => role !== 'bass' || letter !== 'p';

const isOf = (pair: readonly RightFinger[], letter: Pluck) => (pair as readonly Pluck[]).includes(letter);

/** i on 3, m on 2, a on 1, p on the basses; c beside a. In strings. */
function awayFromStation(letter: Pluck, string: number): number {
  if (letter === 'p') return Math.max(0, 4 - string);
  return Math.abs(string - Math.max(1, HOME_PLACE - RANK[letter]));
}

/** Neighbours among the fingers of a chord have a string each; more or less is a spread or a squeeze. */
function spreadStrings(letters: readonly Pluck[], strokes: StrokeGroup['strokes']): number {
  let sum = 0;
  letters.forEach((letter, k) => {
    const next = letters[k + 1];
    if (letter === 'p' || next === undefined) return;
    sum += Math.abs(strokes[k]!.string - strokes[k + 1]!.string - (RANK[next] - RANK[letter]));
  });
  return sum;
}

/**
 * Effort of coming to a group from what the hand remembers: that of the fingers, that of the thumb, and more of it
 * where the left hand is busy. Each part depends on its own memory alone.
 * @param before as old as the group's moment
 * @param fretBefore lowest stopped fret of the moment before, null when all was open
 */
export function strokeTransitionCost(
  { fingers, thumb }: RightMemory,
  fretBefore: number | null,
  group: StrokeGroup,
  sharing: Sharing,
  hand: HandProfile,
  ledger?: RightLedger,
): number {
  const awkward =
    fingersPartCost(fingers, group, sharing, hand, ledger) +
    thumbPartCost(thumb, group, sharing, hand, ledger);
  return awkward + busyCost(awkward, fretBefore, group, ledger);
}

export function fingersPartCost(
  before: FingersPart,
  group: StrokeGroup,
  { fingers, letters, pick, away }: Sharing,
  hand: HandProfile,
  ledger?: RightLedger,
): number {
  if (letters.length === 0 || pick || away) return 0;
  const bill = new Bill(group.manner, ledger);
  if (fingers) fingersCost(before, fingers, group, hand, bill);
  // p after a finger: the quickest pairs of all, and yet not without end.
  if (letters.length === 1 && letters[0] === 'p' && before.last) {
    bill.charge('pairHaste', handTimes(hand).withThumb[before.last.bits]! / Math.max(1, before.last.ageMs));
  }
  return bill.sum;
}

export function thumbPartCost(
  before: ThumbPart,
  group: StrokeGroup,
  sharing: Sharing,
  hand: HandProfile,
  ledger?: RightLedger,
): number {
  const { letters, thumb, pick, away } = sharing;
  if (letters.length === 0 || away) return 0;
  const bill = new Bill(group.manner, ledger);
  if (pick) pickCost(before.pick, pick, group, hand, bill);
  else if (thumb) thumbCost(before.thumb, group, hand, bill);
  else if (letters.length === 1 && before.thumb) {
    const neededMs = hand.right.pairMs[pairOf('p', letters[0] as RightFinger)];
    bill.charge('pairHaste', neededMs / Math.max(1, before.thumb.ageMs));
  }
  return bill.sum;
}

/** @param awkward what the way to the group costs already, in tenths of a point as the term counts it */
export function busyCost(
  awkward: number,
  fretBefore: number | null,
  group: StrokeGroup,
  ledger?: RightLedger,
): number {
  const cost = busyPrice(awkward, busyShare(fretBefore, group), group.manner);
  if (cost !== 0) ledger?.('busy', cost);
  return cost;
}

/** @param share how busy the left hand is, from 0 to 1 */
export const busyPrice = (awkward: number, share: number, { weights }: Manner): number =>
  price(RIGHT_TERMS.busy, awkward * share, weights.busy);

/** How busy the left hand is with a moment: leaping, or stopping several notes at once. From 0 to 1. */
export function busyShare(fretBefore: number | null, { fret, stopped }: StrokeGroup): number {
  const leap = fret !== null && fretBefore !== null && Math.abs(fret - fretBefore) > BUSY_LEAP_FRETS ? 1 : 0;
  return Math.max(leap, stopped >= 3 ? 1 : stopped === 2 ? 0.5 : 0);
}

/** The fingers' last stroke, also across strokes of p that lie between. Source: handbook, "Crossing". */
function fingersCost(
  before: FingersPart,
  now: FingersMemory,
  { manner, onBeat, opens }: StrokeGroup,
  hand: HandProfile,
  bill: Bill,
): void {
  const { last, earlier, awayMs } = before;
  if (awayMs !== null) bill.charge('findAgain', FIND_AGAIN_MS / Math.max(1, awayMs));
  const { startFinger } = manner.style;
  if (opens && startFinger !== null && startFinger !== 'p' && lowestFinger(now.bits) !== startFinger)
    bill.charge('wanted', 1);
  if (last) {
    const passedMs = Math.max(1, last.ageMs);
    const strings = displacementStrings(last.place / PLACE_PARTS, now.place / PLACE_PARTS);
    const swayed = Math.abs(now.place - last.place) / PLACE_PARTS - strings;
    if (swayed > 0 && (now.string === 0 || now.string !== last.string)) bill.charge('sway', swayed);
    if (strings > 0) {
      bill.charge('displacement', strings);
      bill.charge('displacementHaste', movementMs(strings * STRING_GAP_AT_SOUNDHOLE_MM, hand) / passedMs);
      if (!onBeat) bill.charge('setMove', strings);
    }
    repeatCost(last, now, passedMs, hand, bill);
    if (isOne(now.bits) && isOne(last.bits)) {
      orderCost(last, now, manner, bill);
      const third = earlier && isOne(earlier.bits) && earlier.bits !== now.bits && last.bits !== now.bits;
      if (third && last.string === now.string) bill.charge('habit', 1);
    }
  }
  const again = earlier ? earlier.bits & now.bits : 0;
  if (again) bill.charge('strokeHaste', slowestStroke(again, hand) / Math.max(1, earlier!.ageMs));
}

function repeatCost(
  last: FingersMemory,
  now: FingersMemory,
  passedMs: number,
  hand: HandProfile,
  bill: Bill,
): void {
  const again = last.bits & now.bits;
  if (again) {
    const block = last.bits === now.bits && !isOne(again);
    const slides = last.string > 0 && now.string === last.string + 1;
    const share = block ? BLOCK_REPEAT_SHARE : slides ? SLIDE_REPEAT_SHARE : 1;
    bill.charge('repeat', 1 - passedMs / REPEAT_FREE_MS, share);
    bill.charge('strokeHaste', slowestStroke(again, hand) / passedMs);
  } else {
    const neededMs = slowestPair(last.bits, now.bits, hand);
    if (neededMs > 0) bill.charge('pairHaste', neededMs / passedMs);
  }
}

/** The next of a school's order comes after the last; in a strict school after the one of the pair the other. */
function orderCost(last: FingersMemory, now: FingersMemory, { school }: Manner, bill: Bill): void {
  const { order } = school;
  if (!order) return;
  const at = order.indexOf(fingerOf(last.bits));
  if (at >= 0 && order[(at + 1) % order.length] !== fingerOf(now.bits)) bill.charge('offOrder', 1);
}

/** How far the set of fingers is moved between two places, beyond its own spread; in strings. */
export function displacementStrings(fromPlace: number, toPlace: number): number {
  return Math.max(0, Math.abs(toPlace - fromPlace) - OWN_SPREAD_STRINGS);
}

const isOne = (bits: number) => bits !== 0 && (bits & (bits - 1)) === 0;
const fingerOf = (bits: number): RightFinger => RIGHT_FINGERS[1 + Math.log2(bits)]!;
const lowestFinger = (bits: number): RightFinger => fingerOf(bits & -bits);
const fingersOf = (bits: number): readonly RightFinger[] =>
  RIGHT_FINGERS.filter((_finger, k) => k > 0 && bits & (1 << (k - 1)));

/** Times of a hand by the bits of the fingers: asked for so often that they stand ready. */
interface HandTimes {
  readonly stroke: Float64Array;
  readonly pair: Float64Array;
  readonly withThumb: Float64Array;
}
const FINGER_SETS = 16;
const timesOf = new WeakMap<HandProfile, HandTimes>();

function handTimes(hand: HandProfile): HandTimes {
  let times = timesOf.get(hand);
  if (!times) timesOf.set(hand, (times = makeTimes(hand)));
  return times;
}

function makeTimes({ right }: HandProfile): HandTimes {
  const sets = Array.from({ length: FINGER_SETS }, (_, bits) => fingersOf(bits));
  const most = (times: readonly number[]) => Math.max(0, ...times);
  return {
    stroke: Float64Array.from(sets, (fingers) => most(fingers.map((finger) => right.strokeMs[finger]))),
    withThumb: Float64Array.from(sets, (fingers) =>
      most(fingers.map((finger) => right.pairMs[pairOf('p', finger)])),
    ),
    pair: Float64Array.from({ length: FINGER_SETS * FINGER_SETS }, (_, both) => {
      const [a, b] = [sets[both >> 4]!, sets[both & 15]!];
      const pairs = a.flatMap((one) => b.filter((other) => other !== one).map((other) => pairOf(one, other)));
      return most(pairs.map((pair) => right.pairMs[pair]));
    }),
  };
}

const slowestStroke = (bits: number, hand: HandProfile): number => handTimes(hand).stroke[bits]!;
const slowestPair = (a: number, b: number, hand: HandProfile): number =>
  handTimes(hand).pair[a * FINGER_SETS + b]!;

const pairOf = (a: RightFinger, b: RightFinger) =>
  (RIGHT_FINGERS.indexOf(a) < RIGHT_FINGERS.indexOf(b) ? `${a}${b}` : `${b}${a}`) as RightPair;

function thumbCost(last: ThumbMemory | null, { strokes }: StrokeGroup, hand: HandProfile, bill: Bill): void {
  if (!last) return;
  const passedMs = Math.max(1, last.ageMs);
  const lowest = strokes[0]!.string;
  const slides = lowest === last.string - 1;
  bill.charge('thumbRepeat', 1 - passedMs / THUMB_REPEAT_FREE_MS, slides ? THUMB_SLIDE_SHARE : 1);
  if (!slides) bill.charge('strokeHaste', hand.right.strokeMs.p / passedMs);
  const leap = Math.abs(lowest - last.string);
  if (leap > 1) {
    bill.charge('thumbLeap', leap);
    bill.charge('thumbLeapHaste', movementMs((leap - 1) * STRING_GAP_AT_SOUNDHOLE_MM, hand) / passedMs);
  }
}

/** Towards the floor down, back up; neighbours by one sweep. Source: handbook, "Plectrum". */
function pickCost(
  last: PickMemory | null,
  now: PickMemory,
  { strokes }: StrokeGroup,
  { right }: HandProfile,
  bill: Bill,
): void {
  if (!last) return;
  const passedMs = Math.max(1, last.ageMs);
  // A sweep begins on the lowest-pitched string when it goes down, on the highest-pitched one when it goes up.
  const first = strokes.at(now.down ? 0 : -1)!.string;
  const onward = now.down ? last.string - first : first - last.string;
  const skipped = Math.max(0, Math.abs(last.string - first) - 1);
  if (now.down === last.down) {
    if (onward !== 1) bill.charge('sweepBack', 1);
    if (onward !== 1) bill.charge('pickSkipHaste', right.plectrumAgainMs / passedMs);
  } else {
    // Turning round between two strings is easy outside of them, and a way back inside.
    const inside = now.down ? first > last.string : first < last.string;
    bill.charge('pickSkip', inside && last.string !== first ? 1 : 0);
    bill.charge('pickSkipHaste', right.plectrumMs / passedMs);
  }
  bill.charge('pickSkip', skipped);
}
