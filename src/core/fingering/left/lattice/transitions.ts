/**
 * The transitions of the left hand from one moment to the next. What leads into one state of a predecessor class leads
 * into all of them. A transition is priced when it is asked for: neighbours are tried from the cheapest on, and none is
 * tried whose own cost, with what is cut and the least that the hand's way costs, is dearer than the best found so far.
 * So the least is exact and most pairs are never looked at.
 */
import { type Mask, UNREACHABLE } from '../../solver/lattice';
import type { StepWays } from './handLayer';
import type { Arena } from '../../solver/arena';
import type { PredecessorClass } from './predecessorClasses';
import type { StateRows } from './stateRows';
import type { StepCosts } from './tabulator';

/** One direction of the recursion through the transitions; see `Ways`. */
interface Sweep {
  /** Of the states that it comes from. */
  readonly costs: Int32Array;
  readonly mask: Mask;
  readonly least: Int32Array;
  readonly via: Int32Array;
  readonly times: number;
}

const UNPRICED = -1;
/** Costs are sorted with the number of their owner in the low bits; both fit a double exactly. */
const OWNERS = 1 << 20;

export class HandTransitions implements StepWays {
  /** Members of class f, states of this layer: `memberStart[f]` to `memberStart[f + 1]` − 1. */
  private readonly memberStart: Int32Array;
  private readonly members: Int32Array;
  /** By member: first of its prices, one for each entry of its class. */
  private readonly prices: Int32Array;
  private readonly priceStart: Int32Array;
  /** Entries of class f: states of the layer before, with what is cut or handed over on the way. */
  private readonly entryStart: Int32Array;
  private readonly entries: Int32Array;
  private readonly entryCuts: Int32Array;
  /** Bit of the finger that takes a held note over and must have been free. */
  private readonly entryTaker: Uint8Array;
  /** By state: which member it is. */
  private readonly memberOf: Int32Array;
  private readonly classOf: Int32Array;

  constructor(
    arena: Arena,
    private readonly before: StateRows,
    states: number,
    classes: readonly PredecessorClass[],
    private readonly step: StepCosts,
  ) {
    const count = classes.length;
    this.memberStart = arena.int32(count + 1);
    this.entryStart = arena.int32(count + 1);
    for (let f = 0; f < count; f++) {
      this.memberStart[f + 1] = this.memberStart[f]! + classes[f]!.members.length;
      this.entryStart[f + 1] = this.entryStart[f]! + entriesOf(classes[f]!);
    }
    this.members = arena.int32(states);
    this.priceStart = arena.int32(states);
    this.memberOf = arena.int32(states);
    this.classOf = arena.int32(states);
    const entries = this.entryStart[count]!;
    this.entries = arena.int32(entries);
    this.entryCuts = arena.int32(entries);
    this.entryTaker = arena.uint8(entries);
    let priced = 0;
    for (let f = 0; f < count; f++) {
      this.writeEntries(f, classes[f]!);
      const size = this.entryStart[f + 1]! - this.entryStart[f]!;
      let m = this.memberStart[f]!;
      for (const state of classes[f]!.members) {
        this.members[m] = state;
        this.memberOf[state] = m;
        this.classOf[state] = f;
        this.priceStart[m++] = priced;
        priced += size;
      }
    }
    this.prices = arena.int32(priced).fill(UNPRICED);
  }

  private writeEntries(f: number, { predecessors }: PredecessorClass): void {
    let e = this.entryStart[f]!;
    for (const { states, cuts, taker } of predecessors) {
      for (const state of states) {
        this.entries[e] = state;
        this.entryCuts[e] = cuts;
        this.entryTaker[e++] = taker;
      }
    }
  }

  pull(before: Int32Array, mask: Mask, least: Int32Array, via: Int32Array, times = 1): void {
    const { memberStart, members, entryStart, entries, entryCuts } = this;
    const sweep: Sweep = { costs: before, mask, least, via, times };
    for (let f = 0; f < memberStart.length - 1; f++) {
      const first = entryStart[f]!;
      const size = entryStart[f + 1]! - first;
      if (size === 0) continue;
      scratch(size);
      for (let e = 0; e < size; e++) {
        const cost = before[entries[first + e]!]!;
        costs[e] = cost < UNREACHABLE ? cost + times * entryCuts[first + e]! : UNREACHABLE;
      }
      const next = cheapestAlone(size);
      if (costs[ordered[0]!]! >= UNREACHABLE) continue;
      this.pullAlong(f, 1, sweep);
      // After the cheapest only what is no dearer than the dearest member can still be of use.
      let most = 0;
      for (let m = memberStart[f]!; m < memberStart[f + 1]!; m++)
        if ((!mask || mask[members[m]!]) && least[members[m]!]! > most) most = least[members[m]!]!;
      if (next > most || next >= UNREACHABLE) continue;
      const reached = cheapestFirst(size, most);
      this.pullAlong(f, reached, sweep);
    }
  }

  /** Every member tries the first `reached` entries in `ordered`, until one is dearer than what it has found. */
  private pullAlong(f: number, reached: number, { costs: before, mask, least, via, times }: Sweep): void {
    const { memberStart, members, priceStart, entryStart, entries, prices, step } = this;
    const first = entryStart[f]!;
    for (let m = memberStart[f]!, end = memberStart[f + 1]!; m < end; m++) {
      const to = members[m]!;
      if (mask && !mask[to]) continue;
      const row = priceStart[m]!;
      let best = least[to]!;
      let from = via[to]!;
      for (let k = 0; k < reached; k++) {
        const e = ordered[k]!;
        if (costs[e]! > best) break;
        const state = entries[first + e]!;
        let price = prices[row + e]!;
        if (price === UNPRICED) {
          if (costs[e]! + times * step.least(state, to) > best) continue;
          price = this.price(first + e, row + e, to);
        }
        if (price >= UNREACHABLE) continue;
        const sum = before[state]! + times * price;
        if (sum > best || (sum === best && state >= from)) continue;
        best = sum;
        from = state;
      }
      least[to] = best;
      via[to] = from;
    }
  }

  push(rest: Int32Array, least: Int32Array, via: Int32Array, times = 1): void {
    const { memberStart, members, entryStart, entries, entryCuts } = this;
    const sweep: Sweep = { costs: rest, mask: null, least, via, times };
    for (let f = 0; f < memberStart.length - 1; f++) {
      const first = memberStart[f]!;
      const size = memberStart[f + 1]! - first;
      scratch(size);
      for (let m = 0; m < size; m++) costs[m] = rest[members[first + m]!]!;
      const next = cheapestAlone(size);
      if (costs[ordered[0]!]! >= UNREACHABLE) continue;
      this.pushAlong(f, 1, sweep);
      if (next >= UNREACHABLE) continue;
      let most = 0;
      for (let e = entryStart[f]!; e < entryStart[f + 1]!; e++) {
        const room = least[entries[e]!]! - times * entryCuts[e]!;
        if (room > most) most = room;
      }
      if (next > most) continue;
      const reached = cheapestFirst(size, most);
      this.pushAlong(f, reached, sweep);
    }
  }

  /** Every entry tries the first `reached` members in `ordered`, until one is dearer than what it has found. */
  private pushAlong(f: number, reached: number, { least, via, times }: Sweep): void {
    const { memberStart, members, priceStart, entryStart, entries, entryCuts, prices, step } = this;
    const first = memberStart[f]!;
    const start = entryStart[f]!;
    for (let e = start, end = entryStart[f + 1]!; e < end; e++) {
      const from = entries[e]!;
      const cuts = times * entryCuts[e]!;
      let best = least[from]!;
      let next = via[from]!;
      for (let k = 0; k < reached; k++) {
        const m = ordered[k]!;
        if (costs[m]! + cuts > best) break;
        const to = members[first + m]!;
        const at = priceStart[first + m]! + e - start;
        let price = prices[at]!;
        if (price === UNPRICED) {
          if (costs[m]! + cuts + times * step.least(from, to) > best) continue;
          price = this.price(e, at, to);
        }
        if (price >= UNREACHABLE) continue;
        const sum = costs[m]! + times * price;
        if (sum > best || (sum === best && to >= next)) continue;
        best = sum;
        next = to;
      }
      least[from] = best;
      via[from] = next;
    }
  }

  /** What the way from one state to another costs; UNREACHABLE when there is none. */
  priceOf(from: number, to: number): number {
    const f = this.classOf[to]!;
    const m = this.memberOf[to]!;
    const start = this.entryStart[f]!;
    let least = UNREACHABLE;
    for (let e = start; e < this.entryStart[f + 1]!; e++) {
      if (this.entries[e] !== from) continue;
      const at = this.priceStart[m]! + e - start;
      const known = this.prices[at]!;
      least = Math.min(least, known === UNPRICED ? this.price(e, at, to) : known);
    }
    return least;
  }

  pricesBetween(before: readonly number[], here: readonly number[]): Int32Array {
    const rowOf = new Int32Array(this.before.count).fill(-1);
    before.forEach((s, a) => (rowOf[s] = a));
    const prices = new Int32Array(before.length * here.length).fill(UNREACHABLE);
    here.forEach((to, b) => {
      const f = this.classOf[to]!;
      const start = this.entryStart[f]!;
      const row = this.priceStart[this.memberOf[to]!]!;
      for (let e = start; e < this.entryStart[f + 1]!; e++) {
        const a = rowOf[this.entries[e]!]!;
        if (a < 0) continue;
        const at = row + e - start;
        const known = this.prices[at]!;
        const price = known === UNPRICED ? this.price(e, at, to) : known;
        const cell = a * here.length + b;
        if (price < prices[cell]!) prices[cell] = price;
      }
    });
    return prices;
  }

  /** Cuts counted; UNREACHABLE when the finger that takes a note over was not free. */
  private price(e: number, at: number, to: number): number {
    const from = this.entries[e]!;
    const taken = (this.entryTaker[e]! & this.before.down[from]!) !== 0;
    const price = taken ? UNREACHABLE : this.entryCuts[e]! + this.step.price(from, to);
    this.prices[at] = price;
    return price;
  }
}

const entriesOf = ({ predecessors }: PredecessorClass): number => {
  let count = 0;
  for (const { states } of predecessors) count += states.length;
  return count;
};

/** One class is gone through at a time, so all share the costs of one side of it and their order. */
let keys = new Float64Array(1024);
let costs = new Int32Array(1024);
let ordered = new Int32Array(1024);

function scratch(count: number): void {
  if (keys.length >= count) return;
  keys = new Float64Array(2 * count);
  costs = new Int32Array(2 * count);
  ordered = new Int32Array(2 * count);
}

/** Writes the number of the least of `costs` to `ordered`, and gives the next dearer one. */
function cheapestAlone(count: number): number {
  let cheapest = 0;
  let [least, next] = [UNREACHABLE, UNREACHABLE];
  for (let n = 0; n < count; n++) {
    const cost = costs[n]!;
    if (cost < least) {
      next = least;
      least = cost;
      cheapest = n;
    } else if (cost < next) next = cost;
  }
  ordered[0] = cheapest;
  return next;
}

/** Writes the numbers of those `costs` that are at most so dear to `ordered`, the cheapest first; gives how many. */
function cheapestFirst(count: number, most: number): number {
  const limit = Math.min(most, UNREACHABLE - 1);
  let reached = 0;
  for (let n = 0; n < count; n++) if (costs[n]! <= limit) keys[reached++] = costs[n]! * OWNERS + n;
  if (reached > SHORT) keys.subarray(0, reached).sort();
  else sortShort(reached);
  // Not by %, which is slow for doubles.
  for (let n = 0; n < reached; n++) ordered[n] = keys[n]! - Math.floor(keys[n]! / OWNERS) * OWNERS;
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
