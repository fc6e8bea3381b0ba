import { describe, expect, it } from 'vitest';
import { LEFT_TERMS } from '../left/rules/terms';
import { RIGHT_TERMS } from '../right/rules/terms';
import { linear, price, type TermRow, termsOf } from './costTerm';

const row: TermRow = {
  unit: 'count',
  measures: 'anything',
  source: 'common practice',
  words: 'something',
  start: 1,
  fitted: true,
  shape: linear,
};

describe('a table of terms', () => {
  it('takes its weights from a file of their own', () => {
    const { some } = termsOf({ some: row }, { some: 2.5 });
    expect(some.id).toBe('some');
    expect(price(some, 3)).toBe(8);
  });
  it('refuses a weight that no row asks for, and a row without one', () => {
    const rows: Readonly<Record<string, TermRow>> = { some: row };
    expect(() => termsOf(rows, { some: 1, other: 1 })).toThrow(/other/);
    expect(() => termsOf(rows, {})).toThrow(/some/);
    expect(() => termsOf(rows, { some: -1 })).toThrow(RangeError);
  });
  it.each([
    ['left', LEFT_TERMS],
    ['right', RIGHT_TERMS],
  ])('of the %s hand says of each row what it measures, why, and in which words', (_hand, terms) => {
    for (const term of Object.values(terms))
      for (const text of [term.measures, term.source, term.words]) expect(text.length).toBeGreaterThan(2);
  });
  it.each([
    ['left', LEFT_TERMS],
    ['right', RIGHT_TERMS],
  ])(
    'of the %s hand leaves 25 weights at most to fitting, each of which weighs something',
    (_hand, terms) => {
      const free = Object.values(terms).filter(({ fitted }) => fitted);
      expect(free.length).toBeGreaterThan(15);
      expect(free.length).toBeLessThanOrEqual(25);
      for (const { start } of free) expect(start).toBeGreaterThan(0);
    },
  );
});
