/** What rules may ask of a hand at a moment, whether it is a record or a row of a layer. */
import { FINGER_OF, FRET_OF, NO_PLACE, STRING_OF } from './place';
import { isBarre, NO_STAND, standAt, stringsUnder } from './stand';
import type { HandStep } from './step';

/** Freed so long ago that the hand has had all the time it can use. */
export const LONG_FREE = -1;

export interface Hand {
  /** Strikes that may sound at its moment, each in a column. */
  readonly columns: number;
  /** Number of the place of a strike, NO_PLACE where it has been let go. */
  placeOn(column: number): number;
  /** The same of the k-th note that is struck at its moment; after these come those that are only laid. */
  placeOfStruck(k: number): number;
  /** What lies under a finger, 1 to 4; of a freed hand what it remembers. See `stand.ts`. */
  standUnder(finger: number): number;
  /** The barre of finger 1 that lies, whether what it stops sounds or not; NO_STAND for none. See `lyingBarre.ts`. */
  readonly lying: number;
  /** A bit for each finger that is down, finger 1 in the lowest; 0: the hand is free. */
  readonly down: number;
  /** Where finger 1 lies or would lie for the fingers that are down; NO_RANGE for a free hand. See `range.ts`. */
  readonly range: number;
  /** Where it stays, or stayed before it was freed; NO_ANCHOR where no finger ever lay. */
  readonly anchor: number;
  /** For how many ticks it had been free at its moment, or LONG_FREE; null while a finger is down or none ever was. */
  readonly waitedTicks: number | null;
}

/** The first column under a finger, −1 where it is free. */
export function columnUnder(hand: Hand, finger: number): number {
  for (let column = 0; column < hand.columns; column++) {
    const place = hand.placeOn(column);
    if (place !== NO_PLACE && FINGER_OF[place] === finger) return column;
  }
  return -1;
}

/** A barre over three strings or more that leaves a higher string to an open note: the finger must arch. */
export function isArched(hand: Hand): boolean {
  const stand = hand.down === 0 ? NO_STAND : hand.standUnder(1);
  if (!isBarre(stand)) return false;
  const barre = standAt(stand);
  if (stringsUnder(barre) <= 2) return false;
  for (let column = 0; column < hand.columns; column++) {
    const place = hand.placeOn(column);
    if (place !== NO_PLACE && STRING_OF[place]! < barre.firstString && FRET_OF[place]! < barre.fret)
      return true;
  }
  return false;
}

/** How many ticks before the end of a step the hand is freed: when its last stopped note ends. LONG_FREE stays that. */
export function freedTicks(hand: Hand, step: HandStep): number {
  const { waitedTicks } = hand;
  if (waitedTicks !== null) return waitedTicks === LONG_FREE ? LONG_FREE : waitedTicks + step.ticks;
  let ticks = Infinity;
  for (let column = 0; column < hand.columns; column++) {
    const place = hand.placeOn(column);
    if (place !== NO_PLACE && FINGER_OF[place]! > 0) ticks = Math.min(ticks, step.endedTicks[column]!);
  }
  return ticks;
}
