import type { Pluck } from '../../score/model';
import { CHORD_SHAPES, placeOn } from '../chordShapes';
import type { DrillEvent, DrillKind } from '../drill';
import { type Plan, plantingScript, type Reopening } from '../planting';
import { HEALTH, single } from '../vocabulary';

const ROUNDS = 4;
/** The second time something has to open again. */
const SAID_ROUNDS = 2;
const FINGER_STRING: Readonly<Record<string, number>> = { i: 3, m: 2, a: 1 };

/** Source: handbook 6, "Script of the hand": all at once going up, one after the other coming down; two ways to reopen. */
export const PLANTING: DrillKind = {
  id: 'planting',
  title: 'Planting',
  trains: 'fingers that are on their strings before they play, and when they go back there',
  watch: [
    'the touch is with flesh and nail at once, so that the string makes no noise of its own',
    'a planted finger damps its string: plant as late as the music lets it ring',
    'nothing hurries: there is a stroke of time between touch and sound',
  ],
  steps: 'one order, four times; what is planted and what opens stands at each stroke of the first two times',
  passes: [
    ['touch and stop, without playing', 4],
    ['touch, wait, play', 4],
    ['without the wait', 2],
  ],
  caution: HEALTH.speed,
  ladder: [60, 66, 72, 80],
  parameters: [
    {
      id: 'order',
      label: 'Order',
      values: [
        ['pima', 'p i m a, up'],
        ['pami', 'p a m i, down'],
        ['pimami', 'p i m a m i, up and down'],
      ],
    },
    {
      id: 'reopening',
      label: 'Fingers go back',
      values: [
        ['oneByOne', 'one by one, each as the one before it plays'],
        ['together', 'all together when p plays'],
      ],
    },
    {
      id: 'chord',
      label: 'Over',
      values: [
        ['open', 'open strings'],
        ['E', 'E'],
        ['Am', 'A minor'],
      ],
    },
  ],
  make: ({ order, reopening, chord }) => {
    const letters = [...order!] as Pluck[];
    const script = plantingScript(letters, ROUNDS, reopening as Reopening);
    const shape = CHORD_SHAPES[chord!]!;
    const events = script.map(({ letter, plants, opens }, k): DrillEvent => {
      const words = k < SAID_ROUNDS * letters.length ? wordsOf({ plants, opens }) : '';
      const string = letter === 'p' ? shape.bass : FINGER_STRING[letter]!;
      return { ...single({ ...placeOn(shape, string), letter }, 2), ...(words && { says: words }) };
    });
    return {
      voices: [events],
      fifths: 0,
      metre: letters.length === 6 ? { beats: 6, beatType: 4 } : { beats: 4, beatType: 4 },
      settings: { reopening: reopening! },
    };
  },
};

const wordsOf = ({ plants, opens }: Pick<Plan, 'plants' | 'opens'>): string =>
  [plants.length > 0 ? `plant ${plants.join(' ')}` : '', opens.length > 0 ? `open ${opens.join(' ')}` : '']
    .filter((text) => text !== '')
    .join(', ');
