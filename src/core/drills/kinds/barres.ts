import type { Pluck } from '../../score/model';
import type { DrillEvent, DrillKind } from '../drill';
import { HEALTH, stopped } from '../vocabulary';

/** Letters of a broken barre by how many strings it has, the lowest first. */
const LETTERS: Readonly<Record<number, readonly Pluck[]>> = {
  2: ['i', 'm'],
  3: ['i', 'm', 'a'],
  4: ['p', 'i', 'm', 'a'],
  6: ['p', 'p', 'p', 'i', 'm', 'a'],
};
const EIGHTHS_IN_BAR = 8;

/** Source: handbook 11: from about V downwards, where a barre is lighter than at I; two strings, half, whole. */
export const BARRES: DrillKind = {
  id: 'barres',
  title: 'Barres in steps',
  trains: 'the weight of the arm in place of a squeeze: a few strings first, then more, then further down',
  watch: [
    'the edge of 1 close behind the fret, its bony side on the strings',
    'no squeeze between thumb and 1: the elbow hangs, the arm pulls back a little',
    'pluck string by string and listen which one does not sound; move 1 by a millimetre, do not press',
  ],
  passes: ['laid and let go in each rest', 'every string heard', 'as little weight as will do'],
  caution: HEALTH.press,
  ladder: [60, 66, 72, 80],
  parameters: [
    {
      id: 'width',
      label: 'Strings',
      values: [
        ['2,3,4,6', 'two, three, four, six'],
        ['2', 'two'],
        ['3', 'three'],
        ['4', 'four'],
        ['6', 'all six'],
      ],
    },
    {
      id: 'positions',
      label: 'Positions',
      values: [
        ['5', 'V'],
        ['5,4,3', 'V, IV, III'],
        ['5,4,3,2,1', 'from V down to I'],
        ['7', 'VII'],
      ],
    },
  ],
  make: ({ width, positions }) => {
    const events = positions!
      .split(',')
      .map(Number)
      .flatMap((fret) =>
        width!
          .split(',')
          .map(Number)
          .flatMap((strings) => laid(fret, strings)),
      );
    return { voices: [events], fifths: 0, metre: { beats: 4, beatType: 4 } };
  },
};

/** The strings one by one from the lowest, then time to let go: a bar. */
function laid(fret: number, strings: number): readonly DrillEvent[] {
  const letters = LETTERS[strings]!;
  const struck = letters.map((letter, k): DrillEvent => ({
    notes: [stopped(strings - k, fret, 1, letter)],
    eighths: 1,
  }));
  return [...struck, { notes: [], eighths: EIGHTHS_IN_BAR - strings }];
}
