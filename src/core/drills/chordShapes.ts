/** Open chords as they are taught: places from string 6 to 1, "fret-finger", and the string of the lowest note. Common practice. */
import type { DrillNote } from './drill';

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
  Am: [5, '0-0 0-0 2-2 2-3 1-1 0-0'],
  Dm: [4, '1-1 0-0 0-0 2-2 3-3 1-1'],
  Em: [6, '0-0 2-2 2-3 0-0 0-0 0-0'],
  D7: [4, '2-2 0-0 0-0 2-2 1-1 2-3'],
};

export const CHORD_SHAPES: Readonly<Record<string, ChordShape>> = Object.fromEntries(
  Object.entries(ROWS).map(([name, [bass, text]]) => [name, { bass, places: placesOf(text) }]),
);

function placesOf(text: string): readonly DrillNote[] {
  return text.split(' ').map((place, k) => {
    const [fret, finger] = place.split('-').map(Number);
    return { string: 6 - k, fret: fret!, finger: finger!, letter: null };
  });
}
