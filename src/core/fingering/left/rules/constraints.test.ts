import { describe, expect, it } from 'vitest';
import { CONCERT_FRETBOARD } from '../../../instrument/fretboard';
import { ADULT_MEDIUM, maybePlayer } from '../../../instrument/hands';
import { playable } from './constraints';
import type { HandProfile } from '../../../instrument/handProfile';
import type { Placement } from './place';

/** "finger@string/fret" rows. */
const can = (...rows: string[]) => canWith(ADULT_MEDIUM, ...rows);

const canWith = (hand: HandProfile, ...rows: string[]) => {
  const placements = rows.map((row): Placement => {
    const [finger, string, fret] = row.split(/[@/]/).map(Number);
    return { finger: finger!, string: string!, fret: fret! };
  });
  return playable(placements, CONCERT_FRETBOARD, hand);
};

// Source: handbook, "What cannot be".
describe('what a left hand cannot do', () => {
  it('two notes on one string', () => expect(can('1@3/1', '3@3/3')).toBe(false));
  it('a finger in two places, unless it bars', () => {
    expect(can('1@3/2', '1@2/2')).toBe(true);
    expect(can('4@3/2', '4@2/2')).toBe(true);
    expect(can('4@4/2', '4@3/2', '4@2/2', '4@1/2')).toBe(false);
    expect(can('2@3/2', '2@2/3')).toBe(false);
    expect(can('1@3/2', '1@2/3')).toBe(false);
  });
  it('bars that a hand profile forbids', () => {
    const { hand } = maybePlayer('child-half')!;
    expect(canWith(hand, '1@3/5', '1@2/5')).toBe(false);
    expect(canWith(hand, '4@3/5', '4@2/5')).toBe(false);
    const older = maybePlayer('child-three-quarters')!.hand;
    expect(canWith(older, '1@3/5', '1@2/5', '1@1/5')).toBe(true);
    expect(canWith(older, '1@6/5', '1@1/5')).toBe(false);
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
