/** Open chords as they are taught: places from string 6 to 1, "fret-finger", and the string of the lowest note. Common practice. */
import type { DrillNote, Parameter } from './drill';

export interface ChordShape {
  readonly bass: number;
  readonly places: readonly DrillNote[];
}

const ROWS: Readonly<Record<string, readonly [bass: number, places: string]>> = {
  open: [6, '0-0 0-0 0-0 0-0 0-0 0-0'],
  C: [5, '3-4 3-3 2-2 0-0 1-1 0-0'],
  G: [6, '3-3 2-2 0-0 0-0 0-0 3-4'],
  D: [4, '2-2 0-0 0-0 2-1 3-3 2-2'],
  A: [5, '0-0 0-0 2-1 2-2 2-3 0-0'],
  E: [6, '0-0 2-2 2-3 1-1 0-0 0-0'],
  F: [4, '1-1 0-0 3-3 2-2 1-1 1-1'],
  Am: [5, '0-0 0-0 2-2 2-3 1-1 0-0'],
  Dm: [4, '1-1 0-0 0-0 2-2 3-3 1-1'],
  Em: [6, '0-0 2-2 2-3 0-0 0-0 0-0'],
  A7: [5, '0-0 0-0 2-2 0-0 2-3 0-0'],
  B7: [5, '2-2 2-2 1-1 2-3 0-0 2-4'],
  C7: [5, '3-3 3-3 2-2 3-4 1-1 0-0'],
  D7: [4, '2-2 0-0 0-0 2-2 1-1 2-3'],
  E7: [6, '0-0 2-2 0-0 1-1 0-0 0-0'],
  G7: [6, '3-3 2-2 0-0 0-0 0-0 1-1'],
  Am7: [5, '0-0 0-0 2-2 0-0 1-1 0-0'],
  Em7: [6, '0-0 2-2 0-0 0-0 0-0 0-0'],
};

export const CHORD_SHAPES: Readonly<Record<string, ChordShape>> = Object.fromEntries(
  Object.entries(ROWS).map(([name, [bass, text]]) => [name, { bass, places: placesOf(text) }]),
);

/** Names that may be typed. */
export const CHORD_NAMES = Object.keys(ROWS).filter((name) => name !== 'open');

function placesOf(text: string): readonly DrillNote[] {
  return text.split(' ').map((place, k) => {
    const [fret, finger] = place.split('-').map(Number);
    return { string: 6 - k, fret: fret!, finger: finger!, letter: null };
  });
}

export const placeOn = ({ places }: ChordShape, string: number): DrillNote =>
  places.find((place) => place.string === string)!;

const LONGEST_ROW = 16;

/** Chord names with commas or spaces between them; null where one is not known, or there are none or too many. */
export function maybeChordRow(text: string): readonly string[] | null {
  const names = text.split(/[\s,]+/).filter((name) => name !== '');
  const known = names.every((name) => CHORD_NAMES.includes(name));
  return known && names.length > 0 && names.length <= LONGEST_ROW ? names : null;
}

/** A row of chords: some that are often played, or one of one's own. */
export const CHORD_ROW: Parameter = {
  id: 'chords',
  label: 'Chords',
  values: [
    ['Am,Dm,E,Am', 'Am, Dm, E, Am'],
    ['C,Am,Dm,G', 'C, Am, Dm, G'],
    ['G,Em,C,D', 'G, Em, C, D'],
    ['D,A,E,A', 'D, A, E, A'],
    ['Em,Am,D7,G', 'Em, Am, D7, G'],
    ['A,Am,A7,D,Dm,D7,E,Em,E7', 'major, minor and seventh of A, D and E'],
  ],
  typed: {
    hint: `up to ${LONGEST_ROW} of ${CHORD_NAMES.join(', ')}`,
    accepts: (text) => maybeChordRow(text) !== null,
  },
};
