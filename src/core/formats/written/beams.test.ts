/** Beams as they are engraved. Source: common practice. */
import { describe, expect, it } from 'vitest';
import { fraction } from '../../music/fraction';
import { beamsOf } from './beams';
import type { WrittenEvent } from './writtenMusic';

const TYPES: Readonly<Record<string, readonly [num: number, den: number]>> = {
  quarter: [1, 1],
  eighth: [1, 2],
  '16th': [1, 4],
};
const event = (type: string, isRest = false): WrittenEvent => {
  const [num, den] = TYPES[type]!;
  return {
    pitches: isRest ? [] : [{ step: 'C', alter: 0, octave: 4 }],
    space: false,
    quarters: fraction(num, den),
    type,
    dots: 0,
    tuplet: null,
    grace: null,
    ties: [],
    slurStarts: [],
    slurStops: [],
    notations: [],
    words: [],
    chordName: null,
    lyric: null,
  };
};
const row = (types: string, metre: { beats: number; beatType: number }) =>
  beamsOf(
    [...types].map((one) => event(one === 'q' ? 'quarter' : one === 's' ? '16th' : 'eighth', one === '-')),
    metre,
  ).map((beams) => beams.replace(/<beam number="(\d)">(\w)\w*( hook)?<\/beam>/g, '$1$2$3 ').trim());

describe('beams', () => {
  it('join eighths of half a bar in four four, of a beat of three in six eight', () => {
    expect(row('eeeeeeee', { beats: 4, beatType: 4 })).toEqual([
      '1b',
      '1c',
      '1c',
      '1e',
      '1b',
      '1c',
      '1c',
      '1e',
    ]);
    expect(row('eeeeee', { beats: 6, beatType: 8 })).toEqual(['1b', '1c', '1e', '1b', '1c', '1e']);
    expect(row('eeeeee', { beats: 3, beatType: 4 })).toEqual(['1b', '1e', '1b', '1e', '1b', '1e']);
  });

  it('join sixteenths of a beat, with hooks where one stands alone', () => {
    expect(row('sssseeq', { beats: 4, beatType: 4 }).slice(0, 4)).toEqual([
      '1b 2b',
      '1c 2c',
      '1c 2c',
      '1e 2e',
    ]);
    expect(row('ess', { beats: 2, beatType: 4 })).toEqual(['1b', '1c 2b', '1e 2e']);
    expect(row('ses', { beats: 2, beatType: 4 })).toEqual(['1b 2f hook', '1c', '1e 2b hook']);
  });

  it('go over no rest and no quarter, and a lone eighth has its flag', () => {
    expect(row('e-ee', { beats: 2, beatType: 4 })).toEqual(['', '', '1b', '1e']);
    expect(row('eqe', { beats: 2, beatType: 4 })).toEqual(['', '', '']);
  });
});
