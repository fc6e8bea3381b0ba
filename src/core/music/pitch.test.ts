import { describe, expect, it } from 'vitest';
import { spokenPitch } from './pitch';
import { maybePitch } from './pitchText';

describe('a pitch as it is said', () => {
  it.each([
    ['C3', 48, 'low C'],
    ['E2', 40, 'low E'],
    ['F#3', 54, 'F♯'],
    ['E4', 64, 'high E'],
    // Written an octave above its sound, as guitar music is: the sound counts.
    ['C4', 48, 'low C'],
    ['B5', 83, 'very high B'],
  ])('%s, sounding %i, is %s', (text, midi, spoken) => {
    expect(spokenPitch(maybePitch(text)!, midi)).toBe(spoken);
  });
});
