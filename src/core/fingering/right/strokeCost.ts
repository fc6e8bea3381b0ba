/** What strokes cost: by themselves, and after the strokes before. */
import { movementMs } from '../../instrument/handProfile';
import type { HandProfile } from '../../instrument/handProfile';
import { price } from '../costTerm';
import { type Sharing, SIXTHS, type StrokeState } from './strokeState';
import type { StrokeGroup } from './strokes';
import {
  BLOCK_REPEAT_SHARE,
  HOME_PLACE,
  LONGEST_FINGERS_MEMORY_MS,
  LONGEST_THUMB_MEMORY_MS,
  OWN_SPREAD_STRINGS,
  REPEAT_FREE_MS,
  RIGHT_TERMS,
  type RightTermId,
  STRING_GAP_AT_SOUNDHOLE_MM,
  THUMB_REPEAT_FREE_MS,
} from './terms';

export type RightLedger = (term: RightTermId, cost: number) => void;

/** Effort in tenths of a point of playing a group with these letters, whatever came before. */
export function groupCost(group: StrokeGroup, { letters, fingers }: Sharing, ledger?: RightLedger): number {
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
  if (fingers) charge('home', Math.abs(fingers.placeSixths / SIXTHS - HOME_PLACE));
  return sum;
}

/** Effort in tenths of a point of coming to a group from the state before it. */
export function strokeTransitionCost(
  before: StrokeState,
  group: StrokeGroup,
  sharing: Sharing,
  hand: HandProfile,
  ledger?: RightLedger,
): number {
  return fingersCost(before, sharing, hand, ledger) + thumbCost(before, group, sharing, hand, ledger);
}

function paid(term: RightTermId, cost: number, ledger: RightLedger | undefined): number {
  if (ledger && cost !== 0) ledger(term, cost);
  return cost;
}

/** The fingers' last stroke, also across strokes of p that lie between. Source: handbook, "Crossing". */
function fingersCost(
  before: StrokeState,
  { fingers: now }: Sharing,
  hand: HandProfile,
  ledger?: RightLedger,
): number {
  const last = before.fingers;
  if (!now || !last || now.timeMs - last.timeMs >= LONGEST_FINGERS_MEMORY_MS) return 0;
  const passedMs = now.timeMs - last.timeMs;
  let sum = 0;
  const strings = displacementStrings(last.placeSixths / SIXTHS, now.placeSixths / SIXTHS);
  if (strings > 0) {
    const neededMs = movementMs(strings * STRING_GAP_AT_SOUNDHOLE_MM, hand);
    sum += paid('displacement', price(RIGHT_TERMS.displacement, strings), ledger);
    sum += paid('displacementHaste', price(RIGHT_TERMS.displacementHaste, neededMs / passedMs), ledger);
  }
  const again = last.fingers & now.fingers;
  if (again) {
    const block = last.fingers === now.fingers && (again & (again - 1)) !== 0;
    const cost = price(RIGHT_TERMS.repeat, 1 - passedMs / REPEAT_FREE_MS);
    sum += paid('repeat', Math.round(cost * (block ? BLOCK_REPEAT_SHARE : 1)), ledger);
  }
  return sum;
}

/** How far the set of fingers is moved between two places, beyond its own spread; in strings. */
export function displacementStrings(fromPlace: number, toPlace: number): number {
  return Math.max(0, Math.abs(toPlace - fromPlace) - OWN_SPREAD_STRINGS);
}

function thumbCost(
  before: StrokeState,
  group: StrokeGroup,
  { thumb: now }: Sharing,
  hand: HandProfile,
  ledger?: RightLedger,
): number {
  const last = before.thumb;
  if (!now || !last || now.timeMs - last.timeMs >= LONGEST_THUMB_MEMORY_MS) return 0;
  const passedMs = now.timeMs - last.timeMs;
  let sum = paid('thumbRepeat', price(RIGHT_TERMS.thumbRepeat, 1 - passedMs / THUMB_REPEAT_FREE_MS), ledger);
  const leap = Math.abs(group.strokes[0]!.string - last.string);
  if (leap > 1) {
    const neededMs = movementMs((leap - 1) * STRING_GAP_AT_SOUNDHOLE_MM, hand);
    sum += paid('thumbLeap', price(RIGHT_TERMS.thumbLeap, leap), ledger);
    sum += paid('thumbLeapHaste', price(RIGHT_TERMS.thumbLeapHaste, neededMs / passedMs), ledger);
  }
  return sum;
}
