/** The ways of the right hand: from states through the situations that they leave. */
import type { EdgeList } from '../edgeList';
import { type Mask, UNREACHABLE, type Ways } from '../lattice';

export class StrokeWays implements Ways {
  constructor(
    /** By state of the layer before: its situation. */
    private readonly situationOf: Int32Array,
    private readonly situations: number,
    /** From situations to states. */
    private readonly edges: EdgeList,
  ) {}

  pull(before: Int32Array, mask: Mask, least: Int32Array, via: Int32Array, times = 1): void {
    const cost = new Int32Array(this.situations).fill(UNREACHABLE);
    const state = new Int32Array(this.situations).fill(-1);
    for (let s = 0; s < before.length; s++) {
      const n = this.situationOf[s]!;
      if (before[s]! >= cost[n]!) continue;
      cost[n] = before[s]!;
      state[n] = s;
    }
    this.edges.pull(cost, mask, least, via, times);
    for (let s = 0; s < least.length; s++) {
      if (least[s]! >= UNREACHABLE) {
        least[s] = UNREACHABLE;
        via[s] = -1;
      } else if (via[s]! >= 0) via[s] = state[via[s]!]!;
    }
  }

  push(rest: Int32Array, least: Int32Array, via: Int32Array, times = 1): void {
    const cost = new Int32Array(this.situations).fill(UNREACHABLE);
    const to = new Int32Array(this.situations).fill(-1);
    this.edges.push(rest, cost, to, times);
    for (let s = 0; s < least.length; s++) {
      least[s] = cost[this.situationOf[s]!]!;
      via[s] = to[this.situationOf[s]!]!;
    }
  }

  price(from: number, to: number): number {
    return this.edges.maybePrice(this.situationOf[from]!, to) ?? UNREACHABLE;
  }
}
