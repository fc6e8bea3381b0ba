import type { Pluck } from '../../score/model';
import type { DrillEvent, DrillKind } from '../drill';
import { HEALTH, stopped } from '../vocabulary';

/** Letters of a barre that is struck together, by how many strings it has, the lowest first. Source: handbook 13, "chords". */
const LETTERS: Readonly<Record<number, readonly Pluck[]>> = {
  2: ['i', 'm'],
  3: ['i', 'm', 'a'],
  4: ['p', 'i', 'm', 'a'],
  5: ['p', 'p', 'i', 'm', 'a'],
  6: ['p', 'p', 'p', 'i', 'm', 'a'],
};

/** Source: handbook 11: from about V downwards, where a barre is lighter than at I; two strings, half, whole. */
export const BARRES: DrillKind = {
  id: 'barres',
  title: 'Barres in steps',
  trains: 'the weight of the arm in place of a squeeze: a few strings first, then more, then further down',
  watch: [
    'the edge of 1 close behind the fret, its bony side on the strings',
    'no squeeze between thumb and 1: the elbow hangs, the arm pulls back a little',
    'listen which string does not sound and move 1 by a millimetre; do not press',
  ],
  steps:
    'from the highest position down; in each from few strings to many, each struck and let go; the hinge last',
  passes: [
    ['laid, and let go for the open strings', 4],
    ['every string heard', 4],
    ['as little weight as will do', 2],
  ],
  caution: HEALTH.press,
  ladder: [60, 66, 72, 80],
  parameters: [
    {
      id: 'width',
      label: 'Strings',
      values: [
        ['2,3,4,5', 'two, three, four, five'],
        ['2,3,6', 'two, half, whole'],
        ['2', 'two'],
        ['3', 'three'],
        ['4', 'four'],
        ['5', 'five'],
        ['6', 'six'],
        ['hinge', 'hinge: the tip lifts, the trebles stay'],
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
        width === 'hinge'
          ? hinged(fret)
          : width!
              .split(',')
              .map(Number)
              .flatMap((strings) => laid(fret, strings)),
      );
    return { voices: [events], fifths: 0, metre: { beats: 4, beatType: 4 } };
  },
};

/** Laid and struck, then let go so that the same strings sound open: a bar. */
function laid(fret: number, strings: number): readonly DrillEvent[] {
  const struck = (at: number) => LETTERS[strings]!.map((letter, k) => stopped(strings - k, at, 1, letter));
  return [
    { notes: struck(fret), eighths: 4 },
    { notes: struck(0), eighths: 4 },
  ];
}

/** Five strings under 1; the tip lifts so that the fifth sounds open under the trebles, which stay stopped; laid again. */
function hinged(fret: number): readonly DrillEvent[] {
  const trebles = LETTERS[3]!.map((letter, k) => stopped(3 - k, fret, 1, letter));
  const bass = (at: number): DrillEvent => ({ notes: [stopped(5, at, 1, 'p')], eighths: 2 });
  return [
    bass(fret),
    { notes: trebles, eighths: 2 },
    { ...bass(0), says: 'the tip lifts' },
    { notes: trebles, eighths: 2 },
  ];
}
