import type { Pluck } from '../../score/model';
import type { DrillEvent, DrillKind } from '../drill';
import { ACCENTS, SOUND } from '../treatments';
import { HEALTH, single, stopped } from '../vocabulary';

const GROUPS = 8;
/** Groups that do not fill a bar of four quarters. */
const METRES: Readonly<Record<number, { beats: number; beatType: number }>> = {
  3: { beats: 6, beatType: 8 },
  5: { beats: 5, beatType: 8 },
};

/** Source: handbook 13, "tremolo": one fixed order, p on any string below. */
export const TREMOLO_DRILL: DrillKind = {
  id: 'tremolo',
  title: 'Tremolo',
  trains: 'one order of strokes on one string while the thumb goes from string to string',
  watch: [
    'all strokes equally far apart and equally loud; hold a finger to the string before it plays',
    'p lands where it played and waits there; the wrist does not follow it',
    'a touches the string as soon as i has left it',
  ],
  steps: 'eight groups, the thumb from string to string and back',
  passes: [
    ['slowly, each finger planted', 4],
    ['groups of two and a stop', 4],
    ['through, with the bass louder', 2],
  ],
  caution: HEALTH.speed,
  ladder: [60, 72, 84, 96, 108, 120, 132],
  parameters: [
    {
      id: 'order',
      label: 'Order',
      values: [
        ['pami', 'p a m i'],
        ['pima', 'p i m a'],
        ['paim', 'p a i m'],
        ['pmim', 'p m i m'],
        ['piami', 'p i a m i'],
        ['pmi', 'p m i'],
        ['pim', 'p i m'],
        ['pi', 'p i'],
        ['pm', 'p m'],
      ],
    },
    {
      id: 'strings',
      label: 'Thumb on',
      values: [
        ['6543', '6 to 3'],
        ['65432', '6 to 2'],
        ['4', '4 alone'],
      ],
    },
    {
      id: 'on',
      label: 'Fingers on',
      values: [
        ['1', 'the first string'],
        ['2', 'the second string'],
      ],
    },
    {
      id: 'choke',
      label: 'Second note',
      values: [
        ['no', 'rings'],
        ['yes', 'choked'],
      ],
    },
    ACCENTS,
    SOUND,
  ],
  make: ({ order, strings, on, choke }) => {
    const treble = Number(on);
    const basses = [...strings!].map(Number).filter((string) => string > treble);
    const there = [...basses, ...[...basses].reverse().slice(1)];
    const events = Array.from({ length: GROUPS }, (_, group) => there[group % there.length]!).flatMap(
      (bass): readonly DrillEvent[] =>
        [...order!].map((letter, k) => ({
          ...single(stopped(letter === 'p' ? bass : treble, 0, 0, letter as Pluck)),
          ...(choke === 'yes' && k === 1 && { choked: true }),
        })),
    );
    return {
      voices: [events],
      fifths: 0,
      metre: METRES[order!.length] ?? { beats: 4, beatType: 4 },
    };
  },
};
