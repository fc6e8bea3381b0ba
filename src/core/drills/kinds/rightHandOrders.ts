import type { Pluck } from '../../score/model';
import { CHORD_NAMES, CHORD_SHAPES, placeOn } from '../chordShapes';
import type { DrillEvent, DrillKind } from '../drill';
import { ACCENTS, PICK, SOUND } from '../treatments';
import { HEALTH, orders, single } from '../vocabulary';

const FINGERS = ['i', 'm', 'a'] as const;

/** The 24 orders in four columns by their first letter, and the six that follow a thumb. Source: handbook 6 and 9. */
export function ordersOf(column: string): readonly (readonly Pluck[])[] {
  if (column === 'double') return [['p', 'i', 'm', 'a', 'm', 'i']];
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
  steps: 'order by order as listed, each as often as chosen; then the next set of strings',
  passes: [
    ['preparation on the strings', 4],
    ['closeness after the stroke', 4],
    ['sound', 2],
  ],
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
        ['double', 'p i m a m i, the double arpeggio'],
      ],
    },
    {
      id: 'together',
      label: 'Orders joined',
      values: [
        ['1', 'each alone'],
        ['2', 'in twos'],
        ['3', 'in threes'],
        ['6', 'the whole column'],
      ],
    },
    {
      id: 'begins',
      label: 'Beginning with',
      values: [
        ['first', 'the first'],
        ['last', 'the last, backwards'],
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
      typed: { hint: `one of ${CHORD_NAMES.join(', ')}`, accepts: (text) => CHORD_NAMES.includes(text) },
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
    ACCENTS,
    SOUND,
    PICK,
  ],
  make: ({ column, together, begins, times, chord: name, set }) => {
    const listed = ordersOf(column!);
    const groups = grouped(begins === 'last' ? [...listed].reverse() : listed, Number(together));
    const sets = set === 'outward' ? ['321', '432', '321'] : [set!];
    const events = sets.flatMap((strings) =>
      groups.flatMap((group) =>
        Array.from({ length: Number(times) }, () =>
          group.flat().map((letter) => stroke(name!, strings, letter)),
        ).flat(),
      ),
    );
    const metre = column === 'double' ? { beats: 6, beatType: 8 } : { beats: 4, beatType: 4 };
    return { voices: [events], fifths: 0, metre };
  },
};

/** So many orders, one after the other, are one group. */
function grouped<T>(rows: readonly T[], size: number): readonly (readonly T[])[] {
  return Array.from({ length: Math.ceil(rows.length / size) }, (_, k) =>
    rows.slice(k * size, (k + 1) * size),
  );
}

/** A finger has its own string of the set; the thumb the chord's bass, or the string next to the set if that is lower. */
function stroke(name: string, set: string, letter: Pluck): DrillEvent {
  const strings = [...set].map(Number);
  const finger = FINGERS.indexOf(letter as (typeof FINGERS)[number]);
  const shape = CHORD_SHAPES[name]!;
  const bass = Math.max(shape.bass, strings[0]! + 1);
  const string = letter === 'p' ? Math.min(6, bass) : strings[finger]!;
  return single({ ...placeOn(shape, string), letter });
}
