import type { DrillKind } from '../drill';
import {
  ALTERNATIONS,
  type FrettedPlace,
  HEALTH,
  played,
  POSITIONS,
  STRING_SETS,
  stringsOf,
} from '../vocabulary';

/** The weakest first, and again last. Source: handbook 9, "the weakest pair first and again last". */
const ALL_PAIRS = ['34', '12', '23', '13', '24', '14', '34'] as const;
const ROUNDS = 4;

export const FINGER_PAIRS: DrillKind = {
  id: 'finger-pairs',
  title: 'Finger pairs',
  trains: 'two fingers that take turns without taking the others along',
  watch: [
    'knuckles apart, the wrist flat: the pair moves and the hand does not',
    'the fingers that rest stay a finger’s breadth over their frets',
    'the right hand is free to do anything, one thumb will do',
  ],
  passes: ['the pair alone', 'the resting fingers', 'across the strings without looking'],
  caution: HEALTH.stretch,
  ladder: [60, 66, 72, 80, 88],
  parameters: [
    {
      id: 'pair',
      label: 'Pair',
      values: [
        ['all', 'all six, 3 4 first and last'],
        ['12', '1 2'],
        ['23', '2 3'],
        ['34', '3 4'],
        ['13', '1 3'],
        ['24', '2 4'],
        ['14', '1 4'],
      ],
    },
    {
      id: 'way',
      label: 'Way',
      values: [
        ['up', 'up'],
        ['down', 'down'],
        ['both', 'up and down in turn'],
        ['zigzag', 'zigzag over two strings'],
      ],
    },
    { ...POSITIONS, values: [...POSITIONS.values].reverse() },
    STRING_SETS,
    { ...ALTERNATIONS, values: [...ALTERNATIONS.values].reverse() },
  ],
  make: ({ pair, way, position, strings, letters }) => {
    const pairs = pair === 'all' ? ALL_PAIRS : [pair!];
    const rows = pairs.flatMap((one) =>
      stringsOf(strings!).flatMap((string, k, all) =>
        roundsOf(one, way!, Number(position), string, all[k + 1] ?? all[k - 1] ?? string),
      ),
    );
    return { voices: [played(rows, letters!)], fifths: 0, metre: { beats: 4, beatType: 4 } };
  },
};

/** Four rounds of a pair on a string: a bar of eighths. */
function roundsOf(
  pair: string,
  way: string,
  position: number,
  string: number,
  neighbour: number,
): readonly FrettedPlace[] {
  const [low, high] = [...pair].map(Number);
  const place = (finger: number, on: number): FrettedPlace => ({
    string: on,
    fret: position + finger - 1,
    finger,
  });
  return Array.from({ length: ROUNDS }, (_, round) => {
    const isDown = way === 'down' || (way === 'both' && round % 2 === 1);
    const [first, second] = isDown ? [high!, low!] : [low!, high!];
    return [place(first, string), place(second, way === 'zigzag' ? neighbour : string)];
  }).flat();
}
