/**
 * The exact optimum over a chain of layers. A layer holds states with their own cost and the ways into them from
 * the layer before; dynamic programming forward and backward gives the best path and, for every state, the cost
 * of the best whole path through it.
 */

import { Arena } from './arena';

/** Above every real cost, and small enough that two of them still add up exactly. */
export const UNREACHABLE = 1_000_000_000;

/** The priced ways from the states of one layer into those of the next. No way costs less than nothing. */
export interface Ways {
  /**
   * For every state that `mask` allows: the least of `before[from]` + way, and that `from`; among equal sums the
   * lowest. `least` comes filled with UNREACHABLE and `via` with −1. Every way counts `times` times.
   */
  pull(before: Int32Array, mask: Mask, least: Int32Array, via: Int32Array, times: number): void;
  /**
   * The same backwards, for every state of the layer before: the least of way + `rest[to]`, and that `to`. `rest` may
   * be longer than there are states.
   */
  push(rest: Int32Array, least: Int32Array, via: Int32Array, times: number): void;
}

export interface Layer {
  /** Own cost of each state. */
  readonly stateCost: Int32Array;
  /** Null for the first layer. */
  readonly ways: Ways | null;
  /** How often the layer is played, and how often right after the one before it; once when left out. */
  readonly plays?: number;
  readonly steps?: number;
}

/** By layer: what each state costs besides; null for nothing. */
export type Extras = readonly (Int32Array | null)[];

/** Which states of a layer may be used; null allows all. */
export type Mask = Uint8Array | null;

/**
 * One direction of the recursion, by layer and state: least costs above the layer's own least, that least, and
 * the neighbours that give them. Normalised so, the costs of two solutions agree again some layers after a
 * difference, and everything from there on holds for both.
 */
export interface Messages {
  readonly masks: readonly Mask[];
  readonly cost: readonly Int32Array[];
  readonly offset: readonly number[];
  /** State of the neighbouring layer on the best way, −1 where there is none. */
  readonly via: readonly Int32Array[];
}

/** Both directions; `forward` counts a state's own cost, `backward` does not. */
export interface Solution {
  readonly layers: readonly Layer[];
  readonly extras: Extras | null;
  /** By layer: what each state costs as often as it is played, extras counted. */
  readonly own: readonly Int32Array[];
  readonly forward: Messages;
  readonly backward: Messages;
  readonly cost: number;
}

/**
 * Bellman's recursion in both directions. Messages of an earlier solution are used again up to the first difference
 * of layers or masks and from where they agree again after the last. Among equal costs the lowest
 * state number wins. Returns null when no path is left.
 */
export function solveLattice(
  layers: readonly Layer[],
  masks: readonly Mask[],
  earlier: Solution | null = null,
  extras: Extras | null = null,
): Solution | null {
  const known = earlier && earlier.layers.length === layers.length ? earlier : null;
  const changed = known
    ? layers.map(
        (layer, k) => layer !== known.layers[k] || (extras?.[k] ?? null) !== (known.extras?.[k] ?? null),
      )
    : null;
  const own = layers.map((layer, k) =>
    known && !changed![k] ? known.own[k]! : ownCosts(layer, extras?.[k] ?? null),
  );
  const forward = maybeForward(layers, own, masks, known?.forward ?? null, changed);
  if (!forward) return null;
  const cost = forward.offset.at(-1) ?? 0;
  const backward = backwardMessages(layers, own, masks, known?.backward ?? null, changed);
  return { layers, extras, own, forward, backward, cost };
}

/** A state's own cost as often as it is played, and what it costs besides. */
function ownCosts({ stateCost, plays = 1 }: Layer, extra: Int32Array | null): Int32Array {
  if (plays === 1 && !extra) return stateCost;
  const own = rows.int32(stateCost.length);
  for (let s = 0; s < own.length; s++) own[s] = plays * stateCost[s]! + (extra ? extra[s]! : 0);
  return own;
}

/** Memory for what is kept of each layer: a solution has thousands of short rows. */
const rows = new Arena();
const NO_COSTS = new Int32Array(0);

/** By state of one layer: what is left from it; written over with each. */
let left = new Int32Array(64);

/** Cost of the best whole path through state `s` of layer `k`; UNREACHABLE when there is none. */
export function costThrough(solution: Solution, k: number, s: number): number {
  const { forward } = solution;
  const there = forward.cost[k]![s]!;
  const rest = costToEnd(solution, k, s);
  if (there >= UNREACHABLE || rest >= UNREACHABLE) return UNREACHABLE;
  return there + forward.offset[k]! + rest;
}

/** What the best way from state `s` of layer `k` to the end costs, its own cost not counted. */
export function costToEnd({ backward }: Solution, k: number, s: number): number {
  const cost = backward.cost[k]![s]!;
  return cost >= UNREACHABLE ? UNREACHABLE : cost + backward.offset[k]!;
}

/** The best whole path through state `s` of layer `k`, a state for each layer. */
export function pathThrough(solution: Solution, k: number, s: number): readonly number[] {
  const path = new Array<number>(solution.layers.length);
  path[k] = s;
  for (let j = k; j > 0; j--) path[j - 1] = solution.forward.via[j]![path[j]!]!;
  for (let j = k; j < path.length - 1; j++) path[j + 1] = solution.backward.via[j]![path[j]!]!;
  return path;
}

/** The best path of all. */
export function bestPath(solution: Solution): readonly number[] {
  const k = solution.layers.length - 1;
  return k < 0 ? [] : pathThrough(solution, k, solution.forward.cost[k]!.indexOf(0));
}

function sameMask(a: Mask | undefined, b: Mask | undefined): boolean {
  if (a === b) return true;
  if (!a || !b) return !a && !b;
  return a.length === b.length && a.every((bit, s) => bit === b[s]);
}

/** By layer: whether it is another one than in the known solution. */
type Changed = readonly boolean[] | null;

/** First and last layer that differ from the known ones, or whose masks do; the whole chain without known ones. */
function differences(
  masks: readonly Mask[],
  known: Messages | null,
  changed: Changed,
): readonly [number, number] {
  if (!known || !changed) return [0, masks.length - 1];
  const differs = (mask: Mask, k: number) => changed[k]! || !sameMask(mask, known.masks[k]);
  return [masks.findIndex(differs), masks.findLastIndex(differs)];
}

function maybeForward(
  layers: readonly Layer[],
  own: readonly Int32Array[],
  masks: readonly Mask[],
  known: Messages | null,
  changed: Changed,
): Messages | null {
  const [first, last] = differences(masks, known, changed);
  if (known && first < 0) return known;
  const cost = known ? known.cost.slice(0, first) : [];
  const offset = known ? known.offset.slice(0, first) : [];
  const via = known ? known.via.slice(0, first) : [];
  for (let k = first; k < layers.length; k++) {
    const here = forwardInto(layers[k]!, own[k]!, masks[k]!, cost[k - 1] ?? null);
    const least = normalise(here.cost);
    if (least >= UNREACHABLE) return null;
    cost.push(here.cost);
    via.push(here.via);
    offset.push(least + (offset[k - 1] ?? 0));
    if (known && k > last && sameCosts(here.cost, known.cost[k]!)) {
      const more = offset[k]! - known.offset[k]!;
      cost.push(...known.cost.slice(k + 1));
      via.push(...known.via.slice(k + 1));
      offset.push(...known.offset.slice(k + 1).map((one) => one + more));
      break;
    }
  }
  return { masks, cost, offset, via };
}

/** By state of a layer: the least cost of coming to it, its own counted, and from where. */
function forwardInto(layer: Layer, own: Int32Array, mask: Mask, before: Int32Array | null) {
  const cost = rows.int32(layer.stateCost.length).fill(UNREACHABLE);
  const via = rows.int32(cost.length).fill(-1);
  if (layer.ways && before) layer.ways.pull(before, mask, cost, via, layer.steps ?? 1);
  else for (let s = 0; s < cost.length; s++) if (!mask || mask[s]) cost[s] = 0;
  for (let s = 0; s < cost.length; s++) if (cost[s]! < UNREACHABLE) cost[s]! += own[s]!;
  return { cost, via };
}

function backwardMessages(
  layers: readonly Layer[],
  own: readonly Int32Array[],
  masks: readonly Mask[],
  known: Messages | null,
  changed: Changed,
): Messages {
  const [first, last] = differences(masks, known, changed);
  if (known && first < 0) return known;
  const end = layers.length - 1;
  const messages = known ? copied(known) : blank(layers.length);
  const { cost, offset, via } = messages;
  if (end >= 0 && (!known || changed?.[end])) beginAtEnd(messages, layers[end]!.stateCost.length);
  for (let k = lastToWrite(changed, last, end); k > 0; k--) {
    writeLeft(cost[k]!, own[k]!, masks[k]!);
    const { stateCost } = layers[k - 1]!;
    const here = rows.int32(stateCost.length).fill(UNREACHABLE);
    const to = rows.int32(here.length).fill(-1);
    layers[k]!.ways!.push(left, here, to, layers[k]!.steps ?? 1);
    const total = offset[k]! + normalise(here);
    const agrees = known !== null && k - 1 < first && sameCosts(here, known.cost[k - 1]!);
    const more = total - offset[k - 1]!;
    cost[k - 1] = here;
    via[k - 1] = to;
    offset[k - 1] = total;
    if (!agrees) continue;
    for (let j = 0; j < k - 1; j++) offset[j]! += more;
    break;
  }
  return { masks, cost, offset, via };
}

/** Into a layer that is another one, all messages are new: they come from the layer after it. */
const lastToWrite = (changed: Changed, last: number, end: number) =>
  changed?.[last] ? Math.min(last + 1, end) : last;

interface MessagesInTheMaking {
  readonly cost: Int32Array[];
  readonly offset: number[];
  readonly via: Int32Array[];
}

/** Nothing is left after the last layer. */
function beginAtEnd({ cost, via }: MessagesInTheMaking, states: number): void {
  const end = cost.length - 1;
  cost[end] = new Int32Array(states);
  via[end] = new Int32Array(states).fill(-1);
}

const copied = ({ cost, offset, via }: Messages): MessagesInTheMaking => ({
  cost: [...cost],
  offset: [...offset],
  via: [...via],
});

const blank = (length: number): MessagesInTheMaking => ({
  cost: Array<Int32Array>(length).fill(NO_COSTS),
  offset: Array<number>(length).fill(0),
  via: Array<Int32Array>(length).fill(NO_COSTS),
});

/** Writes to `left` what is left from each state of a layer, its own cost counted. */
function writeLeft(rest: Int32Array, own: Int32Array, mask: Mask): void {
  if (left.length < rest.length) left = new Int32Array(2 * rest.length);
  for (let s = 0; s < rest.length; s++) {
    const shut = (mask && !mask[s]) || rest[s]! >= UNREACHABLE;
    left[s] = shut ? UNREACHABLE : rest[s]! + own[s]!;
  }
}

/** Takes the least off all that can be reached, and gives it back; UNREACHABLE when nothing can. */
function normalise(costs: Int32Array): number {
  let least = UNREACHABLE;
  for (const cost of costs) if (cost < least) least = cost;
  if (least === 0 || least >= UNREACHABLE) return least;
  for (let s = 0; s < costs.length; s++) if (costs[s]! < UNREACHABLE) costs[s]! -= least;
  return least;
}

function sameCosts(a: Int32Array, b: Int32Array): boolean {
  for (let s = 0; s < a.length; s++) if (a[s] !== b[s]) return false;
  return true;
}
