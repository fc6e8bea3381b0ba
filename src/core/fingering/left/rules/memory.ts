/** What a hand remembers when open strings, or rests, have freed it. */
import type { FingeringProblem, Moment } from '../../problem/problem';
import type { HandMemory, HandState } from './handState';
import { LONGEST_WINDOW_MS, RELEASE_SHARE } from './terms';

/** Freed so long ago that the hand has had all the time it can use. */
export const LONG_FREE = -1;

const ANYWHERE: readonly number[] = [0, 0, 0, 0];

/** What the hand remembers of `from` when nothing is stopped any more at `next`. */
export function memoryAfter(problem: FingeringProblem, from: HandState, next: Moment): HandMemory | null {
  const range = from.range ?? from.memory?.range;
  if (!range) return null;
  const freedTick = from.range ? releasedTick(problem, from, next) : from.memory!.freedTick;
  const long = freedTick === LONG_FREE || problem.spans.spanMs(freedTick, next.tick) >= LONGEST_WINDOW_MS;
  return long
    ? { range, freedTick: LONG_FREE, fingers: ANYWHERE }
    : { range, freedTick, fingers: fingersOf(from) };
}

/** Codes under fingers 1 to 4, remembered ones when the hand is free; 0 for none. */
export const fingersOf = (state: HandState): readonly number[] =>
  state.range || !state.memory
    ? [1, 2, 3, 4].map((finger) => state.codes[state.slotOfFinger[finger]!] ?? 0)
    : state.memory.fingers;

export const sameMemory = (a: HandMemory | null, b: HandMemory | null): boolean =>
  a?.range.low === b?.range.low &&
  a?.range.high === b?.range.high &&
  a?.freedTick === b?.freedTick &&
  (a === null || b === null || a.fingers.every((code, k) => code === b.fingers[k]));

/** When the last stopped strike of `from` ends, or the moment that takes it away. */
export function releasedTick(problem: FingeringProblem, from: HandState, next: Moment): number {
  let tick = 0;
  for (let slot = 0; slot < from.strikes.length; slot++) {
    if (from.placements[slot]!.finger === 0) continue;
    tick = Math.max(tick, Math.min(next.tick, problem.strikes[from.strikes[slot]!]!.endTicks));
  }
  return tick;
}

/** Time in ms from when the last note that holds the hand may be released to the next onset. */
export function windowMs(problem: FingeringProblem, moment: Moment, from: HandState, next: Moment): number {
  if (from.memory?.freedTick === LONG_FREE) return LONGEST_WINDOW_MS;
  const freed = from.range ? releasedTick(problem, from, next) : (from.memory?.freedTick ?? 0);
  const waited = problem.spans.spanMs(freed, next.tick);
  const least = RELEASE_SHARE * problem.spans.spanMs(moment.tick, next.tick);
  return Math.min(LONGEST_WINDOW_MS, Math.max(waited, least));
}
