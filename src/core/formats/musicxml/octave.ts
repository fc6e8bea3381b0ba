/** Which octave the file's pitches mean. Source: handbook, "Notation conventions". */
import { lowestMidi, openMidi, STANDARD_TUNING, type Tuning } from '../../instrument/tuning';
import { midiOf } from '../../music/pitch';
import type { OctaveReading } from '../../score/reading';
import type { PartEvents } from './readEvents';

export interface Octave {
  readonly reading: OctaveReading;
  /** Semitones from the file's pitch to the sounding one. */
  readonly shift: number;
}

/** How far below the open sixth string notes may lie before a reading counts as too low: a sixth tuned to D. */
const SLACK_SEMITONES = 2;

/** `tuning` is the one that the file gives, if any. */
export function readOctave(events: PartEvents, tuning: Tuning | null): Octave {
  const byFrets = maybeOctaveByFrets(events, tuning ?? STANDARD_TUNING);
  if (byFrets !== null) return { reading: 'frets', shift: byFrets };
  const clef = events.clefOctaveChange !== 0;
  const transposed = events.transposeSemitones;
  const lowest = Math.min(...events.notes.map((note) => midiOf(note.pitch)));
  const openSixth = tuning ? lowestMidi(tuning) : lowestMidi(STANDARD_TUNING) - SLACK_SEMITONES;
  if (clef && transposed) {
    const fits = lowest + transposed >= openSixth;
    return fits ? { reading: 'both-applied', shift: transposed } : { reading: 'both-clef', shift: 0 };
  }
  if (clef) return { reading: 'clef', shift: 0 };
  if (transposed) return { reading: 'transposition', shift: transposed };
  return lowest >= openSixth + 12 ? { reading: 'written', shift: -12 } : { reading: 'sounding', shift: 0 };
}

/** A file with strings and frets says itself what sounds; null when it has none or they disagree. */
function maybeOctaveByFrets(events: PartEvents, tuning: Tuning): number | null {
  const shifts = new Map<number, number>();
  let count = 0;
  for (const note of events.notes) {
    if (note.printed.string === null || note.printedFret === null || note.harmonic) continue;
    const shift = openMidi(tuning, note.printed.string) + note.printedFret - midiOf(note.pitch);
    shifts.set(shift, (shifts.get(shift) ?? 0) + 1);
    count++;
  }
  // Above a capo some programs write the concert pitch: then frets and pitch differ by the capo, too.
  const agrees = (shift: number) => shift % 12 === 0 || (shift + events.capo) % 12 === 0;
  for (const [shift, votes] of shifts) if (votes > 0.8 * count && agrees(shift)) return shift;
  return null;
}
