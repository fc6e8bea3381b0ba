import { openMidi, STANDARD_TUNING } from '../../instrument/tuning';
import type { DrillEvent, DrillKind } from '../drill';
import { andBack, HEALTH, stopped } from '../vocabulary';

/** Strings that an interval lies on, and how many degrees of the scale it spans. */
const INTERVALS: Readonly<
  Record<string, { readonly degrees: number; readonly low: number; readonly high: number }>
> = {
  thirds: { degrees: 2, low: 2, high: 1 },
  sixths: { degrees: 5, low: 3, high: 1 },
  octaves: { degrees: 7, low: 4, high: 2 },
  tenths: { degrees: 9, low: 4, high: 1 },
};
/** E minor's notes lie open under it; the bass is the sixth string. */
const SCALE = [0, 2, 3, 5, 7, 8, 10] as const;
const BASS = 6;
const STEPS = 7;

const degree = (k: number) => 12 * Math.floor(k / 7) + SCALE[((k % 7) + 7) % 7]!;

/** Source: handbook 9, "parallel thirds up the neck over an open bass with the shift on the open string". */
export const INTERVALS_UP_THE_NECK: DrillKind = {
  id: 'intervals',
  title: 'Intervals up the neck',
  trains: 'two fingers that go along two strings, and a shift while the thumb plays the open bass',
  watch: [
    'the fingers stay on their strings through the shift and only let go of the weight',
    'the arm begins to move when the bass is struck, not when the next interval is due',
    'palm level with the strings: the hand does not turn as the frets grow narrow',
  ],
  steps: 'degree by degree up the neck and back; in turn, three frets of one position before the shift',
  passes: [
    ['the shift on the bass alone', 4],
    ['without pressing', 4],
    ['with both notes equally loud', 2],
  ],
  caution: HEALTH.press,
  ladder: [60, 66, 72, 80],
  parameters: [
    {
      id: 'interval',
      label: 'Interval',
      values: [
        ['thirds', 'thirds'],
        ['sixths', 'sixths'],
        ['octaves', 'octaves'],
        ['tenths', 'tenths'],
      ],
    },
    {
      id: 'letters',
      label: 'Above the bass',
      values: [
        ['im', 'i m together'],
        ['broken', 'i, then m'],
        ['back', 'i, m, i'],
      ],
    },
    {
      id: 'fingers',
      label: 'Fingers',
      values: [
        ['scale', 'as the scale falls'],
        ['turn', '1 2, 2 3, 3 4 in turn, then the shift'],
      ],
    },
    {
      id: 'times',
      label: 'Each',
      values: [
        ['1', 'once'],
        ['2', 'twice'],
      ],
    },
  ],
  make: ({ interval, letters, fingers, times }) => {
    const { degrees, low, high } = INTERVALS[interval!]!;
    const row =
      fingers === 'turn'
        ? inTurn(interval!, low, high)
        : Array.from({ length: STEPS + 1 }, (_, k) => pairAt(k, degrees, low, high));
    const events = andBack(row).flatMap(([below, above]): readonly DrillEvent[] => {
      const bass = { notes: [stopped(BASS, 0, 0, 'p')], eighths: 2 };
      const [i, m] = [
        { ...below!, letter: 'i' as const },
        { ...above!, letter: 'm' as const },
      ];
      const chord: readonly DrillEvent[] =
        letters === 'im'
          ? [{ notes: [i, m], eighths: 2 }]
          : letters === 'back'
            ? [i, m, i].map((note) => ({ notes: [note], eighths: 1 }))
            : [i, m].map((note) => ({ notes: [note], eighths: 1 }));
      const once = letters === 'back' ? [{ ...bass, eighths: 1 }, ...chord] : [bass, ...chord];
      return times === '2' ? [...once, ...once] : once;
    });
    return { voices: [events], fifths: 1, metre: { beats: 2, beatType: 4 } };
  },
};

/** How the two strings' frets lie to each other in each interval's commonest shape: low string less high. */
const LEANS: Readonly<Record<string, number>> = { thirds: 1, sixths: 1, octaves: -1, tenths: 1 };
const TURNS = [0, 1, 2] as const;
const TURN_POSITIONS = [1, 4, 7] as const;

/** A shape of two neighbouring frets that goes up fret by fret with 1 2, 2 3 and 3 4, then the hand shifts. */
function inTurn(interval: string, low: number, high: number) {
  const isLowAhead = LEANS[interval]! > 0;
  return TURN_POSITIONS.flatMap((position) =>
    TURNS.map((k) => {
      const [back, ahead] = [position + k, position + k + 1];
      const [backFinger, aheadFinger] = [k + 1, k + 2];
      return isLowAhead
        ? [stopped(low, ahead, aheadFinger, null), stopped(high, back, backFinger, null)]
        : [stopped(low, back, backFinger, null), stopped(high, ahead, aheadFinger, null)];
    }),
  );
}

/** Degrees of E minor from the lowest that the lower string has; the lower finger is the one further back. */
function pairAt(k: number, degrees: number, low: number, high: number) {
  const fretOf = (string: number, semitones: number) => 40 + semitones - openMidi(STANDARD_TUNING, string);
  const firstAbove = (string: number) => {
    let n = 0;
    while (fretOf(string, degree(n)) < 1) n++;
    return n;
  };
  const start = Math.max(firstAbove(low), firstAbove(high) - degrees) + k;
  const [below, above] = [fretOf(low, degree(start)), fretOf(high, degree(start + degrees))];
  const apart = above - below;
  const [lowFinger, highFinger] =
    apart === 0 ? [2, 3] : apart > 0 ? [1, Math.min(4, 1 + apart)] : [1 - apart > 3 ? 4 : 1 - apart, 1];
  return [stopped(low, below, lowFinger!, null), stopped(high, above, highFinger!, null)];
}
