import { fingertipMm } from '../../instrument/fretboard';
import { pairOf } from '../../instrument/handProfile';
import type { Player } from '../../instrument/hands';
import type { DrillKind } from '../drill';
import { ACCENTS, PICK, RHYTHM } from '../treatments';
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
  steps: 'pair by pair, the weakest first and again last; each four times on every string named',
  passes: [
    ['the pair alone', 4],
    ['the resting fingers', 4],
    ['across the strings without looking', 2],
  ],
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
    {
      ...POSITIONS,
      values: [['reach', 'as low as the hand is at ease'], ...[...POSITIONS.values].reverse()],
    },
    STRING_SETS,
    { ...ALTERNATIONS, values: [...ALTERNATIONS.values].reverse() },
    RHYTHM,
    ACCENTS,
    PICK,
  ],
  make: ({ pair, way, position, strings, letters }, player) => {
    const pairs = pair === 'all' ? ALL_PAIRS : [pair!];
    const rows = pairs.flatMap((one) =>
      stringsOf(strings!).flatMap((string, k, all) =>
        roundsOf(
          one,
          way!,
          position === 'reach' ? positionAtEase(one, player) : Number(position),
          string,
          all[k + 1] ?? all[k - 1] ?? string,
        ),
      ),
    );
    return { voices: [played(rows, letters!)], fifths: 0, metre: { beats: 4, beatType: 4 } };
  },
};

const LOWEST_POSITIONS = [1, 2, 3, 4, 5, 6, 7, 8, 9] as const;

/**
 * The lowest position in which two fingers, each over its fret, are no further apart than is easy for them: higher up
 * the frets are narrower. Source: handbook 9, "starting higher up the neck if the stretch is hard".
 */
export function positionAtEase(pair: string, { hand, fretboard }: Player): number {
  const [low, high] = [...pair].map(Number);
  const apartMm = (position: number) =>
    fingertipMm(position + high! - 1, fretboard.scaleLengthMm) -
    fingertipMm(position + low! - 1, fretboard.scaleLengthMm);
  return (
    LOWEST_POSITIONS.find((position) => apartMm(position) <= hand.reach[pairOf(low!, high!)].atEaseMm) ??
    LOWEST_POSITIONS.at(-1)!
  );
}

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
