/**
 * What one finger does: it stands on one string, or bars several on one fret. As a number it says on which fret it
 * lies, the string of the first of its notes, and all strings whose notes it stops.
 */
import { FINGER_OF, FRET_OF, stringBit, STRING_OF } from './place';

export interface Stand {
  readonly fret: number;
  /** Of the first of its notes in the order of strikes. */
  readonly string: number;
  /** Strings that it must cover: the highest-pitched and the lowest-pitched. */
  readonly firstString: number;
  readonly lastString: number;
  /** Strings on which it stops notes. */
  readonly strings: readonly number[];
}

/** The finger is free. */
export const NO_STAND = 0;

const MASK_BITS = 6;
/** Stands are whole numbers below this. */
export const STANDS = (25 * 8) << MASK_BITS;

export const standOn = (place: number): number =>
  ((FRET_OF[place]! * 8 + STRING_OF[place]!) << MASK_BITS) | stringBit(STRING_OF[place]!);

/** A finger that stops one string more, on the same fret. */
export const alsoOn = (stand: number, place: number): number => stand | stringBit(STRING_OF[place]!);

/** A barre over all strings from the first to the last. */
export function barreOver(fret: number, firstString: number, lastString: number): number {
  let mask = 0;
  for (let string = firstString; string <= lastString; string++) mask |= stringBit(string);
  return ((fret * 8 + firstString) << MASK_BITS) | mask;
}

export const isBarre = (stand: number): boolean => {
  const mask = stand & ((1 << MASK_BITS) - 1);
  return (mask & (mask - 1)) !== 0;
};

export const fretOfStand = (stand: number): number => stand >> (MASK_BITS + 3);

/** String of its first note. */
export const stringOfStand = (stand: number): number => (stand >> MASK_BITS) & 7;

/** The same first note, whatever else it stops. */
export const sameTip = (a: number, b: number): boolean => a >> MASK_BITS === b >> MASK_BITS;

/** Only its first note. */
export const tipOf = (stand: number): number =>
  stand === NO_STAND ? NO_STAND : ((stand >> MASK_BITS) << MASK_BITS) | stringBit(stringOfStand(stand));

/** Fret and strings, whichever note is the first. */
export const shapeOfStand = (stand: number): number =>
  (fretOfStand(stand) << MASK_BITS) | (stand & ((1 << MASK_BITS) - 1));

const known: (Stand | undefined)[] = [];

/** @param stand not NO_STAND */
export function standAt(stand: number): Stand {
  return (known[stand] ??= decoded(stand));
}

function decoded(stand: number): Stand {
  const strings = [1, 2, 3, 4, 5, 6].filter((string) => (stand & stringBit(string)) !== 0);
  return {
    fret: fretOfStand(stand),
    string: stringOfStand(stand),
    firstString: strings[0]!,
    lastString: strings.at(-1)!,
    strings,
  };
}

export const maybeStandAt = (stand: number): Stand | null => (stand === NO_STAND ? null : standAt(stand));

export const stringsUnder = ({
  firstString,
  lastString,
}: Pick<Stand, 'firstString' | 'lastString'>): number => lastString - firstString + 1;

export const coversString = (
  { firstString, lastString }: Pick<Stand, 'firstString' | 'lastString'>,
  string: number,
): boolean => string >= firstString && string <= lastString;

/** By finger 1 to 4 at 0 to 3: what lies under each, from places by column. */
export function standsOf(places: readonly number[]): [number, number, number, number] {
  const stands: [number, number, number, number] = [NO_STAND, NO_STAND, NO_STAND, NO_STAND];
  for (const place of places) {
    if (place < 0 || FINGER_OF[place] === 0) continue;
    const k = FINGER_OF[place]! - 1;
    stands[k] = stands[k] === NO_STAND ? standOn(place) : alsoOn(stands[k]!, place);
  }
  return stands;
}
