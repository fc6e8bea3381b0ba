/** Spelled pitches and their MIDI numbers (middle C = C4 = 60). */

export type Step = 'C' | 'D' | 'E' | 'F' | 'G' | 'A' | 'B';

export interface Pitch {
  readonly step: Step;
  /** Semitones: −1 flat, 0 natural, 1 sharp. */
  readonly alter: number;
  /** Scientific octave: C4 is middle C. */
  readonly octave: number;
}

const SEMITONES_ABOVE_C: Readonly<Record<Step, number>> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };

export const isStep = (text: string): text is Step => Object.hasOwn(SEMITONES_ABOVE_C, text);

/** MIDI number of a spelled pitch. Source: MIDI 1.0, note number 60 = middle C. */
export function midiOf(pitch: Pitch): number {
  return 12 * (pitch.octave + 1) + SEMITONES_ABOVE_C[pitch.step] + pitch.alter;
}

const ACCIDENTALS: Readonly<Record<string, string>> = { '-2': '♭♭', '-1': '♭', '0': '', '1': '♯', '2': '♯♯' };

/** "F♯3"; an alteration outside ±2 is written in numbers. */
export function pitchName(pitch: Pitch): string {
  return `${pitch.step}${ACCIDENTALS[String(pitch.alter)] ?? `(${pitch.alter})`}${pitch.octave}`;
}

const SHARP_NAMES = ['C', 'C♯', 'D', 'D♯', 'E', 'F', 'F♯', 'G', 'G♯', 'A', 'A♯', 'B'] as const;

/** Name of a MIDI number, spelled with sharps: 40 is "E2". */
export function midiName(midi: number): string {
  return `${SHARP_NAMES[((midi % 12) + 12) % 12]}${Math.floor(midi / 12) - 1}`;
}

/** Registers of the guitar by their lowest MIDI number, from the highest down. */
const REGISTERS = [
  [76, 'very high '],
  [64, 'high '],
  [52, ''],
] as const;

/** "low C", "F♯", "high E": a letter with a number would be read as a barre. By the sounding pitch. */
export function spokenPitch(pitch: Pitch, soundingMidi: number): string {
  const register = REGISTERS.find(([least]) => soundingMidi >= least)?.[1] ?? 'low ';
  return register + pitchName(pitch).replace(/-?\d+$/, '');
}
