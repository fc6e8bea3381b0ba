/**
 * Chord shapes of an open data set (@tombatossals/chords-db) with sound fingers, and every fingering of the same
 * strings and frets that a hand can do.
 */
import database from '@tombatossals/chords-db/lib/guitar.json';
import { playable } from '../src/core/fingering/left/rules/constraints';
import type { Placement } from '../src/core/fingering/left/rules/place';
import { CONCERT_FRETBOARD } from '../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../src/core/instrument/hands';

export interface ChordShape {
  readonly name: string;
  /** From the sixth string to the first, as far as they sound. */
  readonly placements: readonly Placement[];
}

interface DatabasePosition {
  readonly frets: readonly number[];
  readonly fingers: readonly number[];
  readonly baseFret: number;
}

interface DatabaseChord {
  readonly key: string;
  readonly suffix: string;
  readonly positions: readonly DatabasePosition[];
}

/** Frets count from the base fret; −1 is a string that is not played. */
function shapeOf(name: string, { frets, fingers, baseFret }: DatabasePosition): ChordShape {
  const placements = frets.flatMap((fret, k) =>
    fret < 0 ? [] : [{ string: 6 - k, fret: fret === 0 ? 0 : fret + baseFret - 1, finger: fingers[k]! }],
  );
  return { name, placements };
}

/** A finger for each stopped note, none for open ones, and no finger at two frets. */
function isSound({ placements }: ChordShape): boolean {
  const fretOf = new Map<number, number>();
  return placements.every(({ fret, finger }) => {
    if ((fret === 0) !== (finger === 0)) return false;
    const known = fretOf.get(finger);
    fretOf.set(finger, fret);
    return known === undefined || known === fret;
  });
}

/** All sound shapes, in the order of the data set. */
export const CHORD_SHAPES: readonly ChordShape[] = Object.values(
  database.chords as unknown as Readonly<Record<string, readonly DatabaseChord[]>>,
)
  .flat()
  .flatMap(({ key, suffix, positions }) =>
    positions.map((one, k) => shapeOf(`${key} ${suffix} ${k + 1}`, one)),
  )
  .filter(isSound);

/** Three of four: the others were once fitted to. */
export const checkingShapes = CHORD_SHAPES.filter((_one, k) => k % 4 !== 0);

/** Every fingering of the same strings and frets that this hand can do. */
export function fingeringsOf({ placements }: ChordShape): readonly (readonly Placement[])[] {
  const found: Placement[][] = [];
  const choose = (chosen: Placement[]) => {
    if (!playable(chosen, CONCERT_FRETBOARD, { ...ADULT_MEDIUM, highestFret: 24 })) return;
    const next = placements[chosen.length];
    if (!next) return void found.push(chosen);
    for (const finger of next.fret === 0 ? [0] : [1, 2, 3, 4]) choose([...chosen, { ...next, finger }]);
  };
  choose([]);
  return found;
}
