/** A passage of a piece with its plan, as strokes in eighths: what drills of a hard place are made from. */
import type { FingeringPlan, PlannedShift } from '../../fingering/report/plan';
import { type Tuning, tuningOrThrow } from '../../instrument/tuning';
import type { Score, ScoreNote } from '../../score/model';
import type { DrillNote } from '../drill';

export interface PassageNote extends DrillNote {
  readonly uid: string;
  readonly voice: string;
  /** In eighths from the beginning of the piece. */
  readonly at: number;
  readonly eighths: number;
  readonly slurred: boolean;
}

export interface PassageBar {
  readonly number: string;
  readonly at: number;
  readonly eighths: number;
}

export interface PassageShift extends Pick<
  PlannedShift,
  'fromPosition' | 'toPosition' | 'distanceMm' | 'windowMs' | 'neededMs'
> {
  /** Where the last note before it and the first after it are struck. */
  readonly before: number;
  readonly after: number;
}

export interface Passage {
  readonly title: string;
  readonly notes: readonly PassageNote[];
  readonly bars: readonly PassageBar[];
  readonly shifts: readonly PassageShift[];
  readonly tuning: Tuning;
  readonly capo: number;
  readonly fifths: number;
  readonly metre: { readonly beats: number; readonly beatType: number };
  readonly quartersPerMinute: number;
}

/** Notes that are struck together, and how long until the next ones are. */
export interface Moment {
  readonly at: number;
  readonly eighths: number;
  readonly notes: readonly PassageNote[];
}

/** Bars `first` to `last`, by index, both counted. Grace notes and notes that no hand can play are left out. */
export function passageOf(score: Score, plan: FingeringPlan, first: number, last: number): Passage {
  const bars = score.measures.slice(first, last + 1);
  const eighth = score.ticksPerQuarter / 2;
  const planned = new Map(plan.notes.map((note) => [note.uid, note]));
  const slurred = new Set(score.ligados.map(({ toUid }) => toUid));
  const inRange = score.notes.filter(
    ({ measureIndex, grace, leftOut }) => measureIndex >= first && measureIndex <= last && !grace && !leftOut,
  );
  const notes = inRange.flatMap((note): PassageNote[] => {
    const place = planned.get(note.uid);
    if (!place || place.string === null) return [];
    return [
      {
        uid: note.uid,
        voice: note.voice,
        at: note.onsetTicks / eighth,
        eighths: note.durationTicks / eighth,
        slurred: slurred.has(note.uid),
        string: place.string,
        fret: place.fret,
        finger: place.finger,
        letter: place.pluck,
        ...(note.harmonic && { harmonic: note.harmonic, midi: note.soundingMidi }),
      },
    ];
  });
  const from = bars[0]!.startTicks;
  return {
    title: score.title,
    notes,
    bars: bars.map(({ number, startTicks, durationTicks }) => ({
      number,
      at: startTicks / eighth,
      eighths: durationTicks / eighth,
    })),
    shifts: shiftsBetween(plan, inRange, eighth),
    tuning: tuningOrThrow(score.tuningId),
    capo: score.capo,
    fifths: score.keys.findLast(({ tick }) => tick <= from)?.fifths ?? 0,
    metre: score.metres.findLast(({ tick }) => tick <= from) ?? { beats: 4, beatType: 4 },
    quartersPerMinute: (score.tempos.findLast(({ tick }) => tick <= from) ?? score.tempos[0]!)
      .quartersPerMinute,
  };
}

/** Those of which both notes are there, and that go on in the order of the bars. */
function shiftsBetween(
  plan: FingeringPlan,
  notes: readonly ScoreNote[],
  eighth: number,
): readonly PassageShift[] {
  const at = new Map(notes.map(({ uid, onsetTicks }) => [uid, onsetTicks / eighth]));
  return plan.shifts.flatMap((shift): PassageShift[] => {
    const [before, after] = [at.get(shift.fromUid), at.get(shift.toUid)];
    if (before === undefined || after === undefined || shift.jump !== null) return [];
    const { fromPosition, toPosition, distanceMm, windowMs, neededMs } = shift;
    return [{ before, after, fromPosition, toPosition, distanceMm, windowMs, neededMs }];
  });
}

export function momentsOf({ notes, bars }: Passage): readonly Moment[] {
  const end = bars.at(-1)!.at + bars.at(-1)!.eighths;
  const onsets = [...new Set(notes.map(({ at }) => at))].sort((a, b) => a - b);
  return onsets.map((at, k) => ({
    at,
    eighths: (onsets[k + 1] ?? end) - at,
    notes: notes.filter((note) => note.at === at),
  }));
}

export const barAt = ({ bars }: Passage, at: number): PassageBar =>
  bars.findLast((bar) => bar.at <= at) ?? bars[0]!;
