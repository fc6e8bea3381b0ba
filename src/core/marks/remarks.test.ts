import { describe, expect, it } from 'vitest';
import { barXml, scoreOrThrow } from '../../../tests/helpers/music';
import { remarkMarks, shortened } from './remarks';

const score = scoreOrThrow(
  barXml([
    { midi: 40, onset: 0, length: 4, voice: 2 },
    { midi: 64, onset: 0, length: 2 },
    { midi: 67, onset: 2, length: 2 },
  ]),
);

describe('remarks over their bars', () => {
  it('stand at the highest of the first notes', () => {
    const [mark, ...others] = remarkMarks(new Map([[score.measures[0]!.uid, 'let it ring']]), score);
    expect(others).toEqual([]);
    expect(mark).toMatchObject({ kind: 'remark', text: 'let it ring', state: 'ink' });
    expect(score.notes.find(({ uid }) => uid === mark!.uid)!.soundingMidi).toBe(64);
  });

  it('are cut at a word where they are long, and say so', () => {
    expect(shortened('two  words\nand a line')).toBe('two words and a line');
    expect(shortened('the thumb waits until the melody has come down')).toBe('the thumb waits until the …');
    expect(shortened('x'.repeat(60))).toBe(`${'x'.repeat(28)} …`);
  });

  it('of bars that are not there are left out', () => {
    expect(remarkMarks(new Map([['b99', 'nowhere']]), score)).toEqual([]);
  });
});
