import { describe, expect, it } from 'vitest';
import { isFound, ORDERS, sorted, stateWords } from './order';

const piece = (title: string, bars: number, cost: number, more: object = {}) => ({
  title,
  composer: null,
  tags: [] as readonly string[],
  summary: { bars, notes: 10, fifths: 1, mode: 'major' } as never,
  plan: { leftCost: cost, rightCost: 0 } as never,
  createdAt: `2026-01-0${bars}`,
  ...more,
});
const shelf = [
  piece('Beta', 2, 10),
  piece('alpha', 1, 90, { composer: 'Zed' }),
  piece('Gamma', 3, 30, { composer: 'abe' }),
];
const titles = (order: keyof typeof ORDERS) => sorted(shelf, order).map(({ title }) => title);

describe('the order of the shelf', () => {
  it('is by date, title, composer, effort a bar or length', () => {
    expect(titles('newest')).toEqual(['Gamma', 'Beta', 'alpha']);
    expect(titles('title')).toEqual(['alpha', 'Beta', 'Gamma']);
    expect(titles('composer')).toEqual(['Gamma', 'alpha', 'Beta']);
    expect(titles('easiest')).toEqual(['Beta', 'Gamma', 'alpha']);
    expect(titles('hardest')).toEqual(['alpha', 'Gamma', 'Beta']);
    expect(titles('shortest')).toEqual(['alpha', 'Beta', 'Gamma']);
  });
});

describe('looking for a piece', () => {
  const one = piece('Garden Gate', 8, 0, { composer: 'Ilse Tarn', tags: ['exam', 'grade 3'] });
  it('finds title, composer, key and tag, and all words together', () => {
    for (const query of ['gate', 'TARN', 'g major', 'exam', 'garden exam', ''])
      expect([query, isFound(one, query)]).toEqual([query, true]);
    expect(isFound(one, 'gate minor')).toBe(false);
  });
});

describe('the state of a piece', () => {
  const of = (inkedNotes: number | null, gestures: number) =>
    stateWords({ inkedNotes, gestures, summary: { notes: 10 } as never });
  it('counts ink, not steps', () => {
    expect([of(0, 7), of(3, 7), of(10, 7), of(null, 0), of(null, 2)]).toEqual([
      'in pencil',
      'part inked',
      'inked',
      'in pencil',
      'part inked',
    ]);
  });
});
