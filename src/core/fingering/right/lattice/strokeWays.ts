/** The ways of the right hand: from states through the situations that they leave. */
import type { EdgeList } from '../../solver/edgeList';
import { type Mask, UNREACHABLE, type Ways } from '../../solver/lattice';

export class StrokeWays implements Ways {
  constructor(
    /** By state of the layer before: its situation. */
    private readonly situationOf: Int32Array,
    private readonly situations: number,
    /** From situations to states. */
    private readonly edges: EdgeList,
  ) {}

  pull(before: Int32Array, mask: Mask, least: Int32Array, via: Int32Array, times = 1): void {
    scratch(this.situations);
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
    scratch(this.situations);
    this.edges.push(rest, cost, state, times);
    for (let s = 0; s < least.length; s++) {
      least[s] = cost[this.situationOf[s]!]!;
      via[s] = state[this.situationOf[s]!]!;
    }
  }

  price(from: number, to: number): number {
    return this.edges.maybePrice(this.situationOf[from]!, to) ?? UNREACHABLE;
  }
}

/** By situation: the least cost in it, and the state that has it; written over with each step. */
let cost = new Int32Array(64);
let state = new Int32Array(64);

function scratch(situations: number): void {
  if (cost.length < situations) {
    cost = new Int32Array(2 * situations);
    state = new Int32Array(2 * situations);
  }
  cost.fill(UNREACHABLE, 0, situations);
  state.fill(-1, 0, situations);
}
