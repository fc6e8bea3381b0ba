import { describe, expect, it } from 'vitest';
import { differencesOf } from './difference';
import { applyOperations, setAttribute } from './operation';
import { NO_REGISTERS, type RegisterKey, type Registers } from './registers';

const of = (entries: Readonly<Record<string, string | number>>): Registers =>
  new Map(Object.entries(entries) as [RegisterKey, string | number][]);

describe('the difference of two states', () => {
  const then = of({ 'n1 finger': 1, 'n2 string': 3, 'n3 pluck': 'i' });
  const now = of({ 'n1 finger': 2, 'n2 string': 3, 'n4 finger': 4 });

  it('is what was changed, added and taken away', () => {
    expect(differencesOf(now, then)).toEqual([
      { target: 'n1', attribute: 'finger', now: 2, then: 1 },
      { target: 'n4', attribute: 'finger', now: 4, then: null },
      { target: 'n3', attribute: 'pluck', now: null, then: 'i' },
    ]);
    expect(differencesOf(now, now)).toEqual([]);
    expect(differencesOf(now, NO_REGISTERS)).toHaveLength(3);
  });

  it('set back one by one gives the other state', () => {
    const operations = differencesOf(now, then).map((one) =>
      setAttribute(now, one.target, one.attribute, one.then as never),
    );
    const result = applyOperations(
      now,
      operations.filter((one) => one !== null),
    );
    if (result.kind === 'conflict') throw new Error('a conflict');
    expect(differencesOf(result.registers, then)).toEqual([]);
  });
});
