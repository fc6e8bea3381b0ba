import type { Pluck } from '../../score/model';
import { CHORD_SHAPES } from '../chordShapes';
import type { DrillEvent, DrillKind } from '../drill';
import { HEALTH, orders, single } from '../vocabulary';

const FINGERS = ['i', 'm', 'a'] as const;

/** The 24 orders in four columns by their first letter, and the six that follow a thumb. Source: handbook 6 and 9. */
export function ordersOf(column: string): readonly (readonly Pluck[])[] {
  if (column === 'afterThumb') return orders<Pluck>([...FINGERS]).map((rest) => ['p', ...rest]);
  const all = orders<Pluck>(['p', ...FINGERS]);
  return column === 'all' ? all : all.filter(([first]) => first === column);
}

export const RIGHT_HAND_ORDERS: DrillKind = {
  id: 'right-hand-orders',
  title: 'Orders of p i m a',
  trains: 'every order of thumb and fingers, each finger on its own string',
  watch: [
    'the stroke comes from the big joint and goes into the hand',
    'p moves from its base, outside the fingers',
    'fingers and thumb exchange: one closes while the next opens',
  ],
  passes: ['preparation on the strings', 'closeness after the stroke', 'sound'],
  caution: HEALTH.speed,
  ladder: [60, 72, 84, 100, 120],
  parameters: [
    {
      id: 'column',
      label: 'Orders',
      values: [
        ['p', 'the six that begin with p'],
        ['i', 'the six that begin with i'],
        ['m', 'the six that begin with m'],
        ['a', 'the six that begin with a'],
        ['afterThumb', 'i m a in every order after p'],
        ['all', 'all 24'],
      ],
    },
    {
      id: 'times',
      label: 'Each',
      values: [
        ['2', 'twice'],
        ['1', 'once'],
        ['4', 'four times'],
      ],
    },
    {
      id: 'chord',
      label: 'Over',
      values: [
        ['Am', 'A minor'],
        ['C', 'C'],
        ['E', 'E'],
        ['D7', 'D 7'],
        ['open', 'open strings'],
      ],
    },
    {
      id: 'set',
      label: 'Strings of i m a',
      values: [
        ['321', '3 2 1'],
        ['432', '4 3 2'],
        ['543', '5 4 3'],
        ['outward', '3 2 1, 4 3 2 and back'],
      ],
    },
  ],
  make: ({ column, times, chord: name, set }) => {
    const sets = set === 'outward' ? ['321', '432', '321'] : [set!];
    const rounds = sets.flatMap((strings) =>
      ordersOf(column!).flatMap((order) =>
        Array<{ order: readonly Pluck[]; strings: string }>(Number(times)).fill({ order, strings }),
      ),
    );
    const events = rounds.flatMap(({ order, strings }) =>
      order.map((letter) => stroke(name!, strings, letter)),
    );
    return { voices: [events], fifths: 0, metre: { beats: 4, beatType: 4 } };
  },
};

/** A finger has its own string of the set; the thumb the chord's bass, or the string next to the set if that is lower. */
function stroke(name: string, set: string, letter: Pluck): DrillEvent {
  const strings = [...set].map(Number);
  const finger = FINGERS.indexOf(letter as (typeof FINGERS)[number]);
  const { bass: lowest, places } = CHORD_SHAPES[name]!;
  const bass = Math.max(lowest, strings[0]! + 1);
  const string = letter === 'p' ? Math.min(6, bass) : strings[finger]!;
  const place = places.find((one) => one.string === string)!;
  return single({ ...place, letter });
}
