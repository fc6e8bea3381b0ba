/** Strings and frets from a tablature staff or part, given to the notes that they belong to. */
import { midiOf } from '../../music/pitch';
import type { NoteEvent } from './readEvents';

export interface MatchedTablature {
  readonly notes: readonly NoteEvent[];
  /** Notes of the tablature that found their note. */
  readonly matched: number;
}

/**
 * Matches by onset and pitch; the two staves may be written an octave apart. `onsetOf` turns the onsets of
 * both into one scale, for a part of its own may count in other ticks.
 */
export function withTablature(
  notes: readonly NoteEvent[],
  tablature: readonly NoteEvent[],
  scale: number,
): MatchedTablature {
  const shift = octaveBetween(notes, tablature, scale);
  const waiting = new Map<string, NoteEvent[]>();
  for (const event of tablature) {
    const key = `${Math.round(event.onsetTicks * scale)}:${midiOf(event.pitch) + shift}`;
    waiting.set(key, [...(waiting.get(key) ?? []), event]);
  }
  let matched = 0;
  const merged = notes.map((note) => {
    const own = waiting.get(`${note.onsetTicks}:${midiOf(note.pitch)}`)?.shift();
    if (!own) return note;
    matched++;
    const printed = {
      finger: note.printed.finger ?? own.printed.finger,
      string: note.printed.string ?? own.printed.string,
      pluck: note.printed.pluck ?? own.printed.pluck,
    };
    return {
      ...note,
      printed,
      printedFret: note.printedFret ?? own.printedFret,
      harmonic: note.harmonic ?? own.harmonic,
    };
  });
  return { notes: merged, matched };
}

/** Semitones from tablature to notation for which most notes meet. */
function octaveBetween(notes: readonly NoteEvent[], tablature: readonly NoteEvent[], scale: number): number {
  const there = new Set(notes.map((note) => `${note.onsetTicks}:${midiOf(note.pitch)}`));
  const meetings = (shift: number) =>
    tablature.filter((event) =>
      there.has(`${Math.round(event.onsetTicks * scale)}:${midiOf(event.pitch) + shift}`),
    ).length;
  return [0, 12, -12].reduce((best, shift) => (meetings(shift) > meetings(best) ? shift : best));
}
