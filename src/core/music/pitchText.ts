/** Pitches as short text, "F#4" or "Bb3": what an operation carries. */
import { isStep, type Pitch } from './pitch';

const SIGNS: Readonly<Record<string, number>> = { '': 0, '#': 1, '##': 2, b: -1, bb: -2 };

/** @throws RangeError for an alteration outside ±2 */
export function pitchText({ step, alter, octave }: Pitch): string {
  const sign = Object.keys(SIGNS).find((key) => SIGNS[key] === alter);
  if (sign === undefined) throw new RangeError(`no sign for an alteration of ${alter}`);
  return `${step}${sign}${octave}`;
}

/** Null for anything but a step, up to two signs and an octave from 0 to 9. */
export function maybePitch(text: string): Pitch | null {
  const [, step, sign, octave] = /^([A-G])(#{0,2}|b{1,2})(\d)$/.exec(text) ?? [];
  if (!step || !isStep(step)) return null;
  return { step, alter: SIGNS[sign ?? '']!, octave: Number(octave) };
}

const SHARPS = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'] as const;
const FLATS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'] as const;

/** A MIDI number spelled with sharps, or with flats in a key of flats. */
export function spellMidi(midi: number, fifths: number): Pitch {
  const name = (fifths < 0 ? FLATS : SHARPS)[((midi % 12) + 12) % 12]!;
  return maybePitch(`${name}${Math.floor(midi / 12) - 1}`)!;
}
