/** Times that a step leaves to the hand and its fingers, by state of the layer before. */
import { LONG_FREE } from '../rules/memory';
import { LONGEST_WINDOW_MS, RELEASE_SHARE } from '../rules/terms';
import type { Arena } from '../../solver/arena';
import { FINGER_OF, NO_PLACE } from './handTables';
import { freedTicks, type StateRows } from './packedLayer';
import type { Step } from './step';

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
export function windowsMs(arena: Arena, rows: StateRows, step: Step): Times {
  const times = new TimesInTheMaking();
  const least = RELEASE_SHARE * step.ms;
  const of = arena.uint8(rows.count);
  const known = new Map<number, number>();
  for (let s = 0; s < rows.count; s++) {
    if (rows.range[s]! < 0) continue;
    const freed = freedTicks(rows, s, step);
    let index = known.get(freed);
    if (index === undefined) {
      const waited = freed === LONG_FREE ? Infinity : step.msBefore(freed);
      index = times.indexOf(Math.min(LONGEST_WINDOW_MS, Math.max(waited, least)));
      known.set(freed, index);
    }
    of[s] = index;
  }
  return { of, values: times.values };
}

/** Four times a state: what each finger has before the next onset. See `freeMs` in hops.ts. */
export function fingerFreeMs(arena: Arena, rows: StateRows, step: Step): Times {
  const times = new TimesInTheMaking();
  const least = Math.max(1, RELEASE_SHARE * step.ms);
  const timeOf = step.endedMs.map((ms) => times.indexOf(Math.max(least, ms)));
  const of = arena.uint8(4 * rows.count);
  for (let s = 0; s < rows.count; s++) {
    // From the last column to the first, so that the first note under a finger counts.
    for (let c = rows.columns - 1; c >= 0; c--) {
      const place = rows.places[s * rows.columns + c]!;
      if (place !== NO_PLACE && FINGER_OF[place]! > 0) of[4 * s + FINGER_OF[place]! - 1] = timeOf[c]!;
    }
  }
  return { of, values: times.values };
}
