/** Ways that are all known and priced beforehand. */
import { type Mask, UNREACHABLE, type Ways } from './lattice';

export class EdgeList implements Ways {
  /** Edges into state s are numbered `start[s]` to `start[s + 1]` − 1. */
  constructor(
    readonly start: Int32Array,
    readonly from: Int32Array,
    readonly price: Int32Array,
  ) {}

  pull(before: Int32Array, mask: Mask, least: Int32Array, via: Int32Array, times = 1): void {
    for (let s = 0; s < least.length; s++) {
      if (mask && !mask[s]) continue;
      for (let e = this.start[s]!; e < this.start[s + 1]!; e++) {
        const sum = before[this.from[e]!]! + times * this.price[e]!;
        if (sum >= least[s]!) continue;
        least[s] = sum;
        via[s] = this.from[e]!;
      }
    }
  }

  push(rest: Int32Array, least: Int32Array, via: Int32Array, times = 1): void {
    for (let s = 0; s < this.start.length - 1; s++) {
      if (rest[s]! >= UNREACHABLE) continue;
      for (let e = this.start[s]!; e < this.start[s + 1]!; e++) {
        const sum = times * this.price[e]! + rest[s]!;
        const from = this.from[e]!;
        if (sum >= least[from]!) continue;
        least[from] = sum;
        via[from] = s;
      }
    }
  }

  /** Null when no way leads there. */
  maybePrice(from: number, to: number): number | null {
    for (let e = this.start[to]!; e < this.start[to + 1]!; e++) {
      if (this.from[e] === from) return this.price[e]!;
    }
    return null;
  }
}
