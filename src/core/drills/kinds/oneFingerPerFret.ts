import type { DrillEvent, DrillKind } from '../drill';
import { ACCENTS, PICK, RHYTHM } from '../treatments';
import {
  ALTERNATIONS,
  andBack,
  type FrettedPlace,
  HEALTH,
  played,
  STRING_SETS,
  stringsOf,
} from '../vocabulary';

const FINGERS = [1, 2, 3, 4] as const;

/** Up with the fingers left down, down with all planted together. Source: handbook 9. */
export const ONE_FINGER_PER_FRET: DrillKind = {
  id: 'one-finger-per-fret',
  title: 'One finger per fret',
  trains: 'each finger over its own fret, the hand carried by the arm from position to position',
  watch: [
    'fingers stay down going up; coming down all four are planted before the first note',
    'the thumb stays opposite 2 and is carried by the arm in a shift, not dragged behind',
    'fingertips close to the strings and just behind the frets; 4 is never pulled into the palm',
  ],
  steps: 'position by position in the order named; in each from the first string named to the last, and back',
  passes: [
    ['where each finger lands', 4],
    ['how close the waiting fingers stay', 4],
    ['an even sound', 2],
  ],
  caution: HEALTH.stretch,
  ladder: [60, 72, 84, 96, 108],
  parameters: [
    {
      id: 'positions',
      label: 'Positions',
      values: [
        ['5', 'V'],
        ['1,5,9', 'I, V, IX'],
        ['9,5,1', 'IX, V, I'],
        ['1,3,5,7,9', 'I, III, V, VII, IX'],
        ['1', 'I'],
        ['3', 'III'],
        ['7', 'VII'],
        ['9', 'IX'],
      ],
    },
    STRING_SETS,
    {
      id: 'open',
      label: 'Open string first',
      values: [
        ['no', 'no'],
        ['yes', 'yes'],
      ],
    },
    {
      id: 'pause',
      label: 'At each shift',
      values: [
        ['none', 'no pause'],
        ['beat', 'a beat of rest'],
        ['bar', 'a new bar'],
      ],
    },
    {
      id: 'stroke',
      label: 'Stroke',
      values: [
        ['lines', 'rest stroke'],
        ['never', 'free stroke'],
      ],
    },
    ALTERNATIONS,
    RHYTHM,
    ACCENTS,
    PICK,
  ],
  make: ({ positions, strings, open, pause, stroke, letters }) => {
    const rows = positions!
      .split(',')
      .map((position) => inPosition(Number(position), stringsOf(strings!), open === 'yes'));
    const events = rows.flatMap((row, k): readonly DrillEvent[] => {
      const [first, ...rest] = played(row, letters!);
      if (k === 0 || pause === 'none') return [first!, ...rest];
      const after = pause === 'bar' ? { ...first!, begins: { words: '' } } : first!;
      return [...(pause === 'beat' ? [{ notes: [], eighths: 2, says: 'shift' }] : []), after, ...rest];
    });
    return {
      voices: [events],
      fifths: 0,
      metre: { beats: 4, beatType: 4 },
      settings: { restStrokes: stroke! },
    };
  },
};

function inPosition(position: number, strings: readonly number[], open: boolean): readonly FrettedPlace[] {
  return andBack(
    strings.flatMap((string) => [
      ...(open ? [{ string, fret: 0, finger: 0 }] : []),
      ...FINGERS.map((finger) => ({ string, fret: position + finger - 1, finger })),
    ]),
  );
}
