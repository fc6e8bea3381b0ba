/**
 * The ways of the left hand from one moment to the next. They are priced when they are asked for: in the order of
 * what comes before (or after), a way whose neighbour alone costs more than the best found so far cannot be
 * better, nor can any after it. So the least is exact and most pairs are never priced.
 */
import { type Mask, UNREACHABLE, type Ways } from '../lattice';
import type { FingeringProblem, Moment } from '../problem';
import { type HandState, memoryKey } from './handState';
import { heldCodes } from './states';
import { ShiftBounds } from './shiftBounds';
import { cutsCost, memoryAfter, movementCost } from './transition';

/** States of the layer before that hold the same strikes in the same way, or leave the same memory as well. */
interface Crowd {
  readonly members: readonly number[];
  /** Every state that they can go to. */
  readonly arrivals: Arrival[];
}

/** A state of this layer, as far as one crowd is concerned. */
interface Arrival {
  readonly to: number;
  readonly crowd: Crowd;
  /** What is cut on every way of the crowd to this state; 0 where it differs from member to member. */
  readonly cuts: number;
  /** Prices by member, −1 until asked for. */
  prices: Int32Array | null;
}

export class HandWays implements Ways {
  private readonly crowds: readonly Crowd[];
  private readonly arrivalsOf: readonly (readonly Arrival[])[];
  private readonly bounds: ShiftBounds;
  /** A pitch that is struck again makes cuts depend on where it lay. */
  private readonly again: boolean;

  constructor(
    private readonly problem: FingeringProblem,
    private readonly moment: Moment,
    private readonly before: readonly HandState[],
    private readonly next: Moment,
    private readonly states: readonly HandState[],
  ) {
    this.again = strikesAgain(problem, before, next);
    const anyFree = states.some((state) => !state.range);
    const groups = groupByHeld(problem, before, next, anyFree);
    this.crowds = groups.flatMap((group) => [group.all, ...group.byMemory.values()]);
    const sources = new Sources(groups, next, (group, state) =>
      this.again ? 0 : cutsCost(problem, before[group.all.members[0]!]!, next, state),
    );
    this.arrivalsOf = states.map((state, to) => this.arrivals(sources, state, to));
    this.bounds = new ShiftBounds(problem, before, states);
  }

  pull(before: Int32Array, mask: Mask, least: Int32Array, via: Int32Array): void {
    const orders = new Map<Crowd, Int32Array>();
    for (let to = 0; to < least.length; to++) {
      if (mask && !mask[to]) continue;
      let best = UNREACHABLE;
      let from = -1;
      for (const arrival of this.arrivalsOf[to]!) {
        const { members } = arrival.crowd;
        let order = orders.get(arrival.crowd);
        if (!order) orders.set(arrival.crowd, (order = orderedBy(members, (state) => before[state]!)));
        for (const place of order) {
          const state = members[place]!;
          const soFar = before[state]!;
          if (soFar >= UNREACHABLE || soFar + arrival.cuts > best) break;
          if (soFar + arrival.cuts + this.bounds.least(state, to) > best) continue;
          const sum = soFar + this.price(arrival, place);
          if (sum < best || (sum === best && state < from)) {
            best = sum;
            from = state;
          }
        }
      }
      least[to] = best;
      via[to] = from;
    }
  }

  push(rest: Int32Array, least: Int32Array, via: Int32Array): void {
    for (const { members, arrivals } of this.crowds) {
      const order = orderedBy(arrivals, (arrival) => Math.min(UNREACHABLE, rest[arrival.to]! + arrival.cuts));
      for (let place = 0; place < members.length; place++) {
        const from = members[place]!;
        let best = least[from]!;
        let to = via[from]!;
        for (const k of order) {
          const arrival = arrivals[k]!;
          const after = rest[arrival.to]!;
          if (after >= UNREACHABLE || after + arrival.cuts > best) break;
          if (after + arrival.cuts + this.bounds.least(from, arrival.to) > best) continue;
          const sum = after + this.price(arrival, place);
          if (sum < best || (sum === best && arrival.to < to)) {
            best = sum;
            to = arrival.to;
          }
        }
        least[from] = best;
        via[from] = to;
      }
    }
  }

  private price(arrival: Arrival, place: number): number {
    const prices = (arrival.prices ??= new Int32Array(arrival.crowd.members.length).fill(-1));
    if (prices[place]! < 0) prices[place] = this.priceNow(arrival, place);
    return prices[place]!;
  }

  private priceNow(arrival: Arrival, place: number): number {
    const from = this.before[arrival.crowd.members[place]!]!;
    const to = this.states[arrival.to]!;
    const cuts = this.again ? cutsCost(this.problem, from, this.next, to) : arrival.cuts;
    return cuts + movementCost(this.problem, this.moment, from, this.next, to);
  }

  /** Only a strike that is let go may lie elsewhere; a hand that is free must remember the same. */
  private arrivals(sources: Sources, state: HandState, to: number): readonly Arrival[] {
    const found: Arrival[] = [];
    for (const { group, cuts } of sources.of(state)) {
      const crowd = state.range ? group.all : group.byMemory.get(memoryKey(state.memory));
      if (!crowd) continue;
      const arrival: Arrival = { to, crowd, cuts, prices: null };
      crowd.arrivals.push(arrival);
      found.push(arrival);
    }
    return found;
  }
}

interface Source {
  readonly group: HeldGroup;
  readonly cuts: number;
}

/** From which groups a state can be reached, worked out once for each way of holding on. */
class Sources {
  private readonly known = new Map<string, readonly Source[]>();

  constructor(
    private readonly groups: readonly HeldGroup[],
    private readonly next: Moment,
    /** What going from a group to a state cuts: it depends on the held strikes alone. */
    private readonly cutsTo: (group: HeldGroup, state: HandState) => number,
  ) {}

  of(state: HandState): readonly Source[] {
    const wanted = heldCodes(state, this.next);
    const key = wanted.join(' ');
    let sources = this.known.get(key);
    if (!sources) {
      sources = this.groups
        .filter((group) => wanted.every((code, h) => code === 0 || code === group.codes[h]))
        .map((group) => ({ group, cuts: this.cutsTo(group, state) }));
      this.known.set(key, sources);
    }
    return sources;
  }
}

/** Costs stay below 2^30 and lists below 2^20, so that both fit into one exact number. */
const PLACES = 2 ** 20;

/** Places of a list in the order of what `costOf` says; equal ones as they stand. */
function orderedBy<T>(items: readonly T[], costOf: (item: T) => number): Int32Array {
  // Numbers sort without a comparison of ours: cost first, place second.
  const keys = new Float64Array(items.length);
  for (let k = 0; k < items.length; k++) keys[k] = costOf(items[k]!) * PLACES + k;
  keys.sort();
  return Int32Array.from(keys, (key) => key % PLACES);
}

function strikesAgain(problem: FingeringProblem, before: readonly HandState[], next: Moment): boolean {
  const struck = new Set(next.struck.map((strike) => problem.strikes[strike]!.midi));
  const sounding = new Set(before.flatMap((state) => state.strikes));
  return [...sounding].some((strike) => struck.has(problem.strikes[strike]!.midi));
}

interface HeldGroup {
  readonly codes: readonly number[];
  readonly all: Crowd & { members: number[] };
  /** By what is remembered when nothing is stopped afterwards. */
  readonly byMemory: Map<string, Crowd & { members: number[] }>;
}

function groupByHeld(
  problem: FingeringProblem,
  before: readonly HandState[],
  next: Moment,
  anyFree: boolean,
): readonly HeldGroup[] {
  const groups = new Map<string, HeldGroup>();
  before.forEach((state, s) => {
    const codes = heldCodes(state, next);
    const key = codes.join(' ');
    let group = groups.get(key);
    if (!group) groups.set(key, (group = { codes, all: crowd(), byMemory: new Map() }));
    group.all.members.push(s);
    // What is remembered matters only to a hand that is free.
    if (!anyFree) return;
    const memory = memoryKey(memoryAfter(problem, state, next));
    const alike = group.byMemory.get(memory) ?? crowd();
    group.byMemory.set(memory, alike);
    alike.members.push(s);
  });
  return [...groups.values()];
}

const crowd = (): Crowd & { members: number[] } => ({ members: [], arrivals: [] });
