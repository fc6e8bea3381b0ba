import { describe, expect, it } from 'vitest';
import { CONCERT_FRETBOARD } from '../../instrument/fretboard';
import { ADULT_MEDIUM } from '../../instrument/hands';
import { playable } from './constraints';
import type { Placement } from './handState';

/** "finger@string/fret" rows. */
const can = (...rows: string[]) => {
  const placements = rows.map((row): Placement => {
    const [finger, string, fret] = row.split(/[@/]/).map(Number);
    return { finger: finger!, string: string!, fret: fret! };
  });
  return playable(placements, CONCERT_FRETBOARD, ADULT_MEDIUM);
};

// Source: handbook, "What cannot be".
describe('what a left hand cannot do', () => {
  it('two notes on one string', () => expect(can('1@3/1', '3@3/3')).toBe(false));
  it('a finger in two places, unless it bars', () => {
    expect(can('2@3/2', '2@2/2')).toBe(false);
    expect(can('1@3/2', '1@2/2')).toBe(true);
    expect(can('1@3/2', '1@2/3')).toBe(false);
  });
  it('an open string under a barre', () => {
    expect(can('1@4/5', '0@3/0', '1@2/5')).toBe(false);
    expect(can('1@4/5', '0@1/0', '1@2/5')).toBe(true);
  });
  it('a stopped note nutwards of a barre that covers it', () => {
    expect(can('1@4/5', '2@3/6', '1@2/5')).toBe(true);
    expect(can('1@5/5', '1@2/5', '0@6/0')).toBe(true);
  });
  it('fingers against their order along the neck', () => {
    expect(can('2@4/1', '1@3/2')).toBe(false);
    expect(can('1@4/2', '2@3/2')).toBe(true);
  });
  it('a stretch beyond the reach, measured in mm: five frets lie from V but not six from I', () => {
    expect(can('1@4/5', '4@3/9')).toBe(true);
    expect(can('1@4/1', '4@3/6')).toBe(false);
    expect(can('2@4/1', '3@3/4')).toBe(false);
  });
  it('an open string with a finger, or a fret without one', () => {
    expect(can('1@4/0')).toBe(false);
    expect(can('0@4/3')).toBe(false);
  });
});
