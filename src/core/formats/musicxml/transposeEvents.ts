/** A part at another pitch. What the file prints of strings and fingers belongs to the old one. */
import { transposedKey, transposedPitch } from '../../music/transpose';
import type { NoteEvent, PartEvents } from './readEvents';

export function transposeEvents(events: PartEvents, semitones: number): PartEvents {
  if (semitones === 0) return events;
  const keyAt = (tick: number) => events.keys.findLast((key) => key.tick <= tick)?.fifths ?? 0;
  const moved = (note: NoteEvent): NoteEvent => ({
    ...note,
    pitch: transposedPitch(note.pitch, keyAt(note.onsetTicks), semitones),
    printed: { ...note.printed, finger: null, string: null },
    printedFret: null,
  });
  return {
    ...events,
    notes: events.notes.map(moved),
    tablature: events.tablature.map(moved),
    keys: events.keys.map((key) => ({ ...key, fifths: transposedKey(key.fifths, semitones) })),
    transposedBy: semitones,
  };
}
