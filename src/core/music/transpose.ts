/**
 * Music at another pitch, spelled as a musician would: keys and pitches move together along the line of fifths.
 * Source: the line of fifths orders F C G D A E B, each accidental is seven steps; common practice of notation.
 */
import { midiOf, type Pitch, type Step } from './pitch';
import { spellMidi } from './pitchText';

const LINE: readonly Step[] = ['F', 'C', 'G', 'D', 'A', 'E', 'B'];
/** Steps on the line for one accidental. */
const SIGN = 7;
const MOST_SHARPS = 6;
const SEMITONES = 12;

/** The key signature after so many semitones: at most six signs, and of two equal ones that on the side of the old. */
export function transposedKey(fifths: number, semitones: number): number {
  const moved = fifths + SIGN * semitones;
  const least = (((moved % SEMITONES) + SEMITONES + MOST_SHARPS) % SEMITONES) - MOST_SHARPS;
  return least === -MOST_SHARPS && fifths > 0 ? MOST_SHARPS : least;
}

/** @param fifths of the key in which the pitch is written */
export function transposedPitch(pitch: Pitch, fifths: number, semitones: number): Pitch {
  const midi = midiOf(pitch) + semitones;
  const key = transposedKey(fifths, semitones);
  const place = LINE.indexOf(pitch.step) + SIGN * pitch.alter + key - fifths;
  const step = LINE[((place % SIGN) + SIGN) % SIGN]!;
  const alter = Math.floor(place / SIGN);
  if (Math.abs(alter) > 2) return spellMidi(midi, key);
  const octave = Math.round((midi - midiOf({ step, alter, octave: -1 })) / SEMITONES) - 1;
  return { step, alter, octave };
}
