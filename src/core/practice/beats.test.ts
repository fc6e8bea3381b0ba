import { describe, expect, it } from 'vitest';
import { beatsOf } from './beats';

const accents = (beats: number, beatType: number, grouping?: readonly number[]) =>
  beatsOf({ beats, beatType }, grouping).map(({ accent }) => accent);

describe('a metronome', () => {
  it('accents the first of a bar, and every third of compound metres', () => {
    expect(accents(4, 4)).toEqual([2, 0, 0, 0]);
    expect(accents(6, 8)).toEqual([2, 0, 0, 1, 0, 0]);
  });

  it('groups six as three twos instead, and keeps to the usual where a grouping does not fill the bar', () => {
    expect(accents(6, 8, [2, 2, 2])).toEqual([2, 0, 1, 0, 1, 0]);
    expect(accents(6, 8, [2, 2])).toEqual([2, 0, 0, 1, 0, 0]);
  });

  it('strikes units of the metre', () => {
    expect(beatsOf({ beats: 6, beatType: 8 }).map(({ at }) => at)).toEqual([0, 0.5, 1, 1.5, 2, 2.5]);
    expect(beatsOf({ beats: 3, beatType: 4 }).map(({ at }) => at)).toEqual([0, 1, 2]);
  });
});
