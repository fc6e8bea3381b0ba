import type { DrillKind, DrillMusic, DrillNote, DrillEvent } from '../../drill';
import { HEALTH } from '../../vocabulary';
import { barsWords, inTurn, metreFor, settingOf, shiftWords } from '../common';
import { type Cut, voicesOf } from '../cut';
import { barAt, type Moment, momentsOf, type Passage, type PassageShift } from '../passage';

/** As many as one drill can hold. */
const MOST = 6;
const LONGEST_EIGHTHS = 20;
const ROUNDS = 2;
/** Strokes from which one sees where a hand is. */
const GRIP_STROKES = 2;

/** A way from one grip to the next, of the passage itself. */
export interface Change {
  readonly cut: Cut;
  readonly words: string;
  readonly shift: PassageShift | null;
}

/** Source: handbook 9: the hot spot's own transitions, and nothing else. */
export const changesOf = (passage: Passage): DrillKind => ({
  id: 'piece-changes',
  title: `Changes of ${passage.title}, ${barsWords(passage)}`,
  trains: 'the ways from grip to grip of this passage, with its own distances and its own time',
  watch: [
    'nothing is pressed while the arm travels; the grip lands as a whole',
    'look at the new place before the old one is left',
  ],
  steps: 'change by change as the passage has them, each twice with a rest after it',
  passes: [
    ['the landing: all fingers at once', 4],
    ['what stays down or slides, and only then the rest', 4],
    ['in the time that the piece gives', 2],
  ],
  caution: HEALTH.press,
  ladder: [
    ...new Set([60, Math.round(0.8 * passage.quartersPerMinute), Math.round(passage.quartersPerMinute)]),
  ]
    .filter((bpm) => bpm >= 60)
    .sort((a, b) => a - b),
  parameters: [
    {
      id: 'along',
      label: 'Along the neck',
      values: [
        ['0', 'where it is'],
        ['1,0', 'a fret higher, then where it is'],
        ['2,1,0', 'from two frets higher down to where it is'],
      ],
    },
  ],
  make: ({ along }): DrillMusic => {
    const changes = changesIn(passage);
    const offsets = along!.split(',').map(Number);
    const stretches = changes.flatMap(({ cut, words }) =>
      offsets.flatMap((offset) =>
        Array.from({ length: ROUNDS }, (_, round) => ({
          voices: voicesOf(passage, cut).map((voice) => moved(voice, offset)),
          words: round === 0 ? `${words}${offset > 0 ? `, ${offset} up` : ''}` : '',
        })),
      ),
    );
    return {
      ...settingOf(passage),
      metre: metreFor(Math.max(...changes.map(({ cut }) => cut.to - cut.from))),
      quartersPerMinute: passage.quartersPerMinute,
      voices: inTurn(stretches),
    };
  },
});

/** Its shifts; where the hand stays, the moments at which two fingers and more go to new places. */
export function changesIn(passage: Passage): readonly Change[] {
  const moments = momentsOf(passage);
  const shifts = passage.shifts.map((shift): Change => ({
    cut: cutAround(moments, shift.before, shift.after),
    words: shiftWords(shift, barAt(passage, shift.after).number),
    shift,
  }));
  const regrips = moments.flatMap((moment, k): Change[] => {
    const before = moments[k - 1];
    if (!before || newFingers(before, moment) < 2) return [];
    return [
      {
        cut: cutAround(moments, before.at, moment.at),
        words: `bar ${barAt(passage, moment.at).number}`,
        shift: null,
      },
    ];
  });
  const changes = shifts.length > 0 ? shifts : regrips;
  const kept = changes.length > 0 ? changes : [{ cut: wholeOf(moments), words: '', shift: null }];
  return [...kept]
    .sort((a, b) => tightness(b) - tightness(a))
    .slice(0, MOST)
    .sort((a, b) => a.cut.from - b.cut.from);
}

const tightness = ({ shift }: Change): number => (shift ? shift.neededMs / Math.max(1, shift.windowMs) : 0);

const newFingers = (before: Moment, now: Moment): number =>
  now.notes.filter(
    (note) =>
      note.fret !== 0 &&
      !before.notes.some((other) => other.string === note.string && other.fret === note.fret),
  ).length;

/**
 * From the grip that is left to the end of the first stroke of the new one. An open string shows neither: then it is the
 * stroke before, or after.
 */
function cutAround(moments: readonly Moment[], before: number, after: number): Cut {
  const stops = moments.filter(isStopped);
  const last = Math.max(
    0,
    stops.findLastIndex(({ at }) => at <= before),
  );
  const first = stops.findIndex(({ at }) => at >= after);
  const left = stops[Math.max(0, last - GRIP_STROKES + 1)] ?? moments[0]!;
  const reached = stops[Math.min(stops.length - 1, first + GRIP_STROKES - 1)] ?? moments.at(-1)!;
  const from = Math.max(left.at, after - LONGEST_EIGHTHS / 2);
  return { from, to: Math.max(after + 1, Math.min(reached.at + reached.eighths, from + LONGEST_EIGHTHS)) };
}

const isStopped = ({ notes }: Moment): boolean => notes.some(({ fret }) => fret !== 0);

const wholeOf = (moments: readonly Moment[]): Cut => {
  const from = moments[0]?.at ?? 0;
  const last = moments.at(-1);
  return { from, to: Math.min(from + LONGEST_EIGHTHS, (last?.at ?? from) + (last?.eighths ?? 1)) };
};

/** Stopped notes go up the neck; open strings stay. A natural harmonic has no other place. */
const moved = (voice: readonly DrillEvent[], offset: number): readonly DrillEvent[] =>
  offset === 0
    ? voice
    : voice.map((event) => ({ ...event, notes: event.notes.map((note) => up(note, offset)) }));

const up = (note: DrillNote, offset: number): DrillNote =>
  note.fret && note.midi === undefined ? { ...note, fret: note.fret + offset } : note;
