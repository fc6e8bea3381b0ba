/**
 * A string is marked where it is not the highest one that has the note, once for a run of notes of one voice,
 * and wherever the teacher has inked it.
 */
import { openMidi, STRINGS, type Tuning, tuningOrThrow } from '../instrument/tuning';
import type { PlannedNote } from '../fingering/report/plan';
import type { Mark } from './mark';
import type { MarkSource } from './marksOf';

export function stringMarks(notes: readonly PlannedNote[], source: MarkSource): Mark[] {
  const tuning = tuningOrThrow(source.score.tuningId);
  const noteOf = new Map(source.score.notes.map((note) => [note.uid, note]));
  /** The run that each voice is in. */
  const runs = new Map<string, Mark>();
  const marks = new Map<string, Mark>();
  for (const note of notes) {
    const { voice, soundingMidi } = noteOf.get(note.uid)!;
    const inked = source.ink.get(note.uid)?.string ?? null;
    const string = inked ?? note.string;
    if (string === null || (string === highestStringWith(soundingMidi, tuning) && inked === null)) {
      runs.delete(voice);
      continue;
    }
    const next = markFor(note, String(string), source);
    const run = runs.get(voice);
    const goesOn =
      run !== undefined && run.text === next.text && run.state === next.state && next.departs === null;
    const causes = goesOn && run.causes.length > 0 ? run.causes : next.causes;
    const mark = goesOn ? { ...run, toUid: note.uid, causes } : next;
    runs.set(voice, mark);
    marks.set(mark.id, mark);
  }
  return [...marks.values()];
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
