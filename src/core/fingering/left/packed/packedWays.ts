/**
 * The ways of the left hand from one moment to the next. A way is priced when it is asked for: neighbours are tried
 * from the cheapest on, and none is tried whose own cost, with what is cut and the least that the hand's way costs,
 * is dearer than the best found so far. So the least is exact and many pairs are never priced.
 */
import { type Mask, UNREACHABLE, type Ways } from '../../lattice';
import type { Crowd, Source } from './keptHands';
import type { Arena } from './arena';
import type { StateRows } from './packedLayer';
import type { StepPrice } from './stepPrice';

const UNPRICED = -1;
/** Costs are sorted with the number of their owner in the low bits; both fit a double exactly. */
const OWNERS = 1 << 20;

export class PackedWays implements Ways {
  /** Members of crowd c: `memberStart[c]` to `memberStart[c + 1]` − 1. */
  private readonly memberStart: Int32Array;
  private readonly members: Int32Array;
  /** By arrival (a state of this layer, as far as one crowd is concerned): what is known of it. */
  private readonly arrivalTo: Int32Array;
  private readonly arrivalCrowd: Int32Array;
  private readonly arrivalCuts: Int32Array;
  private readonly arrivalTaker: Uint8Array;
  /** First of its prices, one for each member of the crowd. */
  private readonly arrivalPrices: Int32Array;
  /** Arrivals of state s: `startOf[s]` to `startOf[s + 1]` − 1. */
  private readonly startOf: Int32Array;
  /** Arrivals of crowd c, in the same way. */
  private readonly crowdStart: Int32Array;
  private readonly arrivals: Int32Array;
  private readonly prices: Int32Array;

  constructor(
    arena: Arena,
    private readonly before: StateRows,
    private readonly rows: StateRows,
    sourcesOf: readonly (readonly Source[])[],
    crowds: readonly Crowd[],
    private readonly step: StepPrice,
  ) {
    this.memberStart = arena.int32(crowds.length + 1);
    for (let c = 0; c < crowds.length; c++)
      this.memberStart[c + 1] = this.memberStart[c]! + crowds[c]!.members.length;
    this.members = arena.int32(this.memberStart[crowds.length]!);
    crowds.forEach(({ members }, c) => this.members.set(members, this.memberStart[c]));
    let count = 0;
    for (const sources of sourcesOf) count += sources.length;
    this.arrivalTo = arena.int32(count);
    this.arrivalCrowd = arena.int32(count);
    this.arrivalCuts = arena.int32(count);
    this.arrivalTaker = arena.uint8(count);
    this.arrivalPrices = arena.int32(count);
    this.startOf = arena.int32(rows.count + 1);
    this.crowdStart = arena.int32(crowds.length + 1);
    let priced = 0;
    let a = 0;
    for (let s = 0; s < rows.count; s++) {
      for (const source of sourcesOf[s]!) {
        // Only a hand with nothing stopped must remember what the hand before leaves.
        const crowd = rows.down[s]! > 0 ? source.group.all : source.group.byMemory.get(rows.memory[s]! - 1);
        if (!crowd) continue;
        this.arrivalTo[a] = s;
        this.arrivalCrowd[a] = crowd.index;
        this.arrivalCuts[a] = source.cuts;
        this.arrivalTaker[a] = source.taker;
        this.arrivalPrices[a] = priced;
        this.crowdStart[crowd.index + 1]!++;
        priced += crowd.members.length;
        a++;
      }
      this.startOf[s + 1] = a;
    }
    for (let c = 0; c < crowds.length; c++) this.crowdStart[c + 1]! += this.crowdStart[c]!;
    this.arrivals = arena.int32(a);
    const filled = crowds.map(() => 0);
    for (let n = 0; n < a; n++) {
      const crowd = this.arrivalCrowd[n]!;
      this.arrivals[this.crowdStart[crowd]! + filled[crowd]!++] = n;
    }
    this.prices = arena.int32(priced).fill(UNPRICED);
  }

  pull(before: Int32Array, mask: Mask, least: Int32Array, via: Int32Array, times = 1): void {
    const { memberStart, members, startOf, arrivalCrowd, arrivalCuts, arrivalPrices, prices, step } = this;
    const crowds = memberStart.length - 1;
    const order = scratch(members.length);
    const orderEnd = new Int32Array(crowds);
    const crowdLeast = new Int32Array(crowds).fill(UNREACHABLE);
    for (let c = 0; c < crowds; c++) {
      const start = memberStart[c]!;
      const size = memberStart[c + 1]! - start;
      for (let n = 0; n < size; n++) costs[n] = before[members[start + n]!]!;
      orderEnd[c] = start + cheapestFirst(size, order, start);
      if (orderEnd[c]! > start) crowdLeast[c] = before[members[start + order[start]!]!]!;
    }
    for (let to = 0; to < least.length; to++) {
      if (mask && !mask[to]) continue;
      let best = UNREACHABLE;
      let from = -1;
      for (let a = startOf[to]!; a < startOf[to + 1]!; a++) {
        const crowd = arrivalCrowd[a]!;
        const cuts = times * arrivalCuts[a]!;
        if (crowdLeast[crowd]! + cuts > best) continue;
        const start = memberStart[crowd]!;
        for (let n = start; n < orderEnd[crowd]!; n++) {
          const place = order[n]!;
          const state = members[start + place]!;
          const soFar = before[state]! + cuts;
          if (soFar > best) break;
          let price = prices[arrivalPrices[a]! + place]!;
          if (price === UNPRICED) {
            if (soFar + times * step.leastWay(state, to) > best) continue;
            price = this.price(a, place, state, to);
          }
          if (price >= UNREACHABLE) continue;
          const sum = before[state]! + times * price;
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

  push(rest: Int32Array, least: Int32Array, via: Int32Array, times = 1): void {
    const {
      memberStart,
      members,
      crowdStart,
      arrivals,
      arrivalTo,
      arrivalCuts,
      arrivalPrices,
      prices,
      step,
    } = this;
    for (let c = 0; c < memberStart.length - 1; c++) {
      const start = crowdStart[c]!;
      const size = crowdStart[c + 1]! - start;
      const order = scratch(size);
      for (let n = 0; n < size; n++)
        costs[n] = rest[arrivalTo[arrivals[start + n]!]!]! + times * arrivalCuts[arrivals[start + n]!]!;
      const reached = cheapestFirst(size, order, 0);
      if (reached === 0) continue;
      for (let m = memberStart[c]!; m < memberStart[c + 1]!; m++) {
        const from = members[m]!;
        let best = least[from]!;
        let to = via[from]!;
        for (let n = 0; n < reached; n++) {
          const a = arrivals[start + order[n]!]!;
          const state = arrivalTo[a]!;
          const after = rest[state]! + times * arrivalCuts[a]!;
          if (after > best) break;
          let price = prices[arrivalPrices[a]! + m - memberStart[c]!]!;
          if (price === UNPRICED) {
            if (after + times * step.leastWay(from, state) > best) continue;
            price = this.price(a, m - memberStart[c]!, from, state);
          }
          if (price >= UNREACHABLE) continue;
          const sum = rest[state]! + times * price;
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

  /** What the way from one state to another costs; UNREACHABLE when there is none. */
  priceOf(from: number, to: number): number {
    let least = UNREACHABLE;
    for (let a = this.startOf[to]!; a < this.startOf[to + 1]!; a++) {
      const crowd = this.arrivalCrowd[a]!;
      const start = this.memberStart[crowd]!;
      const place = this.members.indexOf(from, start) - start;
      if (place < 0 || place >= this.memberStart[crowd + 1]! - start) continue;
      const known = this.prices[this.arrivalPrices[a]! + place]!;
      least = Math.min(least, known === UNPRICED ? this.price(a, place, from, to) : known);
    }
    return least;
  }

  /** Cuts counted; UNREACHABLE when the finger that takes a note over was not free. */
  private price(arrival: number, place: number, from: number, to: number): number {
    const taken = (this.arrivalTaker[arrival]! & this.before.down[from]!) !== 0;
    const price = taken ? UNREACHABLE : this.arrivalCuts[arrival]! + this.step.price(from, to);
    this.prices[this.arrivalPrices[arrival]! + place] = price;
    return price;
  }
}

let keys = new Float64Array(1024);
let costs = new Int32Array(1024);
let ordered = new Int32Array(1024);

/** Room for an order of `count`, and for the costs by which it is made. */
function scratch(count: number): Int32Array {
  if (keys.length < count) {
    keys = new Float64Array(2 * count);
    costs = new Int32Array(2 * count);
    ordered = new Int32Array(2 * count);
  }
  return ordered;
}

/** Writes the numbers 0 to count − 1 by their `costs` to `order`; gives how many can be reached at all. */
function cheapestFirst(count: number, order: Int32Array, at: number): number {
  let reached = 0;
  for (let n = 0; n < count; n++) if (costs[n]! < UNREACHABLE) keys[reached++] = costs[n]! * OWNERS + n;
  if (reached > SHORT) keys.subarray(0, reached).sort();
  else sortShort(reached);
  for (let n = 0; n < reached; n++) order[at + n] = keys[n]! % OWNERS;
  return reached;
}

const SHORT = 24;

/** By insertion: faster than asking for a sort of a few. */
function sortShort(count: number) {
  for (let n = 1; n < count; n++) {
    const key = keys[n]!;
    let k = n - 1;
    while (k >= 0 && keys[k]! > key) {
      keys[k + 1] = keys[k]!;
      k--;
    }
    keys[k + 1] = key;
  }
}
