import { describe, expect, it } from 'vitest';
import { randomFrom } from '../../../../tests/helpers/music';
import { EdgeList } from './edgeList';
import { type Jump, jumpPrices, raisedShares, restOn, sharesOf, solveWithJumps } from './jumps';
import { type Layer, type Mask, solveLattice } from './lattice';

/** Layers of a few states with random prices between all of them. */
function randomLayers(random: () => number, counts: readonly number[]): readonly Layer[] {
  const price = () => Math.floor(random() * 20);
  return counts.map((count, k): Layer => {
    const before = counts[k - 1] ?? 0;
    const start = Int32Array.from({ length: count + 1 }, (_, s) => s * before);
    const from = Int32Array.from({ length: count * before }, (_, e) => e % before);
    const ways = k === 0 ? null : new EdgeList(start, from, Int32Array.from(from, price));
    return { stateCost: Int32Array.from({ length: count }, price), ways, plays: 1 + (k % 2), steps: 1 };
  });
}

function randomJump(random: () => number, counts: readonly number[], from: number, to: number): Jump {
  const [rows, columns] = [2, 3];
  const price = Int32Array.from({ length: rows * columns }, () => Math.floor(random() * 30));
  const classes = (count: number, of: number) =>
    Int32Array.from({ length: count }, () => Math.floor(random() * of));
  return {
    from,
    to,
    rowOf: classes(counts[from]!, rows),
    columnOf: classes(counts[to]!, columns),
    prices: jumpPrices(rows, columns, price),
  };
}

/** Every path, and what it costs with its jumps. */
function cheapestByTrying(layers: readonly Layer[], jumps: readonly Jump[], masks: readonly Mask[]): number {
  let best = Infinity;
  const path: number[] = [];
  const walk = (k: number, cost: number) => {
    const layer = layers[k];
    if (!layer) {
      const back = jumps.reduce((sum, { from, to, rowOf, columnOf, prices }) => {
        const cell = rowOf[path[from]!]! * prices.columns + columnOf[path[to]!]!;
        return sum + prices.price[cell]!;
      }, 0);
      best = Math.min(best, cost + back);
      return;
    }
    for (let s = 0; s < layer.stateCost.length; s++) {
      if (masks[k] && !masks[k][s]) continue;
      path[k] = s;
      const way = k === 0 ? 0 : (layer.ways as EdgeList).maybePrice(path[k - 1]!, s)!;
      walk(k + 1, cost + layer.plays! * layer.stateCost[s]! + layer.steps! * way);
    }
  };
  walk(0, 0);
  return best;
}

const SEEDS = Array.from({ length: 30 }, (_, k) => k + 1);

describe('costs between layers that are no neighbours', () => {
  const cases = SEEDS.map((seed) => {
    const random = randomFrom(seed);
    const counts = [3, 4, 2, 4, 3];
    const layers = randomLayers(random, counts);
    // One back, one on, one that overlaps both.
    const jumps = [
      randomJump(random, counts, 3, 0),
      randomJump(random, counts, 1, 4),
      randomJump(random, counts, 4, 2),
    ];
    const masks: readonly Mask[] =
      seed % 3 === 0
        ? layers.map((_layer, k) => (k === 1 ? Uint8Array.of(0, 1, 1, 0) : null))
        : layers.map(() => null);
    const chain = solveLattice(layers, masks, null, sharesOf(jumps, layers.length))!;
    return { layers, masks, jumps, chain };
  });

  it('are paid by the best path as by the best of all that are tried', () => {
    for (const { layers, masks, jumps, chain } of cases) {
      const found = solveWithJumps({ layers, masks, jumps }, chain)!;
      expect(found.cost).toBe(cheapestByTrying(layers, jumps, masks));
    }
  });

  it('have shares that together never say more than they cost', () => {
    for (const { layers, masks, jumps, chain } of cases) {
      for (const { prices } of [...jumps, ...raisedShares({ layers, masks, jumps }, chain).jumps]) {
        for (let r = 0; r < prices.rows; r++)
          for (let c = 0; c < prices.columns; c++)
            expect(prices.rowShare[r]! + prices.columnShare[c]!).toBeLessThanOrEqual(
              prices.price[r * prices.columns + c]!,
            );
      }
    }
  });

  it('give a bound that is raised and stays one', () => {
    let raisedOnes = 0;
    for (const { layers, masks, jumps, chain } of cases) {
      const raised = raisedShares({ layers, masks, jumps }, chain);
      const best = cheapestByTrying(layers, jumps, masks);
      expect(raised.chain.cost).toBeGreaterThanOrEqual(chain.cost);
      expect(raised.chain.cost).toBeLessThanOrEqual(best);
      if (raised.chain.cost > chain.cost) raisedOnes++;
      const found = solveWithJumps({ layers, masks, jumps: raised.jumps }, raised.chain)!;
      expect(found.cost).toBe(best);
      expect(restOn(raised.jumps, found.path)).toBeGreaterThanOrEqual(0);
    }
    expect(raisedOnes).toBeGreaterThan(3);
  });

  it('find nothing where everything costs as much as the limit', () => {
    for (const { layers, masks, jumps, chain } of cases) {
      const best = cheapestByTrying(layers, jumps, masks);
      expect(solveWithJumps({ layers, masks, jumps }, chain, best)).toBeNull();
      expect(solveWithJumps({ layers, masks, jumps }, chain, best + 1)!.cost).toBe(best);
    }
  });
});
