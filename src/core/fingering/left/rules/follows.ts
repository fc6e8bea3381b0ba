/** Whether there is a way from one state of the hand to the next, and what a freed hand remembers on it. */
import type { FingeringProblem, Moment } from '../../problem/problem';
import { freedTicks, type Hand, LONG_FREE } from './hand';
import { isSilent } from '../../problem/strike';
import { type HandMemory, handState, type HandState } from './handState';
import { FINGER_OF, type Placement, spotOf } from './place';
import { NO_ANCHOR } from './anchor';
import { lyingAfter } from './lyingBarre';
import { columnsOf, recordHand } from './recordHand';
import { NO_STAND, tipOf } from './stand';
import { type HandStep, stepTo } from './step';
import { LONGEST_WINDOW_MS } from './shares';

/** At most so many held notes are handed to another finger at once. From memory: it is rare at all. */
export const HAND_OVERS_AT_MOST = 1;

/**
 * Whether the hand can come from `from` to `to`: held strikes stay where they are, one of them perhaps under
 * another finger that was free, open strings are let go only when something comes to lie on them, the notes of a grip
 * stay together or are let go together, and memories agree.
 */
export function follows(problem: FingeringProblem, from: HandState, to: HandState, next: Moment): boolean {
  let handedOver = 0;
  for (const strike of next.held) {
    const slot = to.strikes.indexOf(strike);
    const before = from.strikes.indexOf(strike);
    const isGrip = problem.strikes[strike]!.grip !== null;
    if (slot < 0) {
      const isHeard = before >= 0 && !isSilent(problem.strikes[strike]!, next.tick);
      if (isHeard && soundsOn(from.placements[before]!, to)) return false;
      continue;
    }
    if (before < 0) return false;
    const [a, b] = [from.places[before]!, to.places[slot]!];
    if (a === b) continue;
    if (isGrip || spotOf(a) !== spotOf(b) || from.slotOfFinger[FINGER_OF[b]!]! >= 0) return false;
    if (++handedOver > HAND_OVERS_AT_MOST) return false;
  }
  if (!gripsStayWhole(problem, from, to, next)) return false;
  if (to.lying !== lyingAfter(from.lying, besideOf(to))) return false;
  return to.range !== null || sameMemory(handMemoryAfter(problem, from, next), to.memory);
}

/**
 * Of a grip that lies whole everything stays, and what is struck in it is struck where it lies, or nothing of it stays;
 * of one that is broken nothing stays that is not heard.
 */
function gripsStayWhole(
  { strikes }: FingeringProblem,
  from: HandState,
  to: HandState,
  next: Moment,
): boolean {
  const placeIn = (state: HandState, strike: number | null) =>
    strike === null ? undefined : state.places[state.strikes.indexOf(strike)];
  const placeBefore = (strike: number) =>
    placeIn(from, strike) ?? placeIn(from, next.taken.includes(strike) ? strikes[strike]!.continues : null);
  const grips = new Set(next.held.map((strike) => strikes[strike]!.grip).filter((grip) => grip !== null));
  return [...grips].every((grip) => {
    const held = next.held.filter((strike) => strikes[strike]!.grip === grip);
    const taken = next.taken.filter((strike) => strikes[strike]!.grip === grip);
    const stays = (strike: number) => placeIn(to, strike) !== undefined;
    if ([...held, ...taken].some((strike) => placeBefore(strike) === undefined))
      return held.every((strike) => !isSilent(strikes[strike]!, next.tick) || !stays(strike));
    // An open string that is heard needs no hand: it sounds on, whatever becomes of its grip.
    const bound = held.filter(
      (strike) => FINGER_OF[placeBefore(strike)!] !== 0 || isSilent(strikes[strike]!, next.tick),
    );
    if (!bound.some(stays)) return true;
    return bound.every(stays) && taken.every((strike) => placeIn(to, strike) === placeBefore(strike));
  });
}

/** Whether an open string that is let go would sound on, nothing lying on it. */
const soundsOn = ({ finger, string }: Placement, to: HandState): boolean =>
  finger === 0 && !isSilenced(to, string);

/** An open string sounds on by itself until something lies on it: a note, or a barre, which may lie flat. */
const isSilenced = (to: HandState, string: number) =>
  to.barre !== null || to.placements.some((place) => place.string === string);

/** What lies besides a barre in a state. */
const besideOf = ({ range, stands, anchor, places }: HandState) => ({
  index: range ? stands[0]! : NO_STAND,
  anchor,
  places,
});

/** A state as it is when the hand comes to it from another: with what a free hand remembers, and the barre that lies on. */
export function arrivedFrom(
  problem: FingeringProblem,
  from: HandState,
  bare: HandState,
  next: Moment,
): HandState {
  const memory = bare.range ? null : handMemoryAfter(problem, from, next);
  const anchor = memory?.anchor ?? bare.anchor;
  const lying = lyingAfter(from.lying, besideOf({ ...bare, anchor }));
  return handState(bare.strikes, bare.placements, memory, bare.range ? bare.anchor : undefined, lying);
}

/** What the hand remembers of `from` when nothing is stopped any more at `next`. */
export function handMemoryAfter(problem: FingeringProblem, from: HandState, next: Moment): HandMemory | null {
  const moment = problem.moments[next.index - 1]!;
  const hand = recordHand(from, moment);
  if (hand.anchor === NO_ANCHOR) return null;
  const waited = waitedAfter(hand, stepTo(problem, columnsOf(moment), next));
  return {
    anchor: hand.anchor,
    freedTick: waited === LONG_FREE ? LONG_FREE : next.tick - waited,
    stands: standsLeft(hand, waited),
  };
}

/** For how many ticks a hand that is freed in a step has been free at its end; LONG_FREE from the longest window on. */
export function waitedAfter(hand: Hand, step: HandStep): number {
  const freed = freedTicks(hand, step);
  return freed === LONG_FREE || step.msBefore(freed) >= LONGEST_WINDOW_MS ? LONG_FREE : freed;
}

const ANYWHERE: readonly number[] = [NO_STAND, NO_STAND, NO_STAND, NO_STAND];

/** A hand that has long been free has forgotten its fingers; of a barre it remembers the first note. */
export const standsLeft = (hand: Hand, waited: number): readonly number[] =>
  waited === LONG_FREE ? ANYWHERE : [1, 2, 3, 4].map((finger) => tipOf(hand.standUnder(finger)));

export const sameMemory = (a: HandMemory | null, b: HandMemory | null): boolean =>
  a?.anchor === b?.anchor &&
  a?.freedTick === b?.freedTick &&
  (a === null || b === null || a.stands.every((stand, k) => stand === b.stands[k]));
