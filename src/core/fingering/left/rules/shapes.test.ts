/** How fingers lie to each other, and how high the hand comes up, worked out by hand. */
import { describe, expect, it } from 'vitest';
import { at, chords, wayTerms } from '../../../../../tests/helpers/handRules';
import { handState } from './handState';
import { priceOf } from './ledger';
import type { Placement } from './place';
import { entryCost, stateCost } from './prices';
import type { LeftTermId } from './terms';

describe('a hand that lies between frets', () => {
  it('has come up a part of the way: fingers drawn in out of the first position are not free', () => {
    const problem = chords([55 + 3, 64 + 3]);
    const positionOf = (fingers: readonly [number, number]) => {
      const places = [at(3, 3, fingers[0]), at(1, 3, fingers[1])];
      const terms = new Map<LeftTermId, number>();
      const add = (term: LeftTermId, cost: number) => void terms.set(term, (terms.get(term) ?? 0) + cost);
      entryCost(problem, handState([0, 1], places, null), add);
      return terms.get('position') ?? 0;
    };
    // 3 and 4 lie as in I, 2 and 3 between I and II, 1 and 2 between II and III.
    expect(positionOf([3, 4])).toBe(0);
    // Nine tenths of the way to the middle, and eight tenths more for each fret out of the first position.
    expect(positionOf([2, 3])).toBe(priceOf(problem.weights, 'position', 0.45 * 1.8));
    expect(positionOf([1, 2])).toBe(priceOf(problem.weights, 'position', 1.45 + 0.8));
  });
});

describe('three fingers side by side', () => {
  const cost = (strings: readonly number[], fingers: readonly number[]) => {
    const problem = chords([57, 62, 66]);
    const terms = new Map<LeftTermId, number>();
    const add = (term: LeftTermId, amount: number) => void terms.set(term, (terms.get(term) ?? 0) + amount);
    const places = strings.map((string, k) => at(string, 7, fingers[k]!));
    stateCost(problem, problem.moments[0]!, handState([0, 1, 2], places, null), add);
    return terms.get('contraction') ?? 0;
  };
  it('are rather 1 2 3 on neighbouring strings; apart they are as they come', () => {
    expect(cost([4, 3, 2], [2, 3, 4])).toBeGreaterThan(cost([4, 3, 2], [1, 2, 3]));
    expect(cost([6, 2, 1], [2, 3, 4])).toBe(cost([6, 2, 1], [1, 2, 3]));
  });
});

describe('four fingers side by side', () => {
  it('are nearly forbidden: dearer than a full barre', () => {
    const problem = chords([47, 62, 66, 71]);
    const cost = (fingers: readonly number[]) => {
      const places = [6, 3, 2, 1].map((string, k) => at(string, 7, fingers[k]!));
      const state = handState([0, 1, 2, 3], places, null);
      return stateCost(problem, problem.moments[0]!, state) + entryCost(problem, state);
    };
    expect(cost([1, 2, 3, 4])).toBeGreaterThan(1.5 * cost([1, 1, 1, 1]));
  });
});

describe('a hand that comes with the first finger idle', () => {
  const positionOf = (...places: readonly Placement[]) => {
    const problem = chords(
      places.map(({ string, fret }) => [64, 59, 55, 50, 45, 40][string - 1]! + fret).sort(),
    );
    const terms = new Map<LeftTermId, number>();
    const add = (term: LeftTermId, cost: number) => void terms.set(term, (terms.get(term) ?? 0) + cost);
    const low = [...places].sort((a, b) => b.string - a.string);
    entryCost(problem, handState([...places.keys()], low, null), add);
    return terms.get('position') ?? 0;
  };
  const { weights } = chords([64]);
  const height = (fret: number) => priceOf(weights, 'position', fret - 1 + 0.8);

  it('spares no height: several fingers could lie a fret higher, one number lower each', () => {
    expect(positionOf(at(3, 7, 2), at(2, 8, 3))).toBe(height(7));
    expect(positionOf(at(3, 7, 1), at(2, 8, 2))).toBe(height(7));
    // One finger may be waiting for the first.
    expect(positionOf(at(3, 7, 2))).toBe(height(6));
  });
  it('drawn in does so only with all three others', () => {
    expect(positionOf(at(4, 9, 2), at(3, 9, 3), at(2, 9, 4))).toBe(
      priceOf(weights, 'position', 6 + 0.9 + 1 - 1 + 0.8),
    );
    expect(positionOf(at(3, 9, 3), at(2, 9, 4))).toBe(priceOf(weights, 'position', 6 + 0.45 - 1 + 0.8));
  });
  it('at home has a finger for each fret, and only who reaches for the fourth could come higher', () => {
    expect(positionOf(at(5, 2, 2), at(4, 2, 3))).toBe(0);
    expect(positionOf(at(5, 2, 2), at(2, 3, 3))).toBe(0);
    expect(positionOf(at(4, 4, 4))).toBe(height(2));
    expect(positionOf(at(4, 4, 4), at(2, 1, 1))).toBe(0);
  });
  it('pays nothing where it has come before', () => {
    const way = (from: Placement, ...to: readonly Placement[]) =>
      wayTerms(chords([59 + from.fret], [59 + 8, 55 + 7]), [from], to).get('position') ?? 0;
    expect(way(at(2, 6, 1), at(2, 8, 3), at(3, 7, 2))).toBe(0);
  });
});

describe('tips on one fret where a barre would do', () => {
  const crowding = (...places: readonly Placement[]) => {
    const problem = chords(places.map(({ string, fret }) => [64, 59, 55, 50, 45, 40][string - 1]! + fret));
    const terms = new Map<LeftTermId, number>();
    const add = (term: LeftTermId, cost: number) => void terms.set(term, (terms.get(term) ?? 0) + cost);
    stateCost(problem, problem.moments[0]!, handState([...places.keys()], places, null), add);
    return terms.get('contraction') ?? 0;
  };
  const { weights } = chords([64]);
  const by = (frets: number) => priceOf(weights, 'contraction', frets);

  it('are dearer where a barre would lie over far strings: F major as 1 2 3', () => {
    expect(crowding(at(6, 1, 1), at(2, 1, 2), at(1, 1, 3))).toBe(by(0.5) + by(1) + by(2));
    expect(crowding(at(6, 1, 1), at(2, 1, 1), at(1, 1, 1))).toBe(0);
  });
  it('are dearer across the strings while all four fingers are needed: B minor as 1 4 3 2', () => {
    const taken = [at(3, 4, 4), at(2, 3, 3), at(1, 2, 2)];
    expect(crowding(at(5, 2, 1), ...taken)).toBe(by(0.5) + by(2));
    expect(crowding(at(5, 2, 1), at(2, 3, 3), at(1, 2, 2))).toBe(by(0.5));
    expect(crowding(at(5, 2, 1), at(4, 0, 0), ...taken)).toBe(by(0.5));
  });
  it('are no dearer side by side, a string between each, over an open string, or with finger 1 elsewhere', () => {
    expect(crowding(at(4, 5, 1), at(3, 5, 2), at(2, 5, 4))).toBe(by(1) + by(2));
    expect(crowding(at(5, 2, 1), at(3, 2, 2), at(1, 2, 3))).toBe(by(1) + by(1));
    expect(crowding(at(6, 1, 1), at(3, 0, 0), at(2, 1, 2), at(1, 1, 3))).toBe(by(0.5) + by(1));
    // G major with b below: 2 1 3 4.
    expect(crowding(at(6, 3, 2), at(5, 2, 1), at(2, 3, 3), at(1, 3, 4))).toBeLessThan(by(2));
  });
});
