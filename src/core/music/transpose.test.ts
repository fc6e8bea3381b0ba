import { describe, expect, it } from 'vitest';
import { midiOf, type Pitch } from './pitch';
import { maybePitch, pitchText } from './pitchText';
import { transposedKey, transposedPitch } from './transpose';

const moved = (text: string, fifths: number, semitones: number) =>
  pitchText(transposedPitch(maybePitch(text)!, fifths, semitones));

describe('transposition', () => {
  it('moves keys round the circle of fifths (common practice)', () => {
    // C major up: D♭, D, E♭, E, F, F♯ or G♭, G, A♭, A, B♭, B.
    expect(Array.from({ length: 11 }, (_, k) => transposedKey(0, k + 1))).toEqual([
      -5, 2, -3, 4, -1, -6, 1, -4, 3, -2, 5,
    ]);
    expect(transposedKey(4, 2)).toBe(6);
    expect(transposedKey(-3, 3)).toBe(-6);
    expect(transposedKey(2, 12)).toBe(2);
  });

  it('spells each note by its place in the key', () => {
    // A minor to E minor, to F minor, to C♯ minor: the leading note keeps its letter below the tonic.
    expect(moved('G#4', 0, 7)).toBe('D#5');
    expect(moved('G#4', 0, -4)).toBe('E4');
    expect(moved('G#4', 0, 4)).toBe('B#4');
    expect(moved('C4', 0, -1)).toBe('B3');
    expect(moved('B3', 0, 1)).toBe('C4');
    expect(moved('F#3', 1, 2)).toBe('G#3');
  });

  it('is right by midi for every pitch, key and step, and comes back', () => {
    for (const step of ['C', 'D', 'E', 'F', 'G', 'A', 'B'] as const)
      for (const alter of [-1, 0, 1])
        for (let fifths = -6; fifths <= 6; fifths++)
          for (let semitones = -12; semitones <= 12; semitones++) {
            const pitch: Pitch = { step, alter, octave: 4 };
            const there = transposedPitch(pitch, fifths, semitones);
            expect(midiOf(there)).toBe(midiOf(pitch) + semitones);
            expect(Math.abs(there.alter)).toBeLessThanOrEqual(2);
          }
  });
});
