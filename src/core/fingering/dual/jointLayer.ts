/**
 * The lattice of both hands: a state is a state of the left hand with one of the right that plays its strings. A step
 * is taken hand by hand, so that no pair of pairs is ever looked at: least over the left hands before, then over what
 * the right hand remembers.
 */
import { Arena } from '../solver/arena';
import { type Layer, type Mask, UNREACHABLE, type Ways } from '../solver/lattice';
import type { StrokeLayer } from '../right/lattice/strokeChain';
import { type CoreMoment, LEFT_OUT_COST } from './core';

export interface JointLayer extends Layer {
  readonly moment: CoreMoment;
  readonly strokes: StrokeLayer;
  /** By joint state: the node of the left hand, and the state of the right. */
  readonly nodeOf: Int32Array;
  readonly strokeOf: Int32Array;
  /** Joint states of node n: `firstOf[n]` to `firstOf[n + 1]` − 1. */
  readonly firstOf: Int32Array;
  /** Prices between the left hands: row by row of those before. */
  readonly lefts: Int32Array;
}

/** Memory for the rows of layers. */
const kept = new Arena();

export function jointLayer(
  before: JointLayer | null,
  moment: CoreMoment,
  strokes: StrokeLayer,
  start: StrokeLayer,
  strokeMask: Mask,
): JointLayer {
  const { nodes, variants, layer } = moment;
  const playing = byVariant(strokes.shared.variantOf, variants.length, strokeMask);
  const firstOf = kept.int32(nodes.length + 1);
  for (let n = 0; n < nodes.length; n++)
    firstOf[n + 1] = firstOf[n]! + playing.start[nodes[n]!.variant + 1]! - playing.start[nodes[n]!.variant]!;
  const count = firstOf[nodes.length]!;
  const nodeOf = kept.int32(count);
  const strokeOf = kept.int32(count);
  const stateCost = kept.int32(count);
  for (let n = 0; n < nodes.length; n++) {
    const { state, variant } = nodes[n]!;
    const own = layer.stateCost[state]! + LEFT_OUT_COST * moment.leftOut[variant]!;
    for (let s = firstOf[n]!, at = playing.start[variant]!; s < firstOf[n + 1]!; s++, at++) {
      const r = playing.states[at]!;
      nodeOf[s] = n;
      strokeOf[s] = r;
      stateCost[s] = own + strokes.stateCost[r]!;
    }
  }
  const { plays, steps } = layer;
  const here = { moment, strokes, firstOf, strokeOf };
  const lefts = before ? waysBetween(before.moment, moment) : NO_PRICES;
  // Written out: a copy by spreading takes longer than all the rest.
  return {
    moment,
    strokes,
    nodeOf,
    strokeOf,
    firstOf,
    lefts,
    stateCost: before ? stateCost : withStart(stateCost, strokeOf, strokes, start),
    ways: before && new JointWays(before, here, lefts),
    plays,
    steps,
  };
}

const NO_PRICES = new Int32Array(0);

/** Written over with each layer. */
let playingStates = new Int32Array(64);

/** The states of the right hand that a mask allows, variant by variant: from `start[v]` to `start[v + 1]` − 1. */
function byVariant(variantOf: Int32Array, variants: number, mask: Mask) {
  const start = new Int32Array(variants + 1);
  if (playingStates.length < variantOf.length) playingStates = new Int32Array(2 * variantOf.length);
  const states = playingStates;
  let count = 0;
  // A layer's states come variant by variant.
  for (let r = 0; r < variantOf.length; r++) {
    if (mask && !mask[r]) continue;
    states[count++] = r;
    start[variantOf[r]! + 1] = count;
  }
  for (let v = 0; v < variants; v++) start[v + 1] = Math.max(start[v]!, start[v + 1]!);
  return { start, states };
}

/** At the first moment the right hand comes from nowhere. */
function withStart(
  stateCost: Int32Array,
  strokeOf: Int32Array,
  strokes: StrokeLayer,
  start: StrokeLayer,
): Int32Array {
  const least = new Int32Array(strokes.stateCost.length).fill(UNREACHABLE);
  strokes.ways!.pull(start.stateCost, null, least, new Int32Array(least.length).fill(-1), 1);
  return stateCost.map((cost, s) => cost + least[strokeOf[s]!]!);
}

/** Prices between the nodes of two moments, row by row of the first. */
export function waysBetween(before: CoreMoment, here: CoreMoment): Int32Array {
  const prices = new Int32Array(before.nodes.length * here.nodes.length);
  const ways = here.layer.ways!;
  let n = 0;
  for (const from of before.nodes) {
    for (const to of here.nodes) {
      const fits = !here.slursFrom || here.slursFrom(from.state, to.state) === to.slurs;
      prices[n++] = fits ? ways.priceOf(from.state, to.state) : UNREACHABLE;
    }
  }
  return prices;
}

class JointWays implements Ways {
  constructor(
    private readonly before: Pick<JointLayer, 'firstOf' | 'strokeOf' | 'strokes' | 'moment'>,
    private readonly here: Pick<JointLayer, 'firstOf' | 'strokeOf' | 'strokes' | 'moment'>,
    private readonly lefts: Int32Array,
  ) {}

  pull(costs: Int32Array, mask: Mask, least: Int32Array, via: Int32Array, times = 1): void {
    const { before, here, lefts } = this;
    const { count } = before.strokes.shared.situations;
    const [rows, columns] = [before.firstOf.length - 1, here.firstOf.length - 1];
    scratch(rows * count, count);
    const reached = this.gatherBefore(costs);
    const edges = here.strokes.shared.ways;
    for (let b = 0; b < columns; b++) {
      if (mask && !anyAllowed(mask, here.firstOf[b]!, here.firstOf[b + 1]!)) continue;
      arrived.fill(UNREACHABLE, 0, count);
      arrivedVia.fill(-1, 0, count);
      for (const a of reached) {
        const price = lefts[a * columns + b]!;
        if (price >= UNREACHABLE) continue;
        const way = times * price;
        for (let n = 0; n < count; n++) {
          const sum = gathered[a * count + n]! + way;
          if (sum >= arrived[n]!) continue;
          arrived[n] = sum;
          arrivedVia[n] = gatheredVia[a * count + n]!;
        }
      }
      for (let s = here.firstOf[b]!; s < here.firstOf[b + 1]!; s++) {
        if (mask && !mask[s]) continue;
        const r = here.strokeOf[s]!;
        for (let e = edges.start[r]!; e < edges.start[r + 1]!; e++) {
          const from = edges.from[e]!;
          const sum = arrived[from]! + times * edges.price[e]!;
          if (sum >= least[s]!) continue;
          least[s] = sum;
          via[s] = arrivedVia[from]!;
        }
      }
    }
  }

  /** Writes, of every left hand before, the cheapest way into each situation of the right; gives those that are reached. */
  private gatherBefore(costs: Int32Array): readonly number[] {
    const { before } = this;
    const { situationOf, situations } = before.strokes.shared;
    const count = situations.count;
    const rows = before.firstOf.length - 1;
    gathered.fill(UNREACHABLE, 0, rows * count);
    gatheredVia.fill(-1, 0, rows * count);
    const reached: number[] = [];
    for (let a = 0; a < rows; a++) {
      let any = false;
      for (let s = before.firstOf[a]!; s < before.firstOf[a + 1]!; s++) {
        const at = a * count + situationOf[before.strokeOf[s]!]!;
        if (costs[s]! >= gathered[at]!) continue;
        gathered[at] = costs[s]!;
        gatheredVia[at] = s;
        any = true;
      }
      if (any) reached.push(a);
    }
    return reached;
  }

  push(rest: Int32Array, least: Int32Array, via: Int32Array, times = 1): void {
    const { before, here, lefts } = this;
    const { situationOf, situations } = before.strokes.shared;
    const count = situations.count;
    const [rows, columns] = [before.firstOf.length - 1, here.firstOf.length - 1];
    const edges = here.strokes.shared.ways;
    // Of every left hand here: what is left from each situation of the right hand before.
    scratch(columns * count, 0);
    gathered.fill(UNREACHABLE, 0, columns * count);
    gatheredVia.fill(-1, 0, columns * count);
    const reached: number[] = [];
    for (let b = 0; b < columns; b++) {
      let any = false;
      for (let s = here.firstOf[b]!; s < here.firstOf[b + 1]!; s++) {
        if (rest[s]! >= UNREACHABLE) continue;
        any = true;
        const r = here.strokeOf[s]!;
        for (let e = edges.start[r]!; e < edges.start[r + 1]!; e++) {
          const at = b * count + edges.from[e]!;
          const sum = rest[s]! + times * edges.price[e]!;
          if (sum >= gathered[at]!) continue;
          gathered[at] = sum;
          gatheredVia[at] = s;
        }
      }
      if (any) reached.push(b);
    }
    for (let a = 0; a < rows; a++) {
      for (let s = before.firstOf[a]!; s < before.firstOf[a + 1]!; s++) {
        const n = situationOf[before.strokeOf[s]!]!;
        for (const b of reached) {
          const price = lefts[a * columns + b]!;
          if (price >= UNREACHABLE) continue;
          const sum = gathered[b * count + n]! + times * price;
          if (sum >= least[s]!) continue;
          least[s] = sum;
          via[s] = gatheredVia[b * count + n]!;
        }
      }
    }
  }
}

function anyAllowed(mask: Uint8Array, first: number, end: number): boolean {
  for (let s = first; s < end; s++) if (mask[s]) return true;
  return false;
}

/** By left hand and situation of the right, and by situation; written over with each step. */
let gathered = new Int32Array(1024);
let gatheredVia = new Int32Array(1024);
let arrived = new Int32Array(64);
let arrivedVia = new Int32Array(64);

function scratch(pairs: number, situations: number): void {
  if (gathered.length < pairs) {
    gathered = new Int32Array(2 * pairs);
    gatheredVia = new Int32Array(2 * pairs);
  }
  if (arrived.length < situations) {
    arrived = new Int32Array(2 * situations);
    arrivedVia = new Int32Array(2 * situations);
  }
}
