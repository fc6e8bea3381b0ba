/**
 * A string is marked where it is not the highest one that has the note, once for a run of notes of one voice,
 * and wherever the teacher has inked it.
 */
import { openMidi, STRINGS, type Tuning, tuningOrThrow } from '../instrument/tuning';
import type { PlannedNote } from '../fingering/report/plan';
import type { Mark } from './mark';
import type { MarkSource } from './marksOf';

export function stringMarks(
  notes: readonly PlannedNote[],
  source: MarkSource,
  isSaid: (note: PlannedNote) => boolean = unlikeHighest(source),
): Mark[] {
  const noteOf = new Map(source.score.notes.map((note) => [note.uid, note]));
  /** The run that each voice is in. */
  const runs = new Map<string, Mark>();
  const marks = new Map<string, Mark>();
  for (const note of notes) {
    const { voice } = noteOf.get(note.uid)!;
    const string = source.ink.get(note.uid)?.string ?? note.string;
    if (string === null || !isSaid(note)) {
      runs.delete(voice);
      continue;
    }
    const next = markFor(note, String(string), source);
    const run = runs.get(voice);
    const goesOn = run !== undefined && canJoin(run, next);
    const causes = goesOn && run.causes.length > 0 ? run.causes : next.causes;
    const mark = goesOn ? { ...run, toUid: note.uid, causes } : next;
    runs.set(voice, mark);
    marks.set(mark.id, mark);
  }
  return [...marks.values()];
}

/** At full density: wherever a string is not the highest one that has the note, or has been inked. */
export function unlikeHighest({ ink, score }: MarkSource): (note: PlannedNote) => boolean {
  const tuning = tuningOrThrow(score.tuningId);
  const midiOf = new Map(score.notes.map(({ uid, soundingMidi }) => [uid, soundingMidi]));
  return ({ uid, string }) =>
    (ink.get(uid)?.string ?? null) !== null || string !== highestStringWith(midiOf.get(uid)!, tuning);
}

/** One line goes over both. */
const canJoin = (run: Mark, next: Mark): boolean =>
  run.text === next.text && run.state === next.state && next.departs === null;

/** The same of two notes: whether one sign would do for both. */
export function stringsJoin(a: PlannedNote, b: PlannedNote, source: MarkSource): boolean {
  const stringOf = ({ uid, string }: PlannedNote) => String(source.ink.get(uid)?.string ?? string);
  return canJoin(markFor(a, stringOf(a), source), markFor(b, stringOf(b), source));
}

const markFor = (note: PlannedNote, text: string, source: MarkSource): Mark => ({
  id: `string:${note.uid}`,
  kind: 'string',
  uid: note.uid,
  toUid: note.uid,
  text,
  state: source.stateOf(note, 'string'),
  below: source.roles.get(note.uid) === 'bass',
  causes: source.causesOf(note.uid).string,
  departs: source.departs(note, 'string'),
});

const highestStringWith = (midi: number, tuning: Tuning): number =>
  STRINGS.find((string) => midi >= openMidi(tuning, string)) ?? STRINGS.length;
