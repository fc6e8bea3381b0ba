/**
 * A barre of finger 1 that lies on: while its fret is where the hand stays, finger 1 is needed nowhere else and nothing
 * is stopped nutwards of it or sounds open under it, whether one of its strings sounds, or none.
 * Source: handbook 13, "Barre".
 */
import { anchorHigh, anchorLow } from './anchor';
import { FINGER_OF, FRET_OF, NO_PLACE, STRING_OF } from './place';
import { barreOver, coversString, fretOfStand, isBarre, NO_STAND, type Stand, standAt } from './stand';

/** What lies besides it. */
interface Beside {
  /** What lies under finger 1; NO_STAND where it stops nothing. */
  readonly index: number;
  readonly anchor: number;
  /** Everything that sounds or is laid. */
  readonly places: readonly number[];
}

/**
 * The barre that lies after a step, as a stand over all of its strings; NO_STAND for none.
 * @param before the barre that lay
 */
export function lyingAfter(before: number, beside: Beside): number {
  if (before !== NO_STAND && liesOn(standAt(before), beside)) return before;
  return ownBarre(beside.index);
}

/** Over two strings finger 1 is laid and lifted in passing; over more it is kept. From memory. */
const LEAST_STRINGS = 3;

/** The barre that finger 1 lays by itself. */
export function ownBarre(index: number): number {
  if (!isBarre(index)) return NO_STAND;
  const { fret, firstString, lastString } = standAt(index);
  if (lastString - firstString + 1 < LEAST_STRINGS) return NO_STAND;
  return barreOver(fret, firstString, lastString);
}

function liesOn(barre: Stand, { index, anchor, places }: Beside): boolean {
  if (barre.fret < anchorLow(anchor) || barre.fret > anchorHigh(anchor)) return false;
  if (index !== NO_STAND && fretOfStand(index) !== barre.fret) return false;
  return places.every((place) => place === NO_PLACE || !endsIt(place, barre));
}

/** A note nutwards of it or open under it, another finger under it, or finger 1 beside it. */
function endsIt(place: number, barre: Stand): boolean {
  const [fret, finger] = [FRET_OF[place]!, FINGER_OF[place]!];
  const covered = coversString(barre, STRING_OF[place]!);
  if (finger === 1) return !covered;
  return finger === 0 ? covered : fret < barre.fret || (covered && fret === barre.fret);
}
