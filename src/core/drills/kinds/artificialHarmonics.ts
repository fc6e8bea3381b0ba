import { CHORD_NAMES, CHORD_SHAPES } from '../chordShapes';
import { fretDistanceMm } from '../../instrument/fretboard';
import type { DrillEvent, DrillKind, DrillNote } from '../drill';
import { HEALTH } from '../vocabulary';

const OCTAVE = 12;
const LINE_STRINGS: Readonly<Record<string, number>> = { line1: 1, line2: 2, line3: 3 };
const LINE_FRETS = [0, 1, 2, 3, 4] as const;

/** Source: handbook 3: stopped at f, touched over f + 12 by i, plucked by a or p as far from i as it can. */
export const ARTIFICIAL_HARMONICS: DrillKind = {
  id: 'artificial-harmonics',
  title: 'Artificial octave harmonics',
  trains: 'i that touches twelve frets above the left hand and another finger that plucks behind it',
  watch: [
    'i follows the shape of the left hand, twelve frets higher, string by string',
    'the plucking finger is as far from i as the hand opens: the nearer, the duller',
    'i leaves the string in the moment of the stroke, as at a natural harmonic',
  ],
  steps: 'a line fret by fret, or a chord string by string from its bass; each note twice',
  passes: [
    ['the touch alone: a dull sound shows that it lies', 4],
    ['touch and pluck, slowly', 4],
    ['as a line, every note as long as the next', 2],
  ],
  caution: HEALTH.press,
  ladder: [60, 66, 72],
  parameters: [
    {
      id: 'what',
      label: 'What',
      values: [
        ['line1', 'a chromatic line on the first string'],
        ['line2', 'a chromatic line on the second string'],
        ['line3', 'a chromatic line on the third string'],
        ['Am', 'A minor, broken'],
        ['C', 'C, broken'],
        ['E', 'E, broken'],
      ],
      typed: { hint: `one of ${CHORD_NAMES.join(', ')}`, accepts: (text) => CHORD_NAMES.includes(text) },
    },
    {
      id: 'plucks',
      label: 'Plucked by',
      values: [
        ['a', 'a'],
        ['p', 'p'],
      ],
    },
  ],
  facts: ({ what }, { fretboard }) =>
    placesOf(what!).map(
      ({ string, fret }) =>
        `String ${string}, fret ${fret}: i touches over fret ${fret! + OCTAVE}, ${fretDistanceMm(fret! + OCTAVE, fretboard.scaleLengthMm).toFixed(1)} mm from the nut.`,
    ),
  make: ({ what, plucks }) => {
    const events = placesOf(what!).flatMap((place): readonly DrillEvent[] => {
      const note: DrillNote = { ...place, letter: plucks as 'a' | 'p', harmonic: 'artificial' };
      return [
        { notes: [note], eighths: 2, says: `i over ${place.fret! + OCTAVE}` },
        { notes: [note], eighths: 2 },
      ];
    });
    return { voices: [events], fifths: 0, metre: { beats: 4, beatType: 4 } };
  },
};

function placesOf(what: string): readonly DrillNote[] {
  const string = LINE_STRINGS[what];
  if (string !== undefined) return LINE_FRETS.map((fret) => ({ string, fret, finger: fret, letter: null }));
  const { bass, places } = CHORD_SHAPES[what]!;
  return places.filter((place) => place.string! <= bass);
}
