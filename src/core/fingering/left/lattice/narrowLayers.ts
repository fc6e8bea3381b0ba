/**
 * Layers with some of their states only, numbered in the same order. There are few enough of them to keep the price of
 * every step between two in a table.
 */
import { type Mask, UNREACHABLE } from '../../solver/lattice';
import { HandLayer, type StepWays } from './handLayer';
import { pickedRows } from './stateRows';

/** @param kept by layer: numbers of states, ascending */
export function narrowLayers(
  layers: readonly HandLayer[],
  kept: readonly (readonly number[])[],
): readonly HandLayer[] {
  return layers.map((layer, k) => {
    const here = kept[k]!;
    const stateCost = Int32Array.from(here, (s) => layer.stateCost[s]!);
    const ways = layer.ways && new TabledWays(layer.ways, kept[k - 1]!, here);
    const { omitted } = layer;
    return new HandLayer({ rows: pickedRows(layer.rows, here), stateCost, ways, omitted }, layer.place);
  });
}

class TabledWays implements StepWays {
  private made: Int32Array | null = null;

  constructor(
    private readonly all: StepWays,
    private readonly before: readonly number[],
    private readonly here: readonly number[],
  ) {}

  /** Row by row of the states before; made when it is asked for: most edits look at a few moments. */
  private get prices(): Int32Array {
    return (this.made ??= this.all.pricesBetween(this.before, this.here));
  }

  pull(costs: Int32Array, mask: Mask, least: Int32Array, via: Int32Array, times = 1): void {
    const { prices } = this;
    const count = least.length;
    for (let a = 0, n = 0; a < costs.length; a++) {
      const there = costs[a]!;
      if (there >= UNREACHABLE) {
        n += count;
        continue;
      }
      for (let b = 0; b < count; b++, n++) {
        const price = prices[n]!;
        const sum = there + times * price;
        if (sum >= least[b]! || price >= UNREACHABLE) continue;
        least[b] = sum;
        via[b] = a;
      }
    }
    if (mask) for (let b = 0; b < count; b++) if (!mask[b]) shut(b, least, via);
  }

  push(rest: Int32Array, least: Int32Array, via: Int32Array, times = 1): void {
    const { prices } = this;
    const count = this.here.length;
    for (let a = 0, n = 0; a < least.length; a++) {
      let best = UNREACHABLE;
      let next = -1;
      for (let b = 0; b < count; b++, n++) {
        const price = prices[n]!;
        const sum = rest[b]! + times * price;
        if (sum >= best || price >= UNREACHABLE) continue;
        best = sum;
        next = b;
      }
      least[a] = best;
      via[a] = next;
    }
  }

  priceOf(from: number, to: number): number {
    return this.prices[from * this.here.length + to]!;
  }

  pricesBetween(before: readonly number[], here: readonly number[]): Int32Array {
    return Int32Array.from(before.flatMap((a) => here.map((b) => this.priceOf(a, b))));
  }
}

function shut(b: number, least: Int32Array, via: Int32Array): void {
  least[b] = UNREACHABLE;
  via[b] = -1;
}
