/**
 * The ways of the left hand from one moment to the next. A way is priced when it is asked for: where what comes
 * before it, what it cuts and the least that the hand's way costs are dearer than the best found so far, it cannot
 * be better. So the least is exact and most pairs are never priced.
 */
import { type Mask, UNREACHABLE, type Ways } from '../../lattice';
import type { Crowd, KeptHand } from './keptHands';
import type { StateRows } from './packedLayer';
import type { HandTables } from './handTables';
import type { StepPrice } from './stepPrice';

const UNPRICED = -1;

export class PackedWays implements Ways {
  private readonly members: readonly Int32Array[];
  /** By arrival (a state of this layer, as far as one crowd is concerned): what is known of it. */
  private readonly arrivalTo: Int32Array;
  private readonly arrivalCrowd: Int32Array;
  private readonly arrivalCuts: Int32Array;
  private readonly arrivalTaker: Uint8Array;
  /** First of its prices, one for each member of the crowd. */
  private readonly arrivalPrices: Int32Array;
  /** Arrivals of state s: `startOf[s]` to `startOf[s + 1]` − 1. */
  private readonly startOf: Int32Array;
  private readonly arrivalsOfCrowd: readonly (readonly number[])[];
  private readonly prices: Int32Array;

  constructor(
    private readonly tables: HandTables,
    private readonly before: StateRows,
    private readonly rows: StateRows,
    keptOf: readonly KeptHand[],
    crowds: readonly Crowd[],
    private readonly step: StepPrice,
  ) {
    this.members = crowds.map((crowd) => Int32Array.from(crowd.members));
    const to: number[] = [];
    const of: number[] = [];
    const cuts: number[] = [];
    const takers: number[] = [];
    const first: number[] = [];
    const arrivalsOfCrowd: number[][] = crowds.map(() => []);
    let priced = 0;
    this.startOf = new Int32Array(rows.count + 1);
    for (let s = 0; s < rows.count; s++) {
      for (const source of keptOf[s]!.sources) {
        // Only a hand with nothing stopped must remember what the hand before leaves.
        const crowd = rows.down[s]! > 0 ? source.group.all : source.group.byMemory.get(rows.memory[s]! - 1);
        if (!crowd) continue;
        arrivalsOfCrowd[crowd.index]!.push(to.length);
        to.push(s);
        of.push(crowd.index);
        cuts.push(source.cuts);
        takers.push(source.taker);
        first.push(priced);
        priced += crowd.members.length;
      }
      this.startOf[s + 1] = to.length;
    }
    this.arrivalTo = Int32Array.from(to);
    this.arrivalCrowd = Int32Array.from(of);
    this.arrivalCuts = Int32Array.from(cuts);
    this.arrivalTaker = Uint8Array.from(takers);
    this.arrivalPrices = Int32Array.from(first);
    this.arrivalsOfCrowd = arrivalsOfCrowd;
    this.prices = new Int32Array(priced).fill(UNPRICED);
  }

  pull(before: Int32Array, mask: Mask, least: Int32Array, via: Int32Array): void {
    const cheapest = this.members.map((crowd) => placeOfLeast(crowd, before));
    for (let to = 0; to < least.length; to++) {
      if (mask && !mask[to]) continue;
      let best = UNREACHABLE;
      let from = -1;
      for (let a = this.startOf[to]!; a < this.startOf[to + 1]!; a++) {
        const c = this.arrivalCrowd[a]!;
        const members = this.members[c]!;
        const first = cheapest[c]!;
        const cuts = this.arrivalCuts[a]!;
        if (before[members[first]!]! + cuts > best) continue;
        // The cheapest member first: its price shuts out most of the others.
        for (let n = -1; n < members.length; n++) {
          if (n === first) continue;
          const place = n < 0 ? first : n;
          const state = members[place]!;
          const soFar = before[state]! + cuts;
          if (soFar > best || soFar >= UNREACHABLE) continue;
          if (soFar + this.leastWay(state, to) > best) continue;
          const sum = before[state]! + this.price(a, place, state, to);
          if (sum < best || (sum === best && state < from)) {
            best = sum;
            from = state;
          }
        }
      }
      if (best >= UNREACHABLE) continue;
      least[to] = best;
      via[to] = from;
    }
  }

  push(rest: Int32Array, least: Int32Array, via: Int32Array): void {
    for (let c = 0; c < this.members.length; c++) {
      const members = this.members[c]!;
      const arrivals = this.arrivalsOfCrowd[c]!;
      const first = this.cheapestArrival(arrivals, rest);
      if (first < 0) continue;
      for (let place = 0; place < members.length; place++) {
        const from = members[place]!;
        let best = least[from]!;
        let to = via[from]!;
        for (let n = -1; n < arrivals.length; n++) {
          if (n === first) continue;
          const a = arrivals[n < 0 ? first : n]!;
          const state = this.arrivalTo[a]!;
          const after = rest[state]! + this.arrivalCuts[a]!;
          if (after > best || after >= UNREACHABLE) continue;
          if (after + this.leastWay(from, state) > best) continue;
          const sum = rest[state]! + this.price(a, place, from, state);
          if (sum < best || (sum === best && state < to)) {
            best = sum;
            to = state;
          }
        }
        if (best >= UNREACHABLE) continue;
        least[from] = best;
        via[from] = to;
      }
    }
  }

  private cheapestArrival(arrivals: readonly number[], rest: Int32Array): number {
    let first = -1;
    let least = UNREACHABLE;
    for (let n = 0; n < arrivals.length; n++) {
      const cost = rest[this.arrivalTo[arrivals[n]!]!]! + this.arrivalCuts[arrivals[n]!]!;
      if (cost >= least) continue;
      least = cost;
      first = n;
    }
    return first;
  }

  private leastWay(from: number, to: number): number {
    return this.rows.down[to] === 0
      ? 0
      : this.tables.leastShift(this.before.range[from]!, this.rows.range[to]!);
  }

  /** Cuts counted; UNREACHABLE when the finger that takes a note over was not free. */
  private price(arrival: number, place: number, from: number, to: number): number {
    const cell = this.arrivalPrices[arrival]! + place;
    const known = this.prices[cell]!;
    if (known !== UNPRICED) return known;
    const taken = (this.arrivalTaker[arrival]! & this.before.down[from]!) !== 0;
    const price = taken ? UNREACHABLE : this.arrivalCuts[arrival]! + this.step.price(from, to);
    this.prices[cell] = price;
    return price;
  }
}

/** The place in the list of the member with the least cost, the first among equals. */
function placeOfLeast(members: Int32Array, costs: Int32Array): number {
  let place = 0;
  for (let n = 1; n < members.length; n++) if (costs[members[n]!]! < costs[members[place]!]!) place = n;
  return place;
}
