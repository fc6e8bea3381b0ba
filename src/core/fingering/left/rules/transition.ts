/** The way from one state of the hand to the next: whether there is one, and what it costs. */
import type { FingeringProblem, Moment } from '../../problem/problem';
import { barreCost } from './barreCost';
import { connectionCost } from './connectionCost';
import { cutsCost } from './cuts';
import { type HandState, spotOf } from './handState';
import { hopsCost } from './hops';
import type { Ledger } from './ledger';
import { memoryAfter, sameMemory } from './memory';
import { shiftCost } from './shift';

/** At most so many held notes are handed to another finger at once. From memory: it is rare at all. */
export const HAND_OVERS_AT_MOST = 1;

/**
 * Whether the hand can come from `from` to `to`: held strikes stay where they are, one of them perhaps under
 * another finger that was free, open strings are let go only when something comes to lie on them, and memories
 * agree.
 */
export function follows(problem: FingeringProblem, from: HandState, to: HandState, next: Moment): boolean {
  let handedOver = 0;
  for (const strike of next.held) {
    const slot = to.strikes.indexOf(strike);
    const before = from.strikes.indexOf(strike);
    if (slot < 0) {
      const letGo = before < 0 ? null : from.placements[before]!;
      if (letGo?.finger === 0 && !isSilenced(to, letGo.string)) return false;
      continue;
    }
    if (before < 0) return false;
    const [a, b] = [from.codes[before]!, to.codes[slot]!];
    if (a === b) continue;
    const taker = to.placements[slot]!.finger;
    if (spotOf(a) !== spotOf(b) || from.slotOfFinger[taker]! >= 0 || ++handedOver > HAND_OVERS_AT_MOST)
      return false;
  }
  return to.range !== null || sameMemory(memoryAfter(problem, from, next), to.memory);
}

/** An open string sounds on by itself until something lies on it: a note, or a barre, which may lie flat. */
const isSilenced = (to: HandState, string: number) =>
  to.barre !== null || to.placements.some((place) => place.string === string);

/** Effort in tenths of a point of going from one state to the next. Call it only when `follows` holds. */
export function transitionCost(
  problem: FingeringProblem,
  moment: Moment,
  from: HandState,
  next: Moment,
  to: HandState,
  ledger?: Ledger,
): number {
  return (
    cutsCost(problem, moment, from, next, to, ledger) +
    shiftCost(problem, moment, from, next, to, ledger) +
    hopsCost(problem, moment, from, next, to, ledger) +
    barreCost(problem, from, to, ledger) +
    connectionCost(problem, from, next, to, ledger)
  );
}
