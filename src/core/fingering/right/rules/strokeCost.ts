/** What strokes cost: by themselves, and after the strokes before. */
import { isWound } from '../../left/rules/place';
import { movementMs, type HandProfile } from '../../../instrument/handProfile';
import { RIGHT_FINGERS } from '../../../instrument/rightProfile';
import { isPick, type Pluck } from '../../../score/model';
import { price } from '../../rules/costTerm';
import { EFFECTS } from './effects';
import {
  type FingersPart,
  type PickMemory,
  RANK,
  type RightMemory,
  type Sharing,
  type ThumbPart,
} from './memory';
import type { Manner } from './setting';
import { isAbove, stationed, withoutThoseBelow } from './stations';
import { MOST_FINGERED, type Stroke, type StrokeGroup } from './strokes';
import {
  BLOCK_FREE_MS,
  HOME_PLACE,
  OWN_SPREAD_STRINGS,
  PAUSE_MS,
  REPEAT_FREE_MS,
  RIGHT_TERMS,
  type RightTermId,
  STRICT_MS,
  STRING_GAP_AT_SOUNDHOLE_MM,
  THUMB_FREE_MS,
} from './terms';
import { CYCLES, TURNS } from './turns';

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

/** In the quick notes of a slow tune a costs so many times as much. From memory. */
const QUICK_RING = 4;
const RING_BIT = 1 << RANK.a;

const isStrummed = ({ effect }: StrokeGroup) => effect !== null && EFFECTS[effect].letters !== null;

/** Effort of playing a group in this way, whatever came before. */
export function groupCost(group: StrokeGroup, sharing: Sharing, ledger?: RightLedger): number {
  const bill = new Bill(group.manner, ledger);
  sharing.letters.forEach((_letter, k) => letterCost(group, sharing, k, bill));
  const { everywhere } = group.manner.school;
  const single = group.strokes.length === 1 ? group.strokes[0]! : null;
  if (single && everywhere && single.hand !== 'thumb' && sharing.mode.kind !== 'turn')
    bill.charge('offPair', 1);
  // The repeated notes of a tremolo are a cycle, or they are none.
  if (single?.phase && group.texture === 'tremolo' && sharing.mode.kind !== 'cycle' && !everywhere)
    bill.charge('cycleChange', 1);
  chordCost(group, sharing, bill);
  beatCost(group, sharing, bill);
  if (sharing.fingers) placeCost(group, sharing, sharing.fingers, bill);
  return bill.sum;
}

/** One of the letters on its string. */
function letterCost(group: StrokeGroup, { letters, mode }: Sharing, k: number, bill: Bill): void {
  const { strokes } = group;
  const [stroke, letter] = [strokes[k]!, letters[k]!];
  const { string, printed, wanted } = stroke;
  if (printed !== null && printed !== letter) bill.charge('printed', 1);
  if (wanted !== null && wanted !== letter) bill.charge('wanted', 1);
  if (letter === 'p') {
    if (!isStrummed(group)) {
      thumbOwn(stroke, group, mode.kind === 'thumb', bill);
      if (letters[k - 1] === 'p') bill.charge('brush', strokes[k - 1]!.string - string);
    }
  } else if (RANK[letter] <= RANK.c) fingerCost(stroke, group, letter, mode, bill);
  if (!isPick(letter)) bill.charge('station', awayFromStation(letter, string));
}

function fingerCost(
  { hand, string }: Stroke,
  group: StrokeGroup,
  letter: Pluck,
  { kind }: Sharing['mode'],
  bill: Bill,
): void {
  const strummed = isStrummed(group);
  if (hand === 'thumb') bill.charge('fingerBass', 1);
  else if (!strummed && kind === 'stations')
    bill.charge(group.texture === 'brokenChord' ? 'brokenLow' : 'fingerLow', string);
  if (letter === 'a' && kind !== 'turn' && kind !== 'cycle' && !strummed) bill.charge('ring', 1);
  if (letter === 'c') bill.charge('little', 1);
}

function chordCost({ strokes, effect, landing }: StrokeGroup, { letters, fingers }: Sharing, bill: Bill) {
  const thumbs = letters.filter((letter) => letter === 'p').length;
  if (thumbs > 1 && letters.length <= MOST_FINGERED && effect === null && !isMarked(strokes))
    bill.charge('twoThumbs', thumbs - 1);
  if (fingers && landing > 0) bill.charge('findAgain', landing);
}

/** A plectrum goes down on a beat; a rasgueado goes out on it and back beside it. */
function beatCost({ strokes, effect, onBeat }: StrokeGroup, { letters }: Sharing, bill: Bill): void {
  if (isPick(letters[0] ?? null)) {
    if ((letters[0] === 'down') !== onBeat) bill.charge('pickOffBeat', 1);
    bill.charge('pickGap', strokes[0]!.string - strokes.at(-1)!.string - (strokes.length - 1));
  }
  if (effect === 'rasgueado' && (letters[0] !== 'i') !== onBeat) bill.charge('pickOffBeat', 1);
}

/** Where the set of fingers stands. */
function placeCost(
  group: StrokeGroup,
  { letters, mode }: Sharing,
  fingers: NonNullable<Sharing['fingers']>,
  bill: Bill,
): void {
  const awayFromHome = () => Math.abs(placeOfSet(fingers) - HOME_PLACE);
  if (!isStrummed(group) && mode.kind === 'stations') {
    bill.charge('home', awayFromHome());
    bill.charge('spread', spreadStrings(letters, group.strokes));
  }
  // A slow tune has time for the finger that hangs over its string.
  if (group.texture === 'slowMelody' && mode.kind === 'free') {
    if (group.paceMs < STRICT_MS && (fingers.bits & RING_BIT) !== 0) bill.charge('ring', 1, QUICK_RING);
    else if (group.overChord) bill.charge('home', awayFromHome(), 2);
  }
  if (group.strokes[0]!.hand === 'either' && (mode.kind === 'turn' || mode.kind === 'free')) {
    // i and m go down to the bass strings for runs; what is slow belongs to p there.
    const slow = Math.min(1, (group.paceMs - THUMB_FREE_MS) / THUMB_FREE_MS);
    for (const string of fingers.strings)
      if (isWound(string)) bill.charge('slowLow', slow * SLOW_LOW[string]!);
  }
}

/** By string: a finger there in a line of 440 ms a note and slower, in tenths of a point. */
const SLOW_LOW = [0, 0, 0, 0, 4, 8, 8] as const;

const isMarked = (strokes: readonly Stroke[]) =>
  strokes.filter(({ printed, wanted }) => printed === 'p' || wanted === 'p').length > 1;

function thumbOwn(
  { hand, string, phase }: Stroke,
  { texture, strokes }: StrokeGroup,
  isRun: boolean,
  bill: Bill,
): void {
  // In a tremolo p plays everything but the repeated notes, on any string.
  if (texture === 'tremolo' && strokes.length === 1 && !phase) return;
  if (hand === 'thumb' || (isRun && string > 3)) bill.charge('thumbBass', string);
  else if (hand === 'either') bill.charge('thumbEither', string);
  else bill.charge('thumbInner', string);
}

/** i on 3, m on 2, a on 1, p on the basses; c beside a. In strings. */
function awayFromStation(letter: Pluck, string: number): number {
  if (letter === 'p') return Math.max(0, 4 - string);
  return Math.abs(string - Math.max(1, HOME_PLACE - RANK[letter]));
}

/** Where the set stands: string number + rank, the mean over the fingers that play. */
export const placeOfSet = ({ strings, ranks }: NonNullable<Sharing['fingers']>): number =>
  strings.reduce((sum, string, k) => sum + string + ranks[k]!, 0) / strings.length;

/** Neighbours among the fingers of a chord have a string each; more or less is a spread or a squeeze. */
function spreadStrings(letters: readonly Pluck[], strokes: readonly Stroke[]): number {
  let sum = 0;
  letters.forEach((letter, k) => {
    const next = letters[k + 1];
    if (letter === 'p' || next === undefined) return;
    sum += Math.abs(strokes[k]!.string - strokes[k + 1]!.string - (RANK[next] - RANK[letter]));
  });
  return sum;
}

/** Effort of coming to a group from what the hand remembers: that of the fingers, and that of the thumb. */
export const strokeTransitionCost = (
  { fingers, thumb }: RightMemory,
  group: StrokeGroup,
  sharing: Sharing,
  hand: HandProfile,
  ledger?: RightLedger,
): number =>
  fingersPartCost(fingers, group, sharing, hand, ledger) + thumbPartCost(thumb, group, sharing, hand, ledger);

export function fingersPartCost(
  before: FingersPart,
  group: StrokeGroup,
  sharing: Sharing,
  _hand: HandProfile,
  ledger?: RightLedger,
): number {
  const { fingers, letters, mode, pick, away } = sharing;
  if (letters.length === 0 || pick || away || before.mode === 'any') return 0;
  const bill = new Bill(group.manner, ledger);
  if (mode.kind === 'thumb') thumbRunCost(before, group, bill);
  if (sharing.thumb && isAbove(before.map, sharing.thumb.string)) bill.charge('thumbAbove', 1);
  if (!fingers) return bill.sum;
  if (group.opens && isOtherStart(group, fingers.bits)) bill.charge('wanted', 1);
  changeCost(before, sharing, bill);
  switch (mode.kind) {
    case 'stations':
      stationsCost(before, group, sharing, bill);
      break;
    case 'turn':
      turnCost(before, group, sharing, bill);
      break;
    case 'cycle':
      if (before.mode === mode) break;
      bill.charge('cycleOrder', CYCLES[mode.cycle].rank);
      if (typeof before.mode !== 'string' && before.mode.kind === 'cycle') bill.charge('cycleChange', 1);
      break;
    case 'free':
      freeCost(before, group, sharing, bill);
      break;
    default:
  }
  return bill.sum;
}

/** Whether the teacher has chosen another finger to begin with. */
function isOtherStart({ manner }: StrokeGroup, bits: number): boolean {
  const { startFinger } = manner.style;
  return startFinger !== null && startFinger !== 'p' && RIGHT_FINGERS[1 + lowestRank(bits)] !== startFinger;
}

/** Another way to think. */
function changeCost(before: FingersPart, sharing: Sharing, bill: Bill): void {
  if (!isOtherKind(before, sharing)) return;
  bill.charge('modeChange', 1);
  if (typeof before.mode !== 'string' && before.mode.kind === 'thumb') bill.charge('thumbRun', 1);
}

const lowestRank = (bits: number) => Math.log2(bits & -bits);
const isOne = (bits: number) => bits !== 0 && (bits & (bits - 1)) === 0;

const isOtherKind = ({ mode }: FingersPart, now: Sharing): boolean =>
  typeof mode !== 'string' && mode.kind !== now.mode.kind;

/** Repeats: the same fingers once more with nothing between. */
function repeatCost(before: FingersPart, bits: number, { gapMs }: StrokeGroup, bill: Bill): void {
  if (before.since !== 'nothing' || (before.last & bits) === 0) return;
  if (!isOne(bits)) bill.charge('repeat', 1 - gapMs / BLOCK_FREE_MS, 0.5);
  else if (isOne(before.last)) bill.charge('repeat', 1 - gapMs / REPEAT_FREE_MS);
  else bill.charge('repeat', 1 - gapMs / BLOCK_FREE_MS, 0.25);
}

/** After a chord with a on top a tune goes on with m or i. Source: handbook 13. */
function ringAfterChord({ last, since }: FingersPart, bits: number, bill: Bill): void {
  if (since === 'nothing' && bits === RING_BIT && !isOne(last) && (last & RING_BIT) !== 0)
    bill.charge('repeatInTune', 1);
}

/** While p plays, or in a chord, the set moves as one; in the middle of a figure it disturbs most. */
const MOVED_AFTER_THUMB = 0.3;
const MOVED_WITH_THUMB = 0.35;
const MOVED_AS_BLOCK = 0.2;
/** A tune's note with one of the chord that is broken below it is no block: the set had better move at the border. */
const MOVED_WITH_TUNE = 0.25;

function stationsCost(
  before: FingersPart,
  group: StrokeGroup,
  { fingers, thumb }: Sharing,
  bill: Bill,
): void {
  const known =
    thumb && isAbove(before.map, thumb.string)
      ? { ...before, map: withoutThoseBelow(before.map, thumb.string) }
      : before;
  const { change, spread } = stationed(known, fingers!);
  repeatCost(before, fingers!.bits, group, bill);
  if (change === 'visit') bill.charge('visit', 1);
  if (change === 'moved') bill.charge('restation', movedShare(before, group, fingers!.bits));
  if (isOne(fingers!.bits)) bill.charge('spread', spread);
  if (typeof before.mode !== 'string' && before.mode.kind === 'free') otherStringCost(before, fingers!, bill);
}

function movedShare({ since }: FingersPart, { strokes, texture }: StrokeGroup, bits: number): number {
  if (!isOne(bits)) return texture === 'brokenChord' ? MOVED_WITH_TUNE : MOVED_AS_BLOCK;
  if (since !== 'nothing') return MOVED_AFTER_THUMB;
  return strokes.length > 1 ? MOVED_WITH_THUMB : 1;
}

/** A line: the next finger of the turn; the one that begins it pays for its crossings. */
function turnCost(before: FingersPart, group: StrokeGroup, { fingers, mode }: Sharing, bill: Bill): void {
  if (mode.kind !== 'turn') return;
  const letters: readonly Pluck[] = TURNS[mode.turn];
  const now = lowestRank(fingers!.bits);
  const same = before.mode === mode;
  if (
    mode.turn !== 'im' &&
    mode.turn !== group.manner.school.everywhere &&
    group.manner.school.line !== 'order' &&
    !same
  )
    bill.charge('turn', 1);
  if (same && isOne(before.last)) {
    const rankOf = (letter: Pluck) => RANK[letter];
    const at = letters.findIndex((letter) => rankOf(letter) === lowestRank(before.last));
    if (rankOf(letters[(at + 1) % letters.length]!) !== now)
      bill.charge('offTurn', 1, looseness(group.gapMs));
  } else repeatCost(before, fingers!.bits, group, bill);
  ringAfterChord(before, fingers!.bits, bill);
  crossingCost(before, fingers!, bill);
}

/** Strict below 350 ms a note; after a pause a line may begin with any finger. */
function looseness(gapMs: number): number {
  if (gapMs < STRICT_MS) return 1;
  return gapMs < PAUSE_MS ? 0.3 : 0.05;
}

function crossingCost(before: FingersPart, now: NonNullable<Sharing['fingers']>, bill: Bill): void {
  if (before.string === 0 || now.string === 0 || !isOne(before.last)) return;
  const moved = now.string + lowestRank(now.bits) - before.string - lowestRank(before.last);
  bill.charge('displacement', displacementStrings(0, moved));
}

function freeCost(before: FingersPart, group: StrokeGroup, { fingers }: Sharing, bill: Bill): void {
  repeatCost(before, fingers!.bits, group, bill);
  ringAfterChord(before, fingers!.bits, bill);
  const single = isOne(fingers!.bits) && isOne(before.last);
  if (single && before.last === fingers!.bits && group.texture === 'slowMelody')
    bill.charge('repeatInTune', 1);
  if (before.since !== 'slur') crossingCost(before, fingers!, bill);
  otherStringCost(before, fingers!, bill);
}

/** One finger on two strings one after the other, p between or not: the next one lies nearer. */
function otherStringCost(before: FingersPart, now: NonNullable<Sharing['fingers']>, bill: Bill): void {
  if (isOne(before.last) && before.last === now.bits && before.string !== now.string)
    bill.charge('displacement', 1);
}

function thumbRunCost(before: FingersPart, group: StrokeGroup, bill: Bill): void {
  const isRun = typeof before.mode !== 'string' && before.mode.kind === 'thumb';
  if (isRun) bill.charge('thumbHaste', 1 - group.gapMs / THUMB_FREE_MS);
  else bill.charge('thumbRun', before.mode === 'start' ? 0 : 1);
}

/** Coming down, a m i is followed by p p as a matter of course. Source: handbook 13. */
const DOUBLE_ON_THE_WAY_DOWN = 0.4;

export function thumbPartCost(
  before: ThumbPart,
  group: StrokeGroup,
  { letters, thumb, pick, away, mode }: Sharing,
  hand: HandProfile,
  ledger?: RightLedger,
): number {
  if (letters.length === 0 || away) return 0;
  const bill = new Bill(group.manner, ledger);
  if (pick) pickCost(before.pick, pick, group, hand, bill);
  else if (thumb && before.string > 0 && mode.kind !== 'thumb') {
    const inFigure = before.alone && letters.length === 1 && !(before.bass && thumb.bass);
    if (inFigure && group.texture !== 'tremolo')
      bill.charge('doubleThumb', 1, thumb.lowest > before.string ? DOUBLE_ON_THE_WAY_DOWN : 1);
    if (thumb.lowest !== before.string - 1) bill.charge('thumbAgain', 1 - group.gapMs / THUMB_FREE_MS);
  }
  return bill.sum;
}

/** How far the set of fingers is moved between two places, beyond its own spread; in strings. */
export function displacementStrings(fromPlace: number, toPlace: number): number {
  return Math.max(0, Math.abs(toPlace - fromPlace) - OWN_SPREAD_STRINGS);
}

/** What the move of the set needs, in ms. */
export const displacementMs = (strings: number, hand: HandProfile): number =>
  movementMs(strings * STRING_GAP_AT_SOUNDHOLE_MM, hand);

/** Towards the floor down, back up; neighbours by one sweep. Source: handbook, "Plectrum". */
function pickCost(
  last: PickMemory | null,
  now: PickMemory,
  { strokes, gapMs }: StrokeGroup,
  { right }: HandProfile,
  bill: Bill,
): void {
  if (!last) return;
  const passedMs = Math.max(1, gapMs);
  // A sweep begins on the lowest-pitched string when it goes down, on the highest-pitched one when it goes up.
  const first = strokes.at(now.down ? 0 : -1)!.string;
  const onward = now.down ? last.string - first : first - last.string;
  const skipped = Math.max(0, Math.abs(last.string - first) - 1);
  if (now.down === last.down) {
    if (onward === 1) bill.charge('sweep', 1);
    else {
      bill.charge('sweepBack', 1);
      bill.charge('pickSkipHaste', right.plectrumAgainMs / passedMs);
    }
  } else {
    // Turning round between two strings is easy outside of them, and a way back inside.
    const inside = now.down ? first > last.string : first < last.string;
    bill.charge('pickSkip', inside && last.string !== first ? 1 : 0);
    bill.charge('pickSkipHaste', right.plectrumMs / passedMs);
  }
  bill.charge('pickSkip', skipped);
}
