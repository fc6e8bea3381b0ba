/**
 * The weights in the table against passages that they were not fitted to: the checking halves of the calibration
 * (fingerings: common practice). The limits stand a little below what was measured.
 */
import { describe, expect, it } from 'vitest';
import { measured, weightsOfBase } from '../../calibration/measure';
import { CATEGORIES, checkingHalf, fittingHalf, PASSAGES } from '../../calibration/passages/all';
import { taskOf } from '../../calibration/passage';
import { LEFT_START as START } from '../../calibration/start';

const checking = CATEGORIES.flatMap(checkingHalf);

describe('the calibration', () => {
  it('has over 100 passages in all the categories, none twice, each with accepted fingerings that agree in music', () => {
    const all = Object.values(PASSAGES).flat();
    expect(all.length).toBeGreaterThanOrEqual(100);
    expect(new Set(CATEGORIES.flatMap((name) => PASSAGES[name]!.map(({ id }) => `${name} ${id}`))).size).toBe(
      all.length,
    );
    for (const passage of all) expect(taskOf(passage).accepted.length).toBeGreaterThan(0);
    for (const name of CATEGORIES)
      expect(Math.abs(fittingHalf(name).length - checkingHalf(name).length)).toBeLessThanOrEqual(1);
  });

  it('carries over to the passages that were kept back', () => {
    const totals = measured(checking);
    expect(totals.whole / totals.passages).toBeGreaterThanOrEqual(0.75);
    expect(totals.strings / totals.fretted).toBeGreaterThanOrEqual(0.92);
    expect(totals.fingers / totals.fretted).toBeGreaterThanOrEqual(0.86);
  });

  it('is better than the unfitted start there', () => {
    const [fitted, start] = [measured(checking), measured(checking, weightsOfBase(START))];
    expect(fitted.whole).toBeGreaterThan(start.whole);
    expect(fitted.fingers).toBeGreaterThan(start.fingers);
  });
});
