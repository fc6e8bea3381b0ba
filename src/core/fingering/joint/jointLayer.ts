/**
 * The lattice of both hands: a state is a state of the left hand with one of the right that plays its strings. A step
 * is taken hand by hand, so that no pair of pairs is ever looked at: least over the left hands before, then over what
 * the right hand remembers.
 */
import { type Layer, type Mask, UNREACHABLE, type Ways } from '../lattice';
import type { StrokeLayer } from '../right/strokeChain';
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
  /** Which objects of an earlier call may stand for this. */
  readonly before: JointLayer | null;
}

export function jointLayer(
  before: JointLayer | null,
  moment: CoreMoment,
  strokes: StrokeLayer,
  start: StrokeLayer,
  strokeMask: Mask,
): JointLayer {
  const { nodes, variants, layer } = moment;
  const byVariant: number[][] = variants.map(() => []);
  strokes.shared.states.forEach(({ variant }, r) => {
    if (!strokeMask || strokeMask[r]) byVariant[variant]!.push(r);
  });
  const firstOf = new Int32Array(nodes.length + 1);
  nodes.forEach(({ variant }, n) => (firstOf[n + 1] = firstOf[n]! + byVariant[variant]!.length));
  const count = firstOf[nodes.length]!;
  const nodeOf = new Int32Array(count);
  const strokeOf = new Int32Array(count);
  const stateCost = new Int32Array(count);
  nodes.forEach(({ state, variant }, n) => {
    const own = layer.stateCost[state]! + LEFT_OUT_COST * moment.leftOut[variant]!;
    byVariant[variant]!.forEach((r, j) => {
      const s = firstOf[n]! + j;
      nodeOf[s] = n;
      strokeOf[s] = r;
      stateCost[s] = own + strokes.stateCost[r]!;
    });
  });
  const bare = { moment, strokes, nodeOf, strokeOf, firstOf, before };
  if (!before)
    return {
      ...bare,
      stateCost: withStart(stateCost, strokeOf, strokes, start),
      ways: null,
      lefts: new Int32Array(0),
      ...times(layer),
    };
  const lefts = waysBetween(before.moment, moment);
  return { ...bare, stateCost, lefts, ways: new JointWays(before, bare, lefts), ...times(layer) };
}

const times = ({ plays, steps }: CoreMoment['layer']) => ({ plays, steps });

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
    const { situationOf, situations } = before.strokes.shared;
    const count = situations.count;
    const [rows, columns] = [before.firstOf.length - 1, here.firstOf.length - 1];
    // Of every left hand before: the cheapest way into each situation of the right hand.
    const gathered = new Int32Array(rows * count).fill(UNREACHABLE);
    const gatheredVia = new Int32Array(rows * count).fill(-1);
    for (let a = 0; a < rows; a++) {
      for (let s = before.firstOf[a]!; s < before.firstOf[a + 1]!; s++) {
        const at = a * count + situationOf[before.strokeOf[s]!]!;
        if (costs[s]! >= gathered[at]!) continue;
        gathered[at] = costs[s]!;
        gatheredVia[at] = s;
      }
    }
    const arrived = new Int32Array(count);
    const arrivedVia = new Int32Array(count);
    const edges = here.strokes.shared.ways;
    for (let b = 0; b < columns; b++) {
      arrived.fill(UNREACHABLE);
      arrivedVia.fill(-1);
      for (let a = 0; a < rows; a++) {
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

  push(rest: Int32Array, least: Int32Array, via: Int32Array, times = 1): void {
    const { before, here, lefts } = this;
    const { situationOf, situations } = before.strokes.shared;
    const count = situations.count;
    const [rows, columns] = [before.firstOf.length - 1, here.firstOf.length - 1];
    const edges = here.strokes.shared.ways;
    // Of every left hand here: what is left from each situation of the right hand before.
    const onward = new Int32Array(columns * count).fill(UNREACHABLE);
    const onwardVia = new Int32Array(columns * count).fill(-1);
    for (let b = 0; b < columns; b++) {
      for (let s = here.firstOf[b]!; s < here.firstOf[b + 1]!; s++) {
        if (rest[s]! >= UNREACHABLE) continue;
        const r = here.strokeOf[s]!;
        for (let e = edges.start[r]!; e < edges.start[r + 1]!; e++) {
          const at = b * count + edges.from[e]!;
          const sum = rest[s]! + times * edges.price[e]!;
          if (sum >= onward[at]!) continue;
          onward[at] = sum;
          onwardVia[at] = s;
        }
      }
    }
    for (let a = 0; a < rows; a++) {
      for (let s = before.firstOf[a]!; s < before.firstOf[a + 1]!; s++) {
        const n = situationOf[before.strokeOf[s]!]!;
        for (let b = 0; b < columns; b++) {
          const price = lefts[a * columns + b]!;
          if (price >= UNREACHABLE) continue;
          const sum = onward[b * count + n]! + times * price;
          if (sum >= least[s]!) continue;
          least[s] = sum;
          via[s] = onwardVia[b * count + n]!;
        }
      }
    }
  }
}
