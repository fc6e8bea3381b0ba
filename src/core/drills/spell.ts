/**
 * Pitches spelled as a key would have them: of the twelve places on the line of fifths from three below its tonic to eight
 * above it. So leading notes and raised sixths of minor keys are sharp, and B flat and E flat are not A and D sharp.
 */
import type { WrittenPitch } from '../formats/written/writtenMusic';

const LETTERS = ['F', 'C', 'G', 'D', 'A', 'E', 'B'] as const;
const LOWEST = -3;

/** @param fifths sharps of the key signature, flats negative */
export function spelled(midi: number, fifths: number): WrittenPitch {
  const pitchClass = ((midi % 12) + 12) % 12;
  // A fifth is seven semitones, so that seven times the pitch class is its place on the line, but for twelves.
  const place = 7 * pitchClass;
  const from = fifths + LOWEST;
  const at = from + ((((place - from) % 12) + 12) % 12);
  const letter = at + 1;
  const alter = Math.floor(letter / 7);
  const step = LETTERS[((letter % 7) + 7) % 7]!;
  return { step, alter, octave: Math.floor((midi - alter) / 12) - 1 };
}
