/** The fretboard in millimetres. Strings are numbered 1 (highest) to 6 (lowest). */

const fretShare = (fret: number) => 1 - 2 ** (-fret / 12);

/** The planner asks for whole and half frets millions of times. */
const HALF_FRET_SHARES = Array.from({ length: 49 }, (_, halves) => fretShare(halves / 2));

export interface Fretboard {
  readonly scaleLengthMm: number;
  /** Distance between neighbouring strings. From memory: 43 mm over six strings. */
  readonly stringGapAtNutMm: number;
  /** From memory: 58 mm over six strings. */
  readonly stringGapAtSaddleMm: number;
  readonly frets: number;
}

export const CONCERT_FRETBOARD: Fretboard = {
  scaleLengthMm: 650,
  stringGapAtNutMm: 8.6,
  stringGapAtSaddleMm: 11.6,
  frets: 19,
};

/**
 * The board above a capo: what is left is a shorter string with its own, wider, nut. Frets count from the capo.
 * @throws RangeError for a capo that leaves fewer than seven frets
 */
export function withCapo(board: Fretboard, capo: number): Fretboard {
  if (capo === 0) return board;
  if (!Number.isInteger(capo) || capo < 0 || board.frets - capo < 7)
    throw new RangeError(`a capo at fret ${capo} leaves too little of the neck`);
  const rest = 2 ** (-capo / 12);
  const { stringGapAtNutMm: nut, stringGapAtSaddleMm: saddle } = board;
  return {
    scaleLengthMm: board.scaleLengthMm * rest,
    stringGapAtNutMm: nut + (saddle - nut) * (1 - rest),
    stringGapAtSaddleMm: saddle,
    frets: board.frets - capo,
  };
}

/**
 * Distance in mm from the nut to fret n, x(n) = L · (1 − 2^(−n/12)).
 * n may be fractional (a hand between two positions). Source: equal temperament.
 */
export function fretDistanceMm(fret: number, scaleLengthMm: number): number {
  return scaleLengthMm * (HALF_FRET_SHARES[2 * fret] ?? fretShare(fret));
}

/** A fingertip presses just behind the wire: 8 mm, or a third of a fret that is narrower than 24 mm. */
export function fingertipMm(fret: number, scaleLengthMm: number): number {
  const wire = fretDistanceMm(fret, scaleLengthMm);
  const widthMm = wire - fretDistanceMm(fret - 1, scaleLengthMm);
  return wire - Math.min(8, widthMm / 3);
}

/** Distance in mm across the board from string 1 to a string at `alongMm` from the nut, linear from nut to saddle. */
export function acrossMm(string: number, alongMm: number, board: Fretboard): number {
  const share = alongMm / board.scaleLengthMm;
  const gapMm = board.stringGapAtNutMm + (board.stringGapAtSaddleMm - board.stringGapAtNutMm) * share;
  return (string - 1) * gapMm;
}
