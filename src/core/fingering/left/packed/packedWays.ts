/**
 * The ways of the left hand from one moment to the next. A way is priced when it is asked for: neighbours are tried
 * from the cheapest on, and none is tried whose own cost, with what is cut and the least that the hand's way costs,
 * is dearer than the best found so far. So the least is exact and many pairs are never priced.
 */
import { type Mask, UNREACHABLE, type Ways } from '../../lattice';
import type { Crowd, Source } from './keptHands';
import type { Arena } from '../../arena';
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
  private readonly arrivalCrowd: Int32Array;
  private readonly arrivalCuts: Int32Array;
  private readonly arrivalTaker: Uint8Array;
  /** First of its prices, one for each member of the crowd. */
  private readonly arrivalPrices: Int32Array;
  /** Arrivals of state s: `startOf[s]` to `startOf[s + 1]` − 1. */
  private readonly startOf: Int32Array;
  /** Arrivals of crowd c, in the same way; side by side what backward steps read of them. */
  private readonly crowdStart: Int32Array;
  private readonly arrivals: Int32Array;
  private readonly crowdTo: Int32Array;
  private readonly crowdCuts: Int32Array;
  private readonly crowdPrices: Int32Array;
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
    if (arrivalTo.length < count) arrivalTo = new Int32Array(2 * count);
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
        arrivalTo[a] = s;
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
    this.crowdTo = arena.int32(a);
    this.crowdCuts = arena.int32(a);
    this.crowdPrices = arena.int32(a);
    const filled = crowds.map(() => 0);
    for (let n = 0; n < a; n++) {
      const crowd = this.arrivalCrowd[n]!;
      const at = this.crowdStart[crowd]! + filled[crowd]!++;
      this.arrivals[at] = n;
      this.crowdTo[at] = arrivalTo[n]!;
      this.crowdCuts[at] = this.arrivalCuts[n]!;
      this.crowdPrices[at] = this.arrivalPrices[n]!;
    }
    this.prices = arena.int32(priced).fill(UNPRICED);
  }

  pull(before: Int32Array, mask: Mask, least: Int32Array, via: Int32Array, times = 1): void {
    const { memberStart, members, crowdStart, crowdTo, crowdCuts, crowdPrices, prices, step } = this;
    scratch(members.length);
    for (let c = 0; c < memberStart.length - 1; c++) {
      const first = memberStart[c]!;
      const size = memberStart[c + 1]! - first;
      for (let m = 0; m < size; m++) costs[m] = before[members[first + m]!]!;
      const reached = size === 1 ? soleFirst() : cheapestFirst(size, ordered, 0);
      if (reached === 0) continue;
      for (let n = crowdStart[c]!; n < crowdStart[c + 1]!; n++) {
        const to = crowdTo[n]!;
        if (mask && !mask[to]) continue;
        const cuts = times * crowdCuts[n]!;
        const row = crowdPrices[n]!;
        let best = least[to]!;
        let from = via[to]!;
        for (let k = 0; k < reached; k++) {
          const m = ordered[k]!;
          const cost = costs[m]!;
          if (cost + cuts > best) break;
          const state = members[first + m]!;
          let price = prices[row + m]!;
          if (price === UNPRICED) {
            if (cost + cuts + times * step.leastWay(state, to) > best) continue;
            price = this.price(this.arrivals[n]!, m, state, to);
          }
          if (price >= UNREACHABLE) continue;
          const sum = cost + times * price;
          if (sum > best || (sum === best && state >= from)) continue;
          best = sum;
          from = state;
        }
        least[to] = best;
        via[to] = from;
      }
    }
  }

  push(rest: Int32Array, least: Int32Array, via: Int32Array, times = 1): void {
    const { memberStart, crowdStart, crowdTo, crowdCuts } = this;
    for (let c = 0; c < memberStart.length - 1; c++) {
      const start = crowdStart[c]!;
      const size = crowdStart[c + 1]! - start;
      const members = memberStart[c + 1]! - memberStart[c]!;
      scratch(Math.max(size, members));
      let cheapest = 0;
      for (let n = 0; n < size; n++) {
        costs[n] = rest[crowdTo[start + n]!]! + times * crowdCuts[start + n]!;
        if (costs[n]! < costs[cheapest]!) cheapest = n;
      }
      if (size === 0 || costs[cheapest]! >= UNREACHABLE) continue;
      // Sorting pays where many members use the order.
      if (members > FEW_MEMBERS) this.pushMany(c, size, rest, least, via, times);
      else this.pushFew(c, size, cheapest, rest, least, via, times);
    }
  }

  /** Every member tries the arrival of the least `costs`, then all others that are not dearer than what it found. */
  private pushFew(
    c: number,
    size: number,
    cheapest: number,
    rest: Int32Array,
    least: Int32Array,
    via: Int32Array,
    times: number,
  ): void {
    const { memberStart, members, crowdStart, crowdTo, crowdPrices, prices, step } = this;
    const start = crowdStart[c]!;
    const first = memberStart[c]!;
    const end = memberStart[c + 1]!;
    for (let m = first; m < end; m++) {
      const from = members[m]!;
      let best = least[from]!;
      let next = via[from]!;
      for (let n = -1; n < size; n++) {
        const one = n < 0 ? cheapest : n;
        if (costs[one]! > best) continue;
        const to = crowdTo[start + one]!;
        let price = prices[crowdPrices[start + one]! + m - first]!;
        if (price === UNPRICED) {
          if (costs[one]! + times * step.leastWay(from, to) > best) continue;
          price = this.price(this.arrivals[start + one]!, m - first, from, to);
        }
        if (price >= UNREACHABLE) continue;
        const sum = rest[to]! + times * price;
        if (sum > best || (sum === best && to >= next)) continue;
        best = sum;
        next = to;
      }
      least[from] = best;
      via[from] = next;
    }
  }

  /** From the least of `costs` on, a row of prices at a time for the members that so dear an arrival may still serve. */
  private pushMany(
    c: number,
    size: number,
    rest: Int32Array,
    least: Int32Array,
    via: Int32Array,
    times: number,
  ): void {
    const { memberStart, members, crowdStart, crowdTo, crowdPrices, prices, step } = this;
    const start = crowdStart[c]!;
    const first = memberStart[c]!;
    let count = memberStart[c + 1]! - first;
    const order = ordered;
    const reached = cheapestFirst(size, order, 0);
    for (let m = 0; m < count; m++) open[m] = m;
    for (let n = 0; n < reached && count > 0; n++) {
      const one = order[n]!;
      const after = costs[one]!;
      const to = crowdTo[start + one]!;
      const row = crowdPrices[start + one]!;
      let still = 0;
      for (let k = 0; k < count; k++) {
        const m = open[k]!;
        const from = members[first + m]!;
        const best = least[from]!;
        if (after > best) continue;
        open[still++] = m;
        let price = prices[row + m]!;
        if (price === UNPRICED) {
          if (after + times * step.leastWay(from, to) > best) continue;
          price = this.price(this.arrivals[start + one]!, m, from, to);
        }
        if (price >= UNREACHABLE) continue;
        const sum = rest[to]! + times * price;
        if (sum > best || (sum === best && to >= via[from]!)) continue;
        least[from] = sum;
        via[from] = to;
      }
      count = still;
    }
  }

  /** What the way from one state to another costs; UNREACHABLE when there is none. */
  priceOf(from: number, to: number): number {
    let least = UNREACHABLE;
    for (let a = this.startOf[to]!; a < this.startOf[to + 1]!; a++) {
      const crowd = this.arrivalCrowd[a]!;
      const start = this.memberStart[crowd]!;
      const place = placeOf(this.members, from, start, this.memberStart[crowd + 1]!) - start;
      if (place < 0) continue;
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

/** Where a number stands in an ascending row from `start` to `end` − 1; −1 where it does not. */
function placeOf(row: Int32Array, wanted: number, start: number, end: number): number {
  let low = start;
  let high = end - 1;
  while (low <= high) {
    const middle = (low + high) >> 1;
    if (row[middle]! === wanted) return middle;
    if (row[middle]! < wanted) low = middle + 1;
    else high = middle - 1;
  }
  return -1;
}

/** By arrival: the state that it comes to; written over with each layer. */
let arrivalTo = new Int32Array(1024);
let keys = new Float64Array(1024);
let costs = new Int32Array(1024);
let ordered = new Int32Array(1024);
let open = new Int32Array(1024);

/** Room for an order of `count`, and for the costs by which it is made. */
function scratch(count: number): Int32Array {
  if (keys.length < count) {
    keys = new Float64Array(2 * count);
    costs = new Int32Array(2 * count);
    ordered = new Int32Array(2 * count);
    open = new Int32Array(2 * count);
  }
  return ordered;
}

/** Writes the numbers 0 to count − 1 by their `costs` to `order`; gives how many can be reached at all. */
function cheapestFirst(count: number, order: Int32Array, at: number): number {
  let reached = 0;
  for (let n = 0; n < count; n++) if (costs[n]! < UNREACHABLE) keys[reached++] = costs[n]! * OWNERS + n;
  if (reached > SHORT) keys.subarray(0, reached).sort();
  else sortShort(reached);
  // Not by %, which is slow for doubles.
  for (let n = 0; n < reached; n++) order[at + n] = keys[n]! - Math.floor(keys[n]! / OWNERS) * OWNERS;
  return reached;
}

/** The same of a single one. */
function soleFirst(): number {
  ordered[0] = 0;
  return costs[0]! < UNREACHABLE ? 1 : 0;
}

const SHORT = 24;
/** So few members of a crowd do not make up for a sort. */
const FEW_MEMBERS = 8;

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
