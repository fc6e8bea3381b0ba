import type { Pluck } from '../../score/model';
import type { DrillEvent, DrillKind, DrillNote } from '../drill';
import { HEALTH } from '../vocabulary';

/** Shapes without open strings: string, fret above the position, finger. Common practice. */
const SHAPES: Readonly<
  Record<string, readonly (readonly [string: number, above: number, finger: number])[]>
> = {
  third: [
    [3, 0, 1],
    [2, 1, 2],
  ],
  triad: [
    [4, 2, 3],
    [3, 1, 2],
    [2, 0, 1],
  ],
  minor: [
    [4, 2, 3],
    [3, 0, 1],
    [2, 1, 2],
  ],
  four: [
    [4, 2, 3],
    [3, 2, 4],
    [2, 1, 2],
    [1, 0, 1],
  ],
};
const LETTERS: Readonly<Record<number, readonly Pluck[]>> = {
  2: ['i', 'm'],
  3: ['i', 'm', 'a'],
  4: ['p', 'i', 'm', 'a'],
};

/** Source: handbook 9: release and travel on the strings, then the same without pressing. */
export const RELEASE_AND_MOVE: DrillKind = {
  id: 'release-and-move',
  title: 'Release and move',
  trains:
    'a shape that travels along the strings without leaving them, and a chord that is let go after it is heard',
  watch: [
    'release is not lifting: the fingertips stay in touch with the strings',
    'the arm carries the shape; the wrist keeps its angle and the palm stays level',
    'hold and feel where the weight is before anything moves',
  ],
  steps: 'lay, play, hold, release, travel; position after position and back; then the same without pressing',
  passes: [
    ['the release alone, at one place', 4],
    ['the travel with eyes on the new place', 4],
    ['the travel with eyes shut', 2],
  ],
  caution: HEALTH.press,
  ladder: [60, 66, 72],
  parameters: [
    {
      id: 'shape',
      label: 'Shape',
      values: [
        ['triad', 'three fingers, like the top of F'],
        ['third', 'two fingers'],
        ['minor', 'three fingers, minor'],
        ['four', 'four fingers'],
      ],
    },
    {
      id: 'positions',
      label: 'Positions',
      values: [
        ['5,6,7', 'V, VI, VII'],
        ['3,5,7', 'III, V, VII'],
        ['2,4,5,7,9', 'II, IV, V, VII, IX'],
      ],
    },
    {
      id: 'way',
      label: 'Way',
      values: [
        ['both', 'with the chord heard, then without pressing'],
        ['heard', 'with the chord heard'],
      ],
    },
  ],
  make: ({ shape, positions, way }) => {
    const row = positions!.split(',').map(Number);
    const path = [...row, ...[...row].reverse().slice(1)];
    const parts = way === 'both' ? ['heard', 'silent'] : [way!];
    const events = parts.flatMap((part) =>
      path.flatMap((position, k): readonly DrillEvent[] => {
        const bar = part === 'heard' ? heard(shape!, position, k) : silent(position, k);
        const [first, ...rest] = bar;
        return k === 0 && parts.length > 1 ? [{ ...first!, begins: { words: WORDS[part]! } }, ...rest] : bar;
      }),
    );
    return { voices: [events], fifths: 0, metre: { beats: 4, beatType: 4 } };
  },
};

const WORDS: Readonly<Record<string, string>> = { heard: 'heard', silent: 'without pressing' };

const notesOf = (shape: string, position: number): readonly DrillNote[] =>
  SHAPES[shape]!.map(([string, above, finger], k, all) => ({
    string,
    fret: position + above,
    finger,
    letter: LETTERS[all.length]![k]!,
  }));

/** A bar: two beats of the chord, one to let go, one to travel. */
const heard = (shape: string, position: number, k: number): readonly DrillEvent[] => [
  { notes: notesOf(shape, position), eighths: 4, ...(k === 0 && { says: 'play, hold and feel' }) },
  { notes: [], eighths: 2, says: 'release' },
  { notes: [], eighths: 2, says: 'travel' },
];

/** The same bar as steps without a sound. */
const silent = (position: number, k: number): readonly DrillEvent[] => [
  { notes: [], eighths: 4, says: `lie at fret ${position}${k === 0 ? ', no weight' : ''}` },
  { notes: [], eighths: 4, says: 'travel' },
];
