import type { DrillKind } from '../drill';
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
  passes: ['where each finger lands', 'how close the waiting fingers stay', 'an even sound'],
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
        ['1', 'I'],
        ['7', 'VII'],
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
    ALTERNATIONS,
  ],
  make: ({ positions, strings, open, letters }) => {
    const rows = positions!
      .split(',')
      .flatMap((position) => inPosition(Number(position), stringsOf(strings!), open === 'yes'));
    return { voices: [played(rows, letters!)], fifths: 0, metre: { beats: 4, beatType: 4 } };
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
