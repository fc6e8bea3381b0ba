/** Places on the neck under a finger, and their one numbering: whatever keeps, compares or tabulates places uses it. */
export interface Placement {
  /** 1 (highest) to 6 (lowest). */
  readonly string: number;
  /** 0 is the open string. */
  readonly fret: number;
  /** 1 to 4; 0 on an open string. */
  readonly finger: number;
}

export const FRETS = 25;
const FINGERS = 5;

/** How many places there are. */
export const PLACES = 6 * FRETS * FINGERS;

/** No place: let go, left out, or a free finger. */
export const NO_PLACE = -1;

/** From 0 on, by string, fret and finger. */
export const placeId = ({ string, fret, finger }: Placement): number =>
  ((string - 1) * FRETS + fret) * FINGERS + finger;

/** By number. */
export const PLACEMENTS: readonly Placement[] = Array.from({ length: PLACES }, (_, id) => ({
  string: Math.floor(id / FINGERS / FRETS) + 1,
  fret: Math.floor(id / FINGERS) % FRETS,
  finger: id % FINGERS,
}));
export const STRING_OF = Uint8Array.from(PLACEMENTS, (place) => place.string);
export const FRET_OF = Uint8Array.from(PLACEMENTS, (place) => place.fret);
export const FINGER_OF = Uint8Array.from(PLACEMENTS, (place) => place.finger);
/** Where finger 1 lies or would lie. */
export const BASE_OF = Int8Array.from(PLACEMENTS, ({ fret, finger }) => fret - (finger - 1));

/** The same place under any finger has the same spot. */
export const spotOf = (id: number): number => Math.floor(id / FINGERS);

/** The same spot under another finger. */
export const underFinger = (id: number, finger: number): number => id - FINGER_OF[id]! + finger;

/** A bit for each string, 1 to 6. */
export const stringBit = (string: number): number => 1 << (string - 1);

/** Strings 4 to 6 are wound with metal: they squeak under a guide and sound dull high up. Source: common practice. */
export const FIRST_WOUND_STRING = 4;
export const isWound = (string: number): boolean => string >= FIRST_WOUND_STRING;
