/** Familiar left-hand shapes behind a chord: open ones and movable ones, in standard tuning. Common practice. */
import { openMidi, type Tuning } from '../instrument/tuning';
import { roman } from '../music/roman';
import type { Chord } from './chords';

export interface Shape {
  readonly name: string;
  /** Fret of each string, 1 to 6; null for one that is not played. */
  readonly frets: readonly (number | null)[];
}

interface ShapeRow {
  /** Pitch class of the root at this place of the neck. */
  readonly root: number;
  readonly suffix: string;
  readonly letter: string;
  readonly frets: readonly (number | null)[];
  /** As a barre at fret n it sounds n semitones higher. */
  readonly movable: boolean;
}

const X = null;
const ROWS: readonly ShapeRow[] = [
  { letter: 'C', root: 0, suffix: '', frets: [0, 1, 0, 2, 3, X], movable: false },
  { letter: 'A', root: 9, suffix: '', frets: [0, 2, 2, 2, 0, X], movable: true },
  { letter: 'G', root: 7, suffix: '', frets: [3, 0, 0, 0, 2, 3], movable: false },
  { letter: 'E', root: 4, suffix: '', frets: [0, 0, 1, 2, 2, 0], movable: true },
  { letter: 'D', root: 2, suffix: '', frets: [2, 3, 2, 0, X, X], movable: true },
  { letter: 'A', root: 9, suffix: 'm', frets: [0, 1, 2, 2, 0, X], movable: true },
  { letter: 'E', root: 4, suffix: 'm', frets: [0, 0, 0, 2, 2, 0], movable: true },
  { letter: 'D', root: 2, suffix: 'm', frets: [1, 3, 2, 0, X, X], movable: true },
  { letter: 'C', root: 0, suffix: '7', frets: [0, 1, 3, 2, 3, X], movable: false },
  { letter: 'A', root: 9, suffix: '7', frets: [0, 2, 0, 2, 0, X], movable: true },
  { letter: 'G', root: 7, suffix: '7', frets: [1, 0, 0, 0, 2, 3], movable: false },
  { letter: 'E', root: 4, suffix: '7', frets: [0, 0, 1, 0, 2, 0], movable: true },
  { letter: 'D', root: 2, suffix: '7', frets: [2, 1, 2, 0, X, X], movable: true },
  { letter: 'B', root: 11, suffix: '7', frets: [2, 0, 2, 1, 2, X], movable: false },
  { letter: 'A', root: 9, suffix: 'm7', frets: [0, 1, 0, 2, 0, X], movable: true },
  { letter: 'E', root: 4, suffix: 'm7', frets: [0, 0, 0, 0, 2, 0], movable: true },
  { letter: 'D', root: 2, suffix: 'm7', frets: [1, 1, 2, 0, X, X], movable: true },
  { letter: 'C', root: 0, suffix: 'maj7', frets: [0, 0, 0, 2, 3, X], movable: false },
  { letter: 'A', root: 9, suffix: 'maj7', frets: [0, 2, 1, 2, 0, X], movable: true },
  { letter: 'D', root: 2, suffix: 'maj7', frets: [2, 2, 2, 0, X, X], movable: true },
];

const HIGHEST = 12;

/** All places of a chord's familiar shapes, the lowest first. */
export function shapesOf(chord: Chord): readonly Shape[] {
  const shapes = ROWS.filter((row) => row.suffix === chord.quality.suffix).flatMap((row) => {
    const fret = (chord.root - row.root + 12) % 12;
    if (fret > 0 && (!row.movable || fret > HIGHEST)) return [];
    const name =
      fret === 0 ? `${row.letter}${row.suffix} shape` : `${row.letter}${row.suffix} shape at ${roman(fret)}`;
    return [{ fret, name, frets: row.frets.map((one) => (one === null ? null : one + fret)) }];
  });
  return shapes.sort((a, b) => a.fret - b.fret).map(({ name, frets }) => ({ name, frets }));
}

/** Below this share of the bar's notes a shape is not behind the bar. */
const LEAST_SHARE = 0.5;

/** The shape that gives most of the bar's pitches; of equal ones the lowest. Null when none gives half of them. */
export function maybeShapeBehind(chord: Chord, midis: readonly number[], tuning: Tuning): Shape | null {
  let best: Shape | null = null;
  let bestShare = LEAST_SHARE - 1e-9;
  for (const shape of shapesOf(chord)) {
    const given = new Set(
      shape.frets.flatMap((fret, k) => (fret === null ? [] : [openMidi(tuning, k + 1) + fret])),
    );
    const share = midis.filter((midi) => given.has(midi)).length / Math.max(1, midis.length);
    if (share > bestShare + 1e-9) {
      best = shape;
      bestShare = share;
    }
  }
  return best;
}
