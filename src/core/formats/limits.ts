/**
 * What a file may hold: more than any score for one guitar has, less than what stops the program for others. Beyond it a
 * file is refused with what is too much of it.
 */
export const LIMITS = {
  /** Of the XML tree. A score of 500 bars has about 60,000. */
  elements: 600_000,
  depth: 100,
  bars: 2_000,
  /** Noteheads of the part that is read. */
  notes: 40_000,
  /** Characters of an ABC text. */
  letters: 400_000,
} as const;

export type Limited = keyof typeof LIMITS;

/** The longest note or rest, in quarters: a note over many bars is written as tied notes. */
export const LONGEST_QUARTERS = 1_024;
export const MOST_DOTS = 4;
/** Octaves in scientific pitch notation; further ones are typing errors. */
export const LOWEST_OCTAVE = -1;
export const HIGHEST_OCTAVE = 9;
/** Quarters per minute that a metronome or a player can mean. */
export const SLOWEST_TEMPO = 5;
export const FASTEST_TEMPO = 999;
/** How often a repeat is played at most, and written out by whoever engraves. */
export const MOST_REPEATS = 16;

export const isTempo = (quartersPerMinute: number): boolean =>
  quartersPerMinute >= SLOWEST_TEMPO && quartersPerMinute <= FASTEST_TEMPO;
