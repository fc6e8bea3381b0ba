/** What strokes cost: by themselves, and after the strokes before. */
import { movementMs } from '../../instrument/handProfile';
import type { HandProfile } from '../../instrument/handProfile';
import type { Pluck } from '../../score/model';
import { price } from '../costTerm';
import { fingersIn, type StrokeState, thumbIn } from './strokeState';
import type { StrokeGroup } from './strokes';
import {
  BLOCK_REPEAT_SHARE,
  HOME_PLACE,
  LONGEST_MEMORY_MS,
  OWN_SPREAD_STRINGS,
  REPEAT_FREE_MS,
  RIGHT_TERMS,
  type RightTermId,
  STRING_GAP_AT_SOUNDHOLE_MM,
  THUMB_REPEAT_FREE_MS,
} from './terms';

export type RightLedger = (term: RightTermId, cost: number) => void;

/** Effort in tenths of a point of playing a group with these letters, whatever came before. */
export function groupCost(group: StrokeGroup, letters: readonly Pluck[], ledger?: RightLedger): number {
  let sum = 0;
  const charge = (term: RightTermId, value: number) => {
    const cost = price(RIGHT_TERMS[term], value);
    sum += cost;
    if (cost) ledger?.(term, cost);
  };
  letters.forEach((letter, k) => {
    const { string, role, printed } = group.strokes[k]!;
    if (printed !== null && printed !== letter) charge('printed', 1);
    if (letter === 'p') {
      charge('thumbString', string);
      if (role === 'melody') charge('thumbMelody', 1);
      if (letters[k - 1] === 'p') charge('brush', group.strokes[k - 1]!.string - string);
    } else {
      if (role === 'bass') charge('fingerBass', 1);
      if (letter === 'a') charge('ring', 1);
    }
  });
  const set = fingersIn(group, letters);
  if (set) charge('home', Math.abs(set.place - HOME_PLACE));
  return sum;
}

/** Effort in tenths of a point of coming to a group from the state before it. */
export function strokeTransitionCost(
  before: StrokeState,
  group: StrokeGroup,
  letters: readonly Pluck[],
  hand: HandProfile,
  ledger?: RightLedger,
): number {
  let sum = 0;
  const pay = (term: RightTermId, cost: number) => {
    sum += cost;
    if (cost) ledger?.(term, cost);
  };
  payFingers(before, group, letters, hand, pay);
  payThumb(before, group, letters, hand, pay);
  return sum;
}

type Pay = (term: RightTermId, cost: number) => void;

/** The fingers' last stroke, also across strokes of p that lie between. Source: handbook, "Crossing". */
function payFingers(
  before: StrokeState,
  group: StrokeGroup,
  letters: readonly Pluck[],
  hand: HandProfile,
  pay: Pay,
) {
  const now = fingersIn(group, letters);
  const last = before.fingers;
  if (!now || !last || group.timeMs - last.timeMs >= LONGEST_MEMORY_MS) return;
  const passedMs = group.timeMs - last.timeMs;
  const strings = displacementStrings(last.place, now.place);
  if (strings > 0) {
    const neededMs = movementMs(strings * STRING_GAP_AT_SOUNDHOLE_MM, hand);
    pay('displacement', price(RIGHT_TERMS.displacement, strings));
    pay('displacementHaste', price(RIGHT_TERMS.displacementHaste, neededMs / passedMs));
  }
  const again = last.fingers & now.fingers;
  if (again) {
    const block = last.fingers === now.fingers && (again & (again - 1)) !== 0;
    const cost = price(RIGHT_TERMS.repeat, 1 - passedMs / REPEAT_FREE_MS);
    pay('repeat', Math.round(cost * (block ? BLOCK_REPEAT_SHARE : 1)));
  }
}

/** How far the set of fingers is moved between two places, beyond its own spread; in strings. */
export function displacementStrings(fromPlace: number, toPlace: number): number {
  return Math.max(0, Math.abs(toPlace - fromPlace) - OWN_SPREAD_STRINGS);
}

function payThumb(
  before: StrokeState,
  group: StrokeGroup,
  letters: readonly Pluck[],
  hand: HandProfile,
  pay: Pay,
) {
  const now = thumbIn(group, letters);
  const last = before.thumb;
  if (!now || !last || group.timeMs - last.timeMs >= LONGEST_MEMORY_MS) return;
  const passedMs = group.timeMs - last.timeMs;
  const firstString = group.strokes[0]!.string;
  const leap = Math.abs(firstString - last.string);
  pay('thumbRepeat', price(RIGHT_TERMS.thumbRepeat, 1 - passedMs / THUMB_REPEAT_FREE_MS));
  if (leap > 1) {
    const neededMs = movementMs((leap - 1) * STRING_GAP_AT_SOUNDHOLE_MM, hand);
    pay('thumbLeap', price(RIGHT_TERMS.thumbLeap, leap));
    pay('thumbLeapHaste', price(RIGHT_TERMS.thumbLeapHaste, neededMs / passedMs));
  }
}
