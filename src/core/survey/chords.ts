/** The chord of a bar: the template that its sounding notes fit best, weighed by how long and where they sound. */
import type { Score, ScoreNote } from '../score/model';

export interface ChordQuality {
  readonly id: string;
  /** After the root: "m7". */
  readonly suffix: string;
  /** Semitones above the root. */
  readonly tones: readonly number[];
  readonly family: 'major' | 'minor' | 'diminished' | 'augmented' | 'suspended';
}

/** Source: common practice; checked against a music-theory library in the reference tests. */
export const CHORD_QUALITIES = [
  { id: 'major', suffix: '', tones: [0, 4, 7], family: 'major' },
  { id: 'minor', suffix: 'm', tones: [0, 3, 7], family: 'minor' },
  { id: 'dominant-seventh', suffix: '7', tones: [0, 4, 7, 10], family: 'major' },
  { id: 'minor-seventh', suffix: 'm7', tones: [0, 3, 7, 10], family: 'minor' },
  { id: 'major-seventh', suffix: 'maj7', tones: [0, 4, 7, 11], family: 'major' },
  { id: 'diminished', suffix: 'dim', tones: [0, 3, 6], family: 'diminished' },
  { id: 'half-diminished', suffix: 'm7b5', tones: [0, 3, 6, 10], family: 'diminished' },
  { id: 'diminished-seventh', suffix: 'dim7', tones: [0, 3, 6, 9], family: 'diminished' },
  { id: 'augmented', suffix: 'aug', tones: [0, 4, 8], family: 'augmented' },
  { id: 'suspended-fourth', suffix: 'sus4', tones: [0, 5, 7], family: 'suspended' },
] as const satisfies readonly ChordQuality[];

export interface Chord {
  /** Pitch class of the root, 0 = C. */
  readonly root: number;
  readonly quality: (typeof CHORD_QUALITIES)[number];
  /** Pitch class of the lowest note. */
  readonly bass: number;
}

/** How much a note counts: its length in quarters, more on a beat, in the bass, and on the bar's first beat. */
const ON_BEAT = 1.5;
const IN_BASS = 1.6;
const AT_START = 1.4;

/** What a missing tone of the template and a note outside it cost, against weight that fits. From memory. */
const OUTSIDE = 0.9;
const MISSING_SHARE = 0.16;
const ROOT_IN_BASS = 0.12;
/** Each tone beyond three must earn its place. */
const FOURTH_TONE = 0.12;

/** The chord of one bar, or null for a bar with fewer than two pitch classes. */
export function maybeChordOf(score: Score, measureIndex: number): Chord | null {
  const measure = score.measures[measureIndex]!;
  const end = measure.startTicks + measure.durationTicks;
  const sounding = score.notes.filter(
    (note) =>
      !note.grace && note.onsetTicks < end && note.onsetTicks + note.durationTicks > measure.startTicks,
  );
  const weights = weightsOf(score, sounding, measure.startTicks, end);
  if (weights.filter((weight) => weight > 0).length < 2) return null;
  const bass = sounding.reduce((low, note) => (note.soundingMidi < low.soundingMidi ? note : low));
  return bestChord(weights, bass.soundingMidi % 12);
}

/** `weights` by pitch class. Ties fall to the simpler chord, then to the lower root. */
export function bestChord(weights: readonly number[], bass: number): Chord | null {
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  let best: Chord | null = null;
  let bestScore = 0;
  for (const quality of CHORD_QUALITIES) {
    for (let root = 0; root < 12; root++) {
      const score = fit(weights, total, root, quality.tones) + (root === bass ? ROOT_IN_BASS : 0);
      if (score > bestScore + 1e-9) {
        best = { root, quality, bass };
        bestScore = score;
      }
    }
  }
  return best;
}

function fit(weights: readonly number[], total: number, root: number, tones: readonly number[]): number {
  const inside = tones.map((tone) => weights[(root + tone) % 12]!);
  const held = inside.reduce((sum, weight) => sum + weight, 0);
  // A chord without its fifth is common; one without root or third is another chord.
  const missing = inside.reduce((sum, weight, k) => sum + (weight > 0 ? 0 : k === 2 ? 0.4 : 1), 0);
  return (
    held / total -
    OUTSIDE * (1 - held / total) -
    MISSING_SHARE * missing -
    FOURTH_TONE * Math.max(0, tones.length - 3)
  );
}

function weightsOf(score: Score, notes: readonly ScoreNote[], start: number, end: number): readonly number[] {
  const weights = Array.from({ length: 12 }, () => 0);
  const lowestMidi = Math.min(...notes.map((note) => note.soundingMidi));
  for (const note of notes) {
    const from = Math.max(start, note.onsetTicks);
    const to = Math.min(end, note.onsetTicks + note.durationTicks);
    const onBeat = (from - start) % score.ticksPerQuarter === 0;
    const lowest = note.soundingMidi === lowestMidi;
    const weight =
      ((to - from) / score.ticksPerQuarter) *
      (onBeat ? ON_BEAT : 1) *
      (lowest ? IN_BASS : 1) *
      (from === start ? AT_START : 1);
    weights[note.soundingMidi % 12]! += weight;
  }
  return weights;
}

const SHARP = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'] as const;
const FLAT = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'] as const;

export const pitchClassName = (pitchClass: number, flats: boolean): string =>
  (flats ? FLAT : SHARP)[pitchClass]!;

/** "F#m7/C#". */
export function chordName(chord: Chord, flats: boolean): string {
  const over = chord.bass === chord.root ? '' : `/${pitchClassName(chord.bass, flats)}`;
  return `${pitchClassName(chord.root, flats)}${chord.quality.suffix}${over}`;
}

/** Reads a name like "Bbm7", "F#7/A#" or "C♯dim"; null when it names no chord of the table. */
export function maybeChord(name: string): Chord | null {
  const plain = name.replace(/♯/g, '#').replace(/♭/g, 'b').trim();
  const match = /^([A-G][#b]?)([^/]*)(?:\/([A-G][#b]?))?$/.exec(plain);
  if (!match) return null;
  const root = pitchClassOf(match[1]!);
  const quality = CHORD_QUALITIES.find((row) => row.suffix === match[2]);
  if (root === null || !quality) return null;
  return { root, quality, bass: match[3] ? (pitchClassOf(match[3]) ?? root) : root };
}

function pitchClassOf(name: string): number | null {
  const k = Math.max((SHARP as readonly string[]).indexOf(name), (FLAT as readonly string[]).indexOf(name));
  return k < 0 ? ({ 'E#': 5, 'B#': 0, Cb: 11, Fb: 4 }[name] ?? null) : k;
}
