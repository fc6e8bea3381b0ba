/** The deliberate faults take too long for every run; that each still finds the line it changes does not. */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { FAULTS } from '../long/faultRows';

const root = new URL('../../', import.meta.url);

describe('the deliberate faults', () => {
  it('find what they change', () => {
    const lost = FAULTS.filter(({ file, find }) => !readFileSync(new URL(file, root), 'utf8').includes(find));
    expect(lost.map(({ name }) => name)).toEqual([]);
    expect(FAULTS.length).toBeGreaterThan(80);
  });
});
