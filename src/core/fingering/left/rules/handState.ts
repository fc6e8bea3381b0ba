/** What the left hand does at a moment, as a record: which sounding strike lies where, under which finger. */
import { placeId, type Placement } from './place';
import { anchorId, NO_ANCHOR } from './anchor';
import { ownBarre } from './lyingBarre';
import { type HandRange, rangeOf } from './range';
import { isBarre, NO_STAND, type Stand, standAt, standsOf } from './stand';

/** A barre of 2, 3 or 4 over neighbouring strings. */
export interface SmallBarre extends Stand {
  readonly finger: number;
}

/** Where the hand was before it was freed by open strings. */
export interface HandMemory {
  readonly anchor: number;
  /** LONG_FREE: so long ago that it has had all the time it can use. */
  readonly freedTick: number;
  /** What fingers 1 to 4 left, NO_STAND for nothing: each may guide the hand to where it goes. */
  readonly stands: readonly number[];
}

export interface HandState {
  /** Strikes that sound or lie, in the order of the columns; a held one that is missing has been let go. */
  readonly strikes: readonly number[];
  readonly placements: readonly Placement[];
  /** Numbers of the placements. */
  readonly places: readonly number[];
  /** What lies under fingers 1 to 4, or what a freed hand remembers of them. */
  readonly stands: readonly number[];
  /** Index of the strike's place in `strikes` by finger (1 to 4), −1 when the finger is free. */
  readonly slotOfFinger: readonly number[];
  /** The barre of finger 1. */
  readonly barre: Stand | null;
  readonly smallBarres: readonly SmallBarre[];
  /** The barre that lies, whether what it stops sounds or not; NO_STAND for none. See `lyingBarre.ts`. */
  readonly lying: number;
  /** Null when nothing is stopped. */
  readonly range: HandRange | null;
  /** Where the hand stays, or stayed before it was freed; NO_ANCHOR where no finger ever lay. */
  readonly anchor: number;
  /** Only when nothing is stopped. */
  readonly memory: HandMemory | null;
}

const NOTHING: readonly number[] = [NO_STAND, NO_STAND, NO_STAND, NO_STAND];

/**
 * Makes a state; the caller has checked that a hand can do it. `anchor`: by default no finger reaches; `lying`: by
 * default only the barre that its notes need.
 */
export function handState(
  strikes: readonly number[],
  placements: readonly Placement[],
  memory: HandMemory | null,
  anchor?: number,
  lying?: number,
): HandState {
  const slotOfFinger = [-1, -1, -1, -1, -1];
  placements.forEach(({ finger }, slot) => {
    if (finger > 0 && slotOfFinger[finger] === -1) slotOfFinger[finger] = slot;
  });
  const places = placements.map(placeId);
  const under = standsOf(places);
  const barre = isBarre(under[0]) ? standAt(under[0]) : null;
  const range = rangeWith(places, barre);
  return {
    strikes,
    placements,
    places,
    stands: range ? under : (memory?.stands ?? NOTHING),
    slotOfFinger,
    barre,
    smallBarres: [2, 3, 4].flatMap((finger) =>
      isBarre(under[finger - 1]!) ? [{ ...standAt(under[finger - 1]!), finger }] : [],
    ),
    lying: lying ?? ownBarre(under[0]),
    range,
    anchor: range
      ? (anchor ?? anchorId(Math.max(1, range.low), Math.max(1, range.high)))
      : (memory?.anchor ?? NO_ANCHOR),
    memory,
  };
}

const rangeWith = (places: readonly number[], barre: Stand | null): HandRange | null =>
  barre ? { low: barre.fret, high: barre.fret } : rangeOf(places);

/**
 * The position as a guitarist names it: the fret where finger 1 lies, or would lie by the lowest finger that
 * is down. Null when nothing is stopped.
 */
export function positionOf(placements: readonly Placement[]): number | null {
  const stopped = placements.filter((place) => place.finger > 0);
  if (stopped.length === 0) return null;
  const lowest = stopped.reduce((a, b) => (b.finger < a.finger ? b : a));
  return Math.max(1, lowest.fret - (lowest.finger - 1));
}
