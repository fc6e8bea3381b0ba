import { harmonicSemitones } from '../../instrument/harmonics';
import type { DrillEvent, DrillKind, DrillNote } from '../drill';
import { HEALTH, STRING_SETS, stringsOf } from '../vocabulary';

/** Touched frets and the order that sounds there. Source: handbook 3, "Harmonics". */
const NODES: Readonly<Record<string, number>> = { '12': 2, '7': 3, '5': 4, '9': 5, '4': 5 };

export const NATURAL_HARMONICS: DrillKind = {
  id: 'natural-harmonics',
  title: 'Natural harmonics',
  trains: 'a finger that touches the string over the wire and is gone when it sounds',
  watch: [
    'the finger lies flat over the wire itself, not behind it; at frets 4 and 9 a little towards the nut',
    'touch, pluck, and lift at once: the finger does not wait to hear it',
    'the higher the harmonic, the nearer to the bridge it is plucked',
  ],
  passes: ['the place of the touch', 'the moment of lifting', 'ringing over each other'],
  caution: HEALTH.press,
  ladder: [60, 66, 72],
  parameters: [
    {
      id: 'nodes',
      label: 'Touched at fret',
      values: [
        ['12', '12'],
        ['7', '7'],
        ['5', '5'],
        ['12,7,5', '12, 7, 5'],
        ['9', '9'],
        ['4', '4'],
      ],
    },
    STRING_SETS,
    {
      id: 'finger',
      label: 'Touched by',
      values: [
        ['4', '4'],
        ['3', '3'],
        ['1', '1'],
      ],
    },
  ],
  make: ({ nodes, strings, finger }) => {
    const events = nodes!.split(',').flatMap((fret) =>
      stringsOf(strings!).map((string): DrillEvent => {
        const letter = string >= 4 ? 'p' : (['', 'a', 'm', 'i'][string] as 'a' | 'm' | 'i');
        const note: DrillNote = {
          string,
          fret: Number(fret),
          finger: Number(finger),
          letter,
          soundsAbove: Math.round(harmonicSemitones(NODES[fret]!)),
        };
        return { notes: [note], eighths: 2 };
      }),
    );
    return { voices: [events], fifths: 0, metre: { beats: 3, beatType: 4 } };
  },
};
