/**
 * Where the hand can stand: the least and the greatest fret at which finger 1 would lie for the fingers that are down.
 * Extensions and contractions make it wide; a hand that stays inside does not move. A barre of finger 1 lets it stand
 * nowhere else.
 */
import { BASE_OF, FINGER_OF } from './place';

export interface HandRange {
  readonly low: number;
  readonly high: number;
}

/** No finger ever lay. */
export const NO_RANGE = -1;

/** Finger 4 on fret 1 would put finger 1 two frets behind the nut. */
const LOWEST = -8;
const WIDTH = 64;
export const rangeId = ({ low, high }: HandRange): number => (low - LOWEST) * WIDTH + high - LOWEST;

const known: (HandRange | undefined)[] = [];

/** @param id not NO_RANGE */
export const rangeAt = (id: number): HandRange =>
  (known[id] ??= { low: Math.floor(id / WIDTH) + LOWEST, high: (id % WIDTH) + LOWEST });

/** Of the fingers that stop these places; null where none does. */
export function rangeOf(places: readonly number[]): HandRange | null {
  let low = Infinity;
  let high = -Infinity;
  for (const place of places) {
    if (place < 0 || FINGER_OF[place] === 0) continue;
    low = Math.min(low, BASE_OF[place]!);
    high = Math.max(high, BASE_OF[place]!);
  }
  return low > high ? null : { low, high };
}
