import { describe, expect, it } from 'vitest';
import { differenceOf, type Example, sharesOf } from './example';
import { fitFactors, type FitRules } from './fit';
import { foldsOf } from './folds';
import { notSeparable } from './separable';

const rival = (above: Record<string, number>, margin = 5) => ({
  above: new Map(Object.entries(above)),
  margin,
});
const example = (id: string, family: string, ...rivals: ReturnType<typeof rival>[]): Example => ({
  id,
  family,
  rivals,
});
const rules = (more: Partial<FitRules> = {}): FitRules => ({
  terms: ['hop', 'shift'],
  weights: { hop: 2, shift: 10, barre: 30 },
  pull: 0.01,
  mostLoss: 100,
  farthest: 20,
  orders: [],
  ...more,
});

describe('fitting factors', () => {
  it('moves nothing where every rival is dear enough', () => {
    const { factors, loss } = fitFactors([example('a', 'f', rival({ hop: 8 }))], rules());
    expect([...factors.values()]).toEqual([1, 1]);
    expect(loss).toBe(0);
  });
  it('makes an accepted fingering the cheapest: what speaks for it weighs more, what speaks against it less', () => {
    const { factors, loss } = fitFactors(
      [example('a', 'f', rival({ hop: 8, shift: -20 }))],
      rules({ pull: 1e-4 }),
    );
    expect(factors.get('hop')).toBeGreaterThan(1);
    expect(factors.get('shift')).toBeLessThan(1);
    expect(8 * factors.get('hop')! - 20 * factors.get('shift')!).toBeGreaterThan(4);
    expect(loss).toBeLessThan(1);
  });
  it('reaches the optimum that calculus gives for one rival and one term', () => {
    // min 0.5·pull·(x−1)² + (margin − 10·x): x = 1 + 10/pull as long as the margin is not reached; else 10·x = margin.
    const one = [example('a', 'f', rival({ hop: 10 }, 30))];
    expect(fitFactors(one, rules({ terms: ['hop'], pull: 10 })).factors.get('hop')).toBeCloseTo(2, 1);
    expect(fitFactors(one, rules({ terms: ['hop'], pull: 1 })).factors.get('hop')).toBeCloseTo(3, 1);
  });
  it('leaves what is not free, and keeps orders and the farthest factor', () => {
    const wish = [example('a', 'f', rival({ hop: 100, shift: -100, barre: -40 }, 1000))];
    const { factors } = fitFactors(
      wish,
      rules({ pull: 1e-4, mostLoss: 1e6, orders: [['shift', 'hop']], farthest: 3 }),
    );
    expect(factors.has('barre')).toBe(false);
    expect(factors.get('hop')).toBeLessThanOrEqual(3);
    expect(10 * factors.get('shift')!).toBeGreaterThanOrEqual(2 * factors.get('hop')! - 1e-9);
  });
  it('is not led by an example that contradicts the others', () => {
    const many = Array.from({ length: 6 }, (_, k) => example(`a${k}`, 'f', rival({ hop: 8, shift: -20 })));
    const wrong = example('wrong', 'f', rival({ hop: -800, shift: 2 }));
    const { factors } = fitFactors([...many, wrong], rules({ pull: 1e-4, mostLoss: 40 }));
    expect(factors.get('hop')! * 8).toBeGreaterThan(factors.get('shift')! * 20);
  });
  it('says which free term weighs nothing', () => {
    expect(() => fitFactors([], rules({ terms: ['ring'], weights: { ring: 0 } }))).toThrow(
      /ring weighs nothing/,
    );
  });
});

describe('separability', () => {
  it('tells what no weights separate from what others do not let through', () => {
    const impossible = example('x', 'f', rival({ hop: -1, shift: -1 }));
    const yes = example('y', 'f', rival({ hop: 4, shift: -10 }));
    const no = example('z', 'f', rival({ hop: -4, shift: 10 }));
    expect(notSeparable([impossible, yes], rules()).alone).toEqual(['x']);
    expect(notSeparable([yes, no], rules()).inFamily.length).toBeGreaterThan(0);
    expect(notSeparable([yes, { ...no, family: 'g' }], rules())).toMatchObject({ alone: [], inFamily: [] });
    expect(notSeparable([yes, { ...no, family: 'g' }], rules()).together.length).toBeGreaterThan(0);
  });
});

describe('examples', () => {
  it('of every family together weigh the same', () => {
    const shares = sharesOf([{ family: 'a' }, { family: 'b' }, { family: 'b' }, { family: 'b' }]);
    expect(shares[0]).toBeCloseTo(1 / 2);
    expect(shares.slice(1).reduce((a, b) => a + b)).toBeCloseTo(1 / 2);
  });
  it('have costs that can be compared term by term', () => {
    expect([...differenceOf(new Map([['a', 3]]), new Map([['b', 2]]))]).toEqual([
      ['a', 3],
      ['b', -2],
    ]);
  });
});

describe('folds', () => {
  it('keep the same music together, and hold everything once', () => {
    const all = Array.from({ length: 23 }, (_, k) => ({ id: k, music: `m${k % 9}` }));
    const folds = foldsOf(all, 5, ({ music }) => music);
    expect(
      folds
        .flat()
        .map(({ id }) => id)
        .sort((a, b) => a - b),
    ).toEqual(all.map(({ id }) => id));
    for (const music of new Set(all.map((one) => one.music)))
      expect(folds.filter((fold) => fold.some((one) => one.music === music))).toHaveLength(1);
    expect(
      Math.max(...folds.map((fold) => fold.length)) - Math.min(...folds.map((fold) => fold.length)),
    ).toBeLessThan(4);
  });
});
