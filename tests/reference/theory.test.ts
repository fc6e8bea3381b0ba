/** Pitch arithmetic against a general music-theory library (teoria) and frets against a published table. */
import teoria from 'teoria';
import { describe, expect, it } from 'vitest';
import { midiName, midiOf, pitchName, type Step } from '../../src/core/music/pitch';
import { maybePitch, pitchText } from '../../src/core/music/pitchText';
import { transposedPitch } from '../../src/core/music/transpose';
import { fretDistanceMm } from '../../src/core/instrument/fretboard';
import { placementsOf } from '../../src/core/fingering/left/rules/placements';
import { TUNINGS } from '../../src/core/instrument/tuning';
import { barXml, problemFrom } from '../helpers/music';

describe('pitches against teoria', () => {
  it('a transposition spells a note as the interval does, in keys of up to six signs', () => {
    // Semitones, interval, steps on the circle of fifths.
    for (const [semitones, name, fifths] of [
      [2, 'M2', 2],
      [3, 'm3', -3],
      [4, 'M3', 4],
      [5, 'P4', -1],
      [7, 'P5', 1],
      [9, 'M6', 3],
      [10, 'm7', -2],
    ] as const)
      for (const key of [-2, -1, 0, 1, 2])
        for (const text of ['C4', 'D4', 'E4', 'F4', 'G4', 'A4', 'B4', 'F#4', 'Bb4', 'C#4'])
          expect(pitchText(transposedPitch(maybePitch(text)!, key, semitones)).toLowerCase()).toBe(
            Math.abs(key + fifths) > 6
              ? expect.anything()
              : teoria.note(text).interval(name).scientific().toLowerCase(),
          );
  });

  const steps: Step[] = ['C', 'D', 'E', 'F', 'G', 'A', 'B'];
  const signs = ['bb', 'b', '', '#', 'x'];
  for (const step of steps) {
    it(`${step} with every accidental in every octave`, () => {
      for (let octave = 0; octave <= 8; octave++) {
        for (const [k, sign] of signs.entries()) {
          expect(midiOf({ step, alter: k - 2, octave })).toBe(teoria.note(`${step}${sign}${octave}`).midi());
        }
      }
    });
  }
  it('names of MIDI numbers', () => {
    for (let midi = 21; midi <= 108; midi++) {
      expect(teoria.note(midiName(midi).replace('♯', '#')).midi()).toBe(midi);
      expect(midiName(midi)).toMatch(/^[A-G]♯?\d$/);
    }
    expect(pitchName({ step: 'B', alter: -1, octave: 3 })).toBe('B♭3');
  });
  it('every tuning spells the open strings that its name says', () => {
    const open = (id: string) => TUNINGS.find((tuning) => tuning.id === id)!.openMidi;
    const midi = (...names: string[]) => names.map((name) => teoria.note(name).midi());
    expect(open('standard')).toEqual(midi('E4', 'B3', 'G3', 'D3', 'A2', 'E2'));
    expect(open('sixth-to-d').slice(5)).toEqual(midi('D2'));
    expect(open('fifth-to-g-sixth-to-d').slice(4)).toEqual(midi('G2', 'D2'));
    expect(open('third-to-f-sharp').slice(2, 3)).toEqual(midi('F#3'));
  });
  it('every placement of a pitch sounds that pitch', () => {
    const problem = problemFrom(barXml([{ midi: 60, onset: 0, length: 2 }]));
    for (let midi = 40; midi <= 81; midi++) {
      for (const { string, fret } of placementsOf(problem, { midi, touch: null })) {
        const openString = teoria.note(['E4', 'B3', 'G3', 'D3', 'A2', 'E2'][string - 1]!).midi();
        expect(openString + fret).toBe(midi);
      }
    }
  });
});

describe('frets', () => {
  // Published in handbooks of lutherie as the "rule of eighteen" in its exact form (from memory): each fret takes
  // 1/17.817 of what is left of the string.
  it('agree with the rule of 17.817, fret by fret', () => {
    let fromNut = 0;
    for (let fret = 1; fret <= 19; fret++) {
      fromNut += (650 - fromNut) / 17.817154;
      expect(fretDistanceMm(fret, 650)).toBeCloseTo(fromNut, 3);
    }
  });

  // Published fret table for a 25.5 inch (647.7 mm) scale, as suppliers of fret wire print it; from memory.
  it.each([
    [1, 36.352],
    [2, 70.664],
    [3, 103.051],
    [4, 133.619],
    [5, 162.472],
    [6, 189.706],
    [7, 215.411],
    [8, 239.674],
    [9, 262.574],
    [10, 284.19],
    [11, 304.592],
    [12, 323.85],
  ])('fret %i of 647.7 mm lies at %f mm', (fret, mm) => {
    expect(Math.abs(fretDistanceMm(fret, 647.7) - mm)).toBeLessThan(0.005);
  });

  it('the octave lies in the middle, the fifth 2 cents short of a pure one', () => {
    expect(fretDistanceMm(12, 650)).toBe(325);
    expect(1200 * Math.log2(1.5) - 700).toBeCloseTo(1.955, 3);
    expect(fretDistanceMm(7, 650) / 650).toBeCloseTo(1 - 1 / 2 ** (700 / 1200), 12);
  });
});
