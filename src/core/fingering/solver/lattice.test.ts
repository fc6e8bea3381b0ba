import { describe, expect, it } from 'vitest';
import { randomFrom } from '../../../../tests/helpers/music';
import { EdgeList } from './edgeList';
import {
  bestPath,
  costThrough,
  type Layer,
  type Mask,
  pathThrough,
  solveLattice,
  UNREACHABLE,
} from './lattice';

const STATES = 4;

/** Random layers of which about a third of the edges are missing. */
interface TestLayer extends Layer {
  readonly ways: EdgeList;
}

function randomLayers(seed: number, count: number): TestLayer[] {
  const random = randomFrom(seed);
  return Array.from({ length: count }, (_, k) => {
    const edgeStart = new Int32Array(STATES + 1);
    const from: number[] = [];
    const cost: number[] = [];
    for (let s = 0; s < STATES; s++) {
      for (let before = 0; k > 0 && before < STATES; before++) {
        if (random() < 0.3) continue;
        from.push(before);
        cost.push(Math.floor(random() * 10));
      }
      edgeStart[s + 1] = from.length;
    }
    const stateCost = Int32Array.from({ length: STATES }, () => Math.floor(random() * 10));
    const ways = new EdgeList(edgeStart, Int32Array.from(from), Int32Array.from(cost));
    return { stateCost, ways };
  });
}

const stepCost = (layer: TestLayer, from: number, to: number): number =>
  layer.ways.maybePrice(from, to) ?? Infinity;

const pathCost = (layers: readonly TestLayer[], path: readonly number[]): number =>
  path.reduce(
    (sum, s, k) => sum + layers[k]!.stateCost[s]! + (k > 0 ? stepCost(layers[k]!, path[k - 1]!, s) : 0),
    0,
  );

const allPaths = (count: number): number[][] =>
  Array.from({ length: STATES ** count }, (_, n) =>
    Array.from({ length: count }, (_unused, k) => Math.floor(n / STATES ** k) % STATES),
  );

describe('the lattice', () => {
  it.each([1, 2, 3, 4, 5, 6])(
    'gives the least path and the least path through every state (seed %i)',
    (seed) => {
      const layers = randomLayers(seed, 5);
      const paths = allPaths(5).map((path) => ({ path, cost: pathCost(layers, path) }));
      const solution = solveLattice(
        layers,
        layers.map(() => null),
      )!;
      expect(solution.cost).toBe(Math.min(...paths.map((one) => one.cost)));
      expect(pathCost(layers, bestPath(solution))).toBe(solution.cost);
      for (let k = 0; k < 5; k++) {
        for (let s = 0; s < STATES; s++) {
          const least = Math.min(...paths.filter((one) => one.path[k] === s).map((one) => one.cost));
          expect(costThrough(solution, k, s)).toBe(Math.min(UNREACHABLE, least));
          if (least < Infinity) expect(pathCost(layers, pathThrough(solution, k, s))).toBe(least);
        }
      }
    },
  );

  it('gives the same from kept messages as from none, whatever masks come and go', () => {
    const random = randomFrom(77);
    const layers = randomLayers(9, 40);
    let shared = 0;
    let kept = solveLattice(
      layers,
      layers.map(() => null),
    );
    for (let turn = 0; turn < 40; turn++) {
      const masks: Mask[] = layers.map(() =>
        random() < 0.9 ? null : Uint8Array.from({ length: STATES }, () => (random() < 0.7 ? 1 : 0)),
      );
      const fresh = solveLattice(layers, masks);
      const again = solveLattice(layers, masks, kept);
      expect(again?.cost).toBe(fresh?.cost);
      if (fresh && again) {
        layers.forEach((_, k) => {
          for (let s = 0; s < STATES; s++) {
            expect(costThrough(again, k, s)).toBe(costThrough(fresh, k, s));
            if (costThrough(fresh, k, s) < UNREACHABLE) {
              expect(pathThrough(again, k, s)).toEqual(pathThrough(fresh, k, s));
            }
          }
        });
        shared += again.forward.cost.filter((cost, k) => cost === kept?.forward.cost[k]).length;
        kept = again;
      }
    }
    // Messages agree again after a difference, and are then not worked out anew.
    expect(shared).toBeGreaterThan(40);
  });

  it('says when masks leave no path, and that nothing costs nothing', () => {
    const layers = randomLayers(3, 3);
    expect(solveLattice(layers, [null, new Uint8Array(STATES), null])).toBeNull();
    expect(solveLattice([], [])!.cost).toBe(0);
  });
});
