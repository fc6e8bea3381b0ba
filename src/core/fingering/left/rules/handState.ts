/** What the left hand does at a moment: which sounding strike lies where, under which finger. */

export interface Placement {
  /** 1 (highest) to 6 (lowest). */
  readonly string: number;
  /** 0 is the open string. */
  readonly fret: number;
  /** 1 to 4; 0 on an open string. */
  readonly finger: number;
}

/** A placement in one number, for fast comparison; never 0. */
export const codeOf = ({ string, fret, finger }: Placement): number => (string * 32 + fret) * 8 + finger;

/** The same without the finger: where on the board it lies. */
export const spotOf = (code: number): number => code >> 3;

export interface Barre {
  readonly fret: number;
  /** Highest-pitched and lowest-pitched string under the finger: firstString < lastString. */
  readonly firstString: number;
  readonly lastString: number;
}

/** A barre of 2, 3 or 4 over neighbouring strings. */
export interface SmallBarre extends Barre {
  readonly finger: number;
}

/**
 * Where the hand can stand: the least and the greatest fret at which finger 1 would lie for the fingers that
 * are down. Extensions and contractions make it wide; a hand that stays inside does not move. A barre of finger 1
 * lets it stand nowhere else.
 */
export interface HandRange {
  readonly low: number;
  readonly high: number;
}

/** Where the hand was before it was freed by open strings. */
export interface HandMemory {
  readonly range: HandRange;
  readonly freedTick: number;
  /** Codes of the placements that fingers 1 to 4 left, 0 for none: each may guide the hand to where it goes. */
  readonly fingers: readonly number[];
}

export interface HandState {
  /** Strikes that sound, ascending; a held strike that is missing has been let go. */
  readonly strikes: readonly number[];
  readonly placements: readonly Placement[];
  readonly codes: readonly number[];
  /** Index of the strike's place in `strikes` by finger (1 to 4), −1 when the finger is free. */
  readonly slotOfFinger: readonly number[];
  /** The barre of finger 1. */
  readonly barre: Barre | null;
  readonly smallBarres: readonly SmallBarre[];
  /** Null when nothing is stopped. */
  readonly range: HandRange | null;
  /** Only when nothing is stopped. */
  readonly memory: HandMemory | null;
}

const NO_BARRES: readonly SmallBarre[] = [];

/** Makes a state; the caller has checked that a hand can do it. */
export function handState(
  strikes: readonly number[],
  placements: readonly Placement[],
  memory: HandMemory | null,
): HandState {
  const slotOfFinger = [-1, -1, -1, -1, -1];
  let doubled = false;
  placements.forEach((place, slot) => {
    if (place.finger === 0) return;
    if (slotOfFinger[place.finger] === -1) slotOfFinger[place.finger] = slot;
    else doubled = true;
  });
  const barre = doubled ? barreOf(placements, 1) : null;
  return {
    strikes,
    placements,
    codes: placements.map(codeOf),
    slotOfFinger,
    barre,
    smallBarres: doubled ? smallBarresOf(placements) : NO_BARRES,
    range: barre ? { low: barre.fret, high: barre.fret } : rangeOf(placements),
    memory,
  };
}

/** The barre that a finger must lay, or null when it stops at most one string. */
export function barreOf(placements: readonly Placement[], finger: number): Barre | null {
  const under = placements.filter((place) => place.finger === finger);
  if (under.length < 2) return null;
  const strings = under.map((place) => place.string);
  return { fret: under[0]!.fret, firstString: Math.min(...strings), lastString: Math.max(...strings) };
}

export const smallBarresOf = (placements: readonly Placement[]): readonly SmallBarre[] =>
  [2, 3, 4].flatMap((finger) => {
    const barre = barreOf(placements, finger);
    return barre ? [{ ...barre, finger }] : [];
  });

export const stringsUnder = (barre: Barre): number => barre.lastString - barre.firstString + 1;

export const coversString = (barre: Barre, string: number): boolean =>
  string >= barre.firstString && string <= barre.lastString;

export function rangeOf(placements: readonly Placement[]): HandRange | null {
  let low = Infinity;
  let high = -Infinity;
  for (const { finger, fret } of placements) {
    if (finger === 0) continue;
    low = Math.min(low, fret - (finger - 1));
    high = Math.max(high, fret - (finger - 1));
  }
  return low > high ? null : { low, high };
}

/** The placement under a finger, the first of a barre; null when it is free. */
export function placeUnder(state: HandState, finger: number): Placement | null {
  const slot = state.slotOfFinger[finger]!;
  return slot < 0 ? null : state.placements[slot]!;
}

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
