/** Times that a step leaves to the hand and its fingers, by state of the layer before. */
import type { FingeringProblem, Moment } from '../../problem';
import { LONG_FREE } from '../memory';
import { LONGEST_WINDOW_MS, RELEASE_SHARE } from '../terms';
import type { Arena } from './arena';
import { FINGER_OF, NO_PLACE } from './handTables';
import { releasedTickOf, type StateRows } from './packedLayer';

export interface Times {
  /** By state (and finger): index into `values`, at most 16 of them. */
  readonly of: Uint8Array;
  /** In ms. */
  readonly values: readonly number[];
}

const MOST_TIMES = 16;

class TimesInTheMaking {
  readonly values: number[] = [];

  /** @throws RangeError for more distinct times than notes can sound at once */
  indexOf(ms: number): number {
    const known = this.values.indexOf(ms);
    if (known >= 0) return known;
    if (this.values.length === MOST_TIMES) throw new RangeError('too many distinct times in one step');
    return this.values.push(ms) - 1;
  }
}

/** From when the last note that holds the hand may be released to the next onset. See `windowMs` in memory.ts. */
export function windowsMs(
  problem: FingeringProblem,
  arena: Arena,
  rows: StateRows,
  stepMs: number,
  next: Moment,
): Times {
  const times = new TimesInTheMaking();
  const least = RELEASE_SHARE * stepMs;
  const of = arena.uint8(rows.count);
  for (let s = 0; s < rows.count; s++) {
    const memory = rows.memory[s]! > 0 ? rows.memories[rows.memory[s]! - 1]! : null;
    const freed = memory ? memory.freedTick : releasedTickOf(problem, rows, s, next);
    const waited = freed === LONG_FREE ? Infinity : next.timeMs - problem.clock(freed);
    of[s] = times.indexOf(Math.min(LONGEST_WINDOW_MS, Math.max(waited, least)));
  }
  return { of, values: times.values };
}

/** Four times a state: what each finger has before the next onset. See `freeMs` in hops.ts. */
export function fingerFreeMs(
  problem: FingeringProblem,
  arena: Arena,
  rows: StateRows,
  stepMs: number,
  next: Moment,
): Times {
  const times = new TimesInTheMaking();
  const least = Math.max(1, RELEASE_SHARE * stepMs);
  const columns = rows.strikes.length;
  const timeOf = rows.strikes.map((strike) => {
    const end = problem.strikes[strike]!.endTicks;
    return times.indexOf(Math.max(least, end < next.tick ? next.timeMs - problem.clock(end) : 0));
  });
  const of = arena.uint8(4 * rows.count);
  for (let s = 0; s < rows.count; s++) {
    // From the last column to the first, so that the first note under a finger counts.
    for (let c = columns - 1; c >= 0; c--) {
      const place = rows.places[s * columns + c]!;
      if (place !== NO_PLACE && FINGER_OF[place]! > 0) of[4 * s + FINGER_OF[place]! - 1] = timeOf[c]!;
    }
  }
  return { of, values: times.values };
}
