/** The reading rule of the right hand. Source: handbook 6 and 13; the hand at rest is common practice. */
import { describe, expect, it } from 'vitest';
import { type Habit, figurePlaces, readLetters, type Struck } from './readLetter';

const NOTHING: Habit = { lastFinger: null, otherFinger: null, figure: null };
const note = (string: number, more: Partial<Struck> = {}): Struck => ({
  uid: `s${string}`,
  string,
  role: 'inner',
  texture: 'brokenChord',
  ...more,
});

describe('a right hand that is told nothing', () => {
  it('has a finger for every string of a broken chord, the thumb for the bass', () => {
    expect([6, 4, 3, 2, 1].map((string) => readLetters([note(string)], NOTHING)[0])).toEqual([
      'p',
      'p',
      'i',
      'm',
      'a',
    ]);
    expect(readLetters([note(3, { role: 'bass' })], NOTHING)).toEqual(['p']);
  });

  it('takes chords with thumb and fingers', () => {
    expect(readLetters([note(5, { role: 'bass' }), note(3), note(2), note(1)], NOTHING)).toEqual([
      'p',
      'i',
      'm',
      'a',
    ]);
    expect(readLetters([note(3), note(2), note(1)], NOTHING)).toEqual(['i', 'm', 'a']);
    expect(readLetters([note(6, { role: 'bass' }), note(1)], NOTHING)).toEqual(['p', 'a']);
  });

  it('alternates in a line, and goes on with the pair that it has', () => {
    const line = note(2, { texture: 'line' });
    expect(readLetters([line], NOTHING)).toEqual(['i']);
    expect(readLetters([line], { ...NOTHING, lastFinger: 'i' })).toEqual(['m']);
    expect(readLetters([line], { ...NOTHING, lastFinger: 'm', otherFinger: 'a' })).toEqual(['a']);
  });

  it('plays a figure as it was played before', () => {
    expect(readLetters([note(2)], { ...NOTHING, figure: ['i'] })).toEqual(['i']);
  });
});

describe('the place in a figure', () => {
  it('is said by the strings, in a tremolo by the strokes since the thumb, in a line by nothing', () => {
    expect(figurePlaces([note(2)], [5], 1)).toEqual(['5 > 2']);
    expect(figurePlaces([note(3), note(2)], [5], 1)).toEqual(['5 > 3 2', '3 2']);
    expect(figurePlaces([note(1, { texture: 'tremolo' })], [1], 2)).toEqual(['tremolo 2']);
    expect(figurePlaces([note(1, { texture: 'line' })], [1], 2)).toEqual([]);
  });
});
