import { fretDistanceMm } from '../../instrument/fretboard';
import { harmonicSemitones } from '../../instrument/harmonics';
import type { DrillEvent, DrillKind, DrillNote } from '../drill';
import type { Fretboard } from '../../instrument/fretboard';
import { HEALTH, STRING_SETS, stringsOf } from '../vocabulary';

/** Touched frets and the order that sounds there. Source: handbook 3, "Harmonics". */
const NODES: Readonly<Record<string, number>> = { '12': 2, '7': 3, '5': 4, '9': 5, '4': 5, '19': 3 };

export const NATURAL_HARMONICS: DrillKind = {
  id: 'natural-harmonics',
  title: 'Natural harmonics',
  trains: 'a finger that touches the string over the wire and is gone when it sounds',
  watch: [
    'the finger lies flat over the wire itself, not behind it; at frets 4 and 9 a little towards the nut',
    'touch, pluck, and lift at once: the finger does not wait to hear it',
    'the higher the harmonic, the nearer to the bridge it is plucked',
  ],
  steps: 'node by node as named, each on every string named',
  passes: [
    ['the place of the touch', 4],
    ['the moment of lifting', 4],
    ['ringing over each other', 2],
  ],
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
        ['19', '19'],
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
  facts: ({ nodes }, { fretboard }) => nodes!.split(',').map((fret) => touchWords(Number(fret), fretboard)),
  make: ({ nodes, strings, finger }) => {
    const events = nodes!.split(',').flatMap((fret) =>
      stringsOf(strings!).map((string): DrillEvent => {
        const letter = string >= 4 ? 'p' : (['', 'a', 'm', 'i'][string] as 'a' | 'm' | 'i');
        const note: DrillNote = {
          string,
          fret: Number(fret),
          finger: Number(finger),
          letter,
          harmonic: 'natural',
          soundsAbove: Math.round(harmonicSemitones(NODES[fret]!)),
        };
        return { notes: [note], eighths: 2 };
      }),
    );
    return { voices: [events], fifths: 0, metre: { beats: 3, beatType: 4 } };
  },
};

export interface TouchPoint {
  readonly order: number;
  /** From the nut to where the string is touched, to its mirror point, and to the nearest wire. */
  readonly touchMm: number;
  readonly mirrorMm: number;
  readonly wireMm: number;
}

/** Source: handbook 3: a harmonic of order n is touched at L · k/n. */
export function touchPoint(fret: number, { scaleLengthMm }: Fretboard): TouchPoint {
  const order = NODES[String(fret)]!;
  const wireMm = fretDistanceMm(fret, scaleLengthMm);
  const k = Math.round((order * wireMm) / scaleLengthMm);
  const touchMm = (scaleLengthMm * k) / order;
  return { order, touchMm, mirrorMm: scaleLengthMm - touchMm, wireMm };
}

function touchWords(fret: number, fretboard: Fretboard): string {
  const { order, touchMm, mirrorMm, wireMm } = touchPoint(fret, fretboard);
  const off = touchMm - wireMm;
  const where =
    Math.abs(off) < 1
      ? 'over the wire'
      : `${Math.abs(off).toFixed(1)} mm from the wire, towards the ${off < 0 ? 'nut' : 'bridge'}`;
  const mirror =
    Math.abs(mirrorMm - touchMm) < 0.05 ? '' : `; it sounds the same at ${mirrorMm.toFixed(1)} mm`;
  return `Fret ${fret}, order ${order}: touched ${touchMm.toFixed(1)} mm from the nut, ${where}${mirror}.`;
}
