import { describe, expect, it } from 'vitest';
import { documentXml, noteXml, scoreOrThrow } from '../../../tests/helpers/music';
import { placeOf, tempoAt } from './places';

const bar = Array.from({ length: 8 }, () => noteXml({ midi: 60, onset: 0, length: 1 })).join('');
const score = scoreOrThrow(documentXml([bar, bar]));

describe('a place in the score', () => {
  it('is a bar and a beat of the metre', () => {
    expect(placeOf(score, 0)).toEqual({ bar: '1', beat: '1' });
    expect(placeOf(score, 3)).toEqual({ bar: '1', beat: '2.5' });
    expect(placeOf(score, 8)).toEqual({ bar: '2', beat: '1' });
  });
  it('has the tempo of the last mark before it', () => {
    const slower = {
      ...score,
      tempos: [...score.tempos, { tick: 8, quartersPerMinute: 48, assumed: false }],
    };
    expect(tempoAt(slower, 7)).toBe(score.tempos[0]!.quartersPerMinute);
    expect(tempoAt(slower, 8)).toBe(48);
  });
});
