/** Slides that the teacher asks for, besides those that the file has. */
import type { NoteCorrection } from './corrections';
import type { NoteSpan, ScoreNote } from './model';

/** Where a slide from a note leads: the note of its voice that begins where it ends; of a chord the nearest. Null where none is. */
export function slideTargetOf(notes: readonly ScoreNote[], from: ScoreNote): ScoreNote | null {
  const end = from.onsetTicks + from.durationTicks;
  const distance = (note: ScoreNote) => Math.abs(note.soundingMidi - from.soundingMidi);
  return notes
    .filter(({ voice, grace, onsetTicks }) => voice === from.voice && !grace && onsetTicks === end)
    .reduce<ScoreNote | null>((best, note) => (best && distance(best) <= distance(note) ? best : note), null);
}

export function withSlideCorrections(
  notes: readonly ScoreNote[],
  slides: readonly NoteSpan[],
  corrections: ReadonlyMap<string, NoteCorrection>,
): readonly NoteSpan[] {
  const asked = [...corrections].flatMap(([uid, { slideOn }]): NoteSpan[] => {
    const from = slideOn ? notes.find((note) => note.uid === uid) : undefined;
    const to = from && slideTargetOf(notes, from);
    return to ? [{ fromUid: uid, toUid: to.uid }] : [];
  });
  const reached = new Set(asked.map(({ toUid }) => toUid));
  return [...slides.filter(({ toUid }) => !reached.has(toUid)), ...asked];
}
