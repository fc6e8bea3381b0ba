import type { Pluck } from '../../score/model';
import { CHORD_NAMES, CHORD_SHAPES, type ChordShape, placeOn } from '../chordShapes';
import type { DrillEvent, DrillKind, DrillNote } from '../drill';
import { ACCENTS, PICK, SOUND } from '../treatments';
import { HEALTH } from '../vocabulary';

/** What follows the thumb on each beat, and how many eighths all of it takes. Source: handbook 9, levels of p against fingers. */
const LEVELS: Readonly<Record<string, readonly (readonly Pluck[])[]>> = {
  together: [['p'], ['i', 'm', 'a']],
  two: [['p'], ['m']],
  three: [['p'], ['i'], ['m']],
  four: [['p'], ['i'], ['m'], ['a']],
};
const FINGER_STRING: Readonly<Record<string, number>> = { i: 3, m: 2, a: 1 };
/** The tune of the thumb: strings of a chord's bass and back. */
const TUNES: Readonly<Record<string, readonly number[]>> = {
  bass: [0, 0, 0, 0],
  walk: [0, 1, 2, 1],
};
const BEATS = 4;

export const THUMB_LEVELS: DrillKind = {
  id: 'thumb-levels',
  title: 'Thumb against fingers',
  trains: 'a thumb with a tune of its own under trebles that repeat, one note a beat more at each level',
  watch: [
    'the chord lies still: what moves is the right hand alone',
    'the thumb is heard as a tune; the trebles are half as loud',
    'when the notes blur, slow down until each is apart',
  ],
  steps:
    'level by level: struck together, two notes a beat, three, four; the shape moved a fret up and back if chosen',
  passes: [
    ['the thumb alone, on its strings', 4],
    ['thumb and trebles, the tune louder', 4],
    ['all levels without a stop', 2],
  ],
  caution: HEALTH.speed,
  ladder: [60, 66, 72, 80, 88, 96],
  parameters: [
    {
      id: 'level',
      label: 'Level',
      values: [
        ['all', 'all four, one after the other'],
        ['together', 'i m a struck together after p'],
        ['two', 'p and one finger'],
        ['three', 'p i m'],
        ['four', 'p i m a'],
      ],
    },
    {
      id: 'tune',
      label: 'Thumb',
      values: [
        ['walk', 'walks over three strings'],
        ['bass', 'stays on the lowest'],
      ],
    },
    {
      id: 'chord',
      label: 'Over',
      values: [
        ['E', 'E'],
        ['Am', 'A minor'],
        ['C', 'C'],
        ['open', 'open strings'],
      ],
      typed: { hint: `one of ${CHORD_NAMES.join(', ')}`, accepts: (text) => CHORD_NAMES.includes(text) },
    },
    {
      id: 'moved',
      label: 'Shape',
      values: [
        ['no', 'stays'],
        ['yes', 'a fret up and back'],
      ],
    },
    ACCENTS,
    SOUND,
    PICK,
  ],
  make: ({ level, tune, chord, moved }) => {
    const levels = level === 'all' ? Object.keys(LEVELS) : [level!];
    const offsets = moved === 'yes' ? [0, 1, 0] : [0];
    const voices = levels.flatMap((one) =>
      offsets.flatMap((offset, k) => {
        const beats = TUNES[tune!]!.slice(0, BEATS).map((step) =>
          beatOf(CHORD_SHAPES[chord!]!, one, step, offset),
        );
        const [first, ...rest] = beats.flat();
        return k === 0 && levels.length > 1
          ? [{ ...first!, begins: { words: WORDS[one]! } }, ...rest]
          : [first!, ...rest];
      }),
    );
    return { voices: [voices], fifths: 0, metre: { beats: 4, beatType: 4 } };
  },
};

const WORDS: Readonly<Record<string, string>> = {
  together: 'p, then i m a together',
  two: 'two notes a beat',
  three: 'three notes a beat',
  four: 'four notes a beat',
};

/** A beat has the length of two eighths, whatever is in it. */
function beatOf(shape: ChordShape, level: string, step: number, offset: number): readonly DrillEvent[] {
  const rows = LEVELS[level]!;
  const eighths = 2 / rows.length;
  return rows.map((letters) => ({
    notes: letters.map((letter) =>
      moved({ ...placeOn(shape, stringOf(shape, letter, step)), letter }, offset),
    ),
    eighths,
  }));
}

/** The thumb's tune stays below the trebles. */
const stringOf = ({ bass }: ChordShape, letter: Pluck, step: number): number =>
  letter === 'p' ? Math.max(4, bass - step) : FINGER_STRING[letter]!;

/** Stopped notes go along the neck, open strings stay. */
const moved = (note: DrillNote, offset: number): DrillNote =>
  note.fret ? { ...note, fret: note.fret + offset } : note;
