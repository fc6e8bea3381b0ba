import { describe, expect, it } from 'vitest';
import { barXml, documentXml, noteXml, scoreOrThrow } from '../../../../tests/helpers/music';
import { openMidi, STANDARD_TUNING, STRINGS } from '../../instrument/tuning';
import { NO_INK } from '../problem/ink';
import { twinsOfBars } from './alike';
import { type MarkedNote, senseOfFinger, senseOfString } from './sense';

const neck = { tuning: STANDARD_TUNING, capo: 0, frets: 19 };
const note = (midi: number): MarkedNote => ({ midi, isHarmonic: false });
const ink = (finger: number | null, string: number | null) => ({ ...NO_INK, finger, string });

describe('a mark and its note', () => {
  // Common practice: the low E has one place; B3 is the second string open, or fret 4 of the third.
  it('refuses a finger on the low E, and an open string for what none sounds', () => {
    expect(senseOfFinger(note(40), neck, NO_INK, 1)).toEqual({ kind: 'refused', why: { code: 'onlyOpen' } });
    expect(senseOfFinger(note(40), neck, NO_INK, 0)).toEqual({ kind: 'fits' });
    expect(senseOfFinger(note(61), neck, NO_INK, 0)).toEqual({ kind: 'refused', why: { code: 'neverOpen' } });
  });
  it('lets the older mark go where both cannot be', () => {
    expect(senseOfFinger(note(59), neck, ink(null, 2), 3)).toEqual({ kind: 'releases', attribute: 'string' });
    expect(senseOfFinger(note(59), neck, ink(null, 3), 4)).toEqual({ kind: 'fits' });
    expect(senseOfString(note(59), neck, ink(3, null), 2)).toEqual({ kind: 'releases', attribute: 'finger' });
    expect(senseOfString(note(59), neck, ink(0, 2), 3)).toEqual({ kind: 'releases', attribute: 'finger' });
  });
  it('refuses a string that does not reach the note', () => {
    expect(senseOfString(note(59), neck, NO_INK, 1)).toEqual({
      kind: 'refused',
      why: { code: 'belowString', string: 1 },
    });
    expect(senseOfString(note(76), neck, NO_INK, 6)).toMatchObject({ kind: 'refused', why: { fret: 36 } });
  });
  it('lets any finger touch a harmonic', () => {
    expect(senseOfFinger({ midi: 76, isHarmonic: true }, neck, NO_INK, 4)).toEqual({ kind: 'fits' });
  });
  it('never leaves ink that no string can have, whatever is pressed first', () => {
    for (let midi = 40; midi <= 83; midi++)
      for (const string of STRINGS)
        for (const finger of [0, 1, 2, 3, 4]) {
          const fret = midi - openMidi(STANDARD_TUNING, string);
          const isPossible = fret >= 0 && fret <= 19 && (finger === 0) === (fret === 0);
          const first = senseOfFinger(note(midi), neck, NO_INK, finger);
          if (first.kind !== 'fits') continue;
          const then = senseOfString(note(midi), neck, ink(finger, null), string);
          expect([midi, string, finger, then.kind === 'fits']).toEqual([midi, string, finger, isPossible]);
        }
  });
});

describe('the same music', () => {
  it('is found bar by bar outside of the passage, note for note', () => {
    const one = [64, 62, 60, 62].map((midi, k) => noteXml({ midi, onset: 2 * k, length: 2 })).join('');
    const other = [65, 62, 60, 62].map((midi, k) => noteXml({ midi, onset: 2 * k, length: 2 })).join('');
    const score = scoreOrThrow(documentXml([one, other, one, one]));
    const twins = twinsOfBars(score, 0, 1);
    expect(twins).toHaveLength(8);
    const at = (uid: string) => score.notes.find((n) => n.uid === uid)!;
    for (const { from, to } of twins) {
      expect(at(from).soundingMidi).toBe(at(to).soundingMidi);
      expect(at(from).measureIndex).toBe(0);
      expect([2, 3]).toContain(at(to).measureIndex);
    }
    expect(twinsOfBars(scoreOrThrow(barXml([{ midi: 60, onset: 0, length: 2 }])), 0, 0)).toEqual([]);
  });
});
