import type { DrillEvent, DrillKind } from '../drill';
import {
  ALTERNATIONS,
  HEALTH,
  POSITIONS,
  single,
  stopped,
  STRING_SETS,
  stringsOf,
  turn,
} from '../vocabulary';

const ROUNDS = 4;

/** Source: handbook 8: up from a lower finger or the open string, down to a finger that is already there. */
export const SLUR_PAIRS: DrillKind = {
  id: 'slur-pairs',
  title: 'Slurs by pair',
  trains: 'the second note from the left hand alone, as loud as the first',
  watch: [
    'up: the finger falls from its big joint, straight down behind the fret',
    'down: the lower finger lies before the upper one pulls off, and the pull goes towards the palm',
    'one stroke for two notes: the right hand waits',
  ],
  steps: 'four times on every string named, up and down in turn where both are chosen',
  passes: [
    ['the weight of the falling finger', 4],
    ['equal loudness', 4],
    ['equal time', 2],
  ],
  caution: HEALTH.press,
  ladder: [60, 66, 72, 80],
  parameters: [
    {
      id: 'pair',
      label: 'Pair',
      values: [
        ['12', '1 2'],
        ['13', '1 3'],
        ['23', '2 3'],
        ['24', '2 4'],
        ['34', '3 4'],
        ['14', '1 4'],
        ['01', 'open and 1'],
        ['02', 'open and 2'],
      ],
    },
    {
      id: 'way',
      label: 'Way',
      values: [
        ['up', 'up'],
        ['down', 'down'],
        ['both', 'up and down in turn'],
      ],
    },
    { ...POSITIONS, values: [...POSITIONS.values].reverse() },
    { ...STRING_SETS, values: [...STRING_SETS.values].reverse() },
    ALTERNATIONS,
  ],
  make: ({ pair, way, position, strings, letters }) => {
    const [low, high] = [...pair!].map(Number);
    const rounds = stringsOf(strings!).flatMap((string) =>
      Array.from({ length: ROUNDS }, (_, k) => ({ string, k })),
    );
    const events = rounds.flatMap(({ string, k }, stroke): readonly DrillEvent[] => {
      const fretOf = (finger: number) => (finger === 0 ? 0 : Number(position) + finger - 1);
      const isDown = way === 'down' || (way === 'both' && k % 2 === 1);
      const [first, second] = isDown ? [high!, low!] : [low!, high!];
      return [
        single(stopped(string, fretOf(first), first, turn(letters!, stroke))),
        single(stopped(string, fretOf(second), second, null), 1, true),
      ];
    });
    return { voices: [events], fifths: 0, metre: { beats: 4, beatType: 4 } };
  },
};
