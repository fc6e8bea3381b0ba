/**
 * Least costs along one hand while the multipliers on its strings change: what dual ascent needs to know at a
 * moment. Scratch rows are kept, since this is the inner loop of a plan.
 */
import type { Contested } from './agreement';
import { Arena } from '../solver/arena';
import { type Extras, type Mask, UNREACHABLE } from '../solver/lattice';
import type { StrokeLayer } from '../right/lattice/strokeChain';
import { type CoreMoment, LEFT_OUT_COST } from './core';
import { type Links, narrowLinks } from './links';

type Rows = readonly Float64Array[];

/** Costs in tenths of a point; `steps`: how often each way is gone. */
export abstract class Chain {
  readonly forward: Rows;
  readonly backward: Rows;
  private rest = new Float64Array(64);

  /**
   * @param own by moment and state: its own cost, the prices in it
   * @param variantOf by moment and state: which variant of the moment it plays
   * @param entry least costs of coming to the first moment
   * @param exit least costs of going on from the last
   */
  constructor(
    protected readonly own: Rows,
    protected readonly variantOf: readonly Int32Array[],
    protected readonly steps: readonly number[],
    protected readonly entry: Float64Array | null,
    exit: Float64Array | null,
  ) {
    const arena = new Arena();
    this.forward = own.map((row) => arena.float64(row.length));
    this.backward = own.map((row) => arena.float64(row.length));
    if (exit) this.backward.at(-1)?.set(exit);
  }

  /** `into` comes filled with UNREACHABLE. */
  protected abstract stepForward(k: number, before: Float64Array, into: Float64Array): void;
  protected abstract stepBackward(k: number, rest: Float64Array, into: Float64Array): void;

  /** Least costs from the start to moment k, own costs counted. */
  forwardInto(k: number): void {
    const into = this.forward[k]!;
    const own = this.own[k]!;
    if (k > 0) this.stepForward(k, this.forward[k - 1]!, into.fill(UNREACHABLE));
    else if (this.entry) into.set(this.entry);
    else into.fill(0);
    for (let s = 0; s < into.length; s++) into[s]! += own[s]!;
  }

  /** Least costs to the end from the moment before k, own costs not counted. */
  backwardInto(k: number): void {
    const own = this.own[k]!;
    const costs = this.backward[k]!;
    if (this.rest.length < own.length) this.rest = new Float64Array(2 * own.length);
    for (let s = 0; s < own.length; s++) this.rest[s] = costs[s]! + own[s]!;
    this.stepBackward(k, this.rest, this.backward[k - 1]!.fill(UNREACHABLE));
  }

  /** By variant: the least cost of all through it. */
  leastThrough(k: number, least: Float64Array, count: number): void {
    const [there, rest, variants] = [this.forward[k]!, this.backward[k]!, this.variantOf[k]!];
    least.fill(UNREACHABLE, 0, count);
    for (let s = 0; s < variants.length; s++) {
      const cost = there[s]! + rest[s]!;
      const variant = variants[s]!;
      if (cost < least[variant]!) least[variant] = cost;
    }
  }

  /** The prices of moment k change. */
  shift(k: number, change: Float64Array, sign: 1 | -1): void {
    const [own, there, variants] = [this.own[k]!, this.forward[k]!, this.variantOf[k]!];
    for (let s = 0; s < variants.length; s++) {
      const more = sign * change[variants[s]!]!;
      own[s]! += more;
      there[s]! += more;
    }
  }
}

/** Least costs of coming to a part of a piece, and of going on from it; null where the piece begins or ends. */
export interface ChainEnds {
  readonly entry: Float64Array | null;
  readonly exit: Float64Array | null;
}

export class LeftChain extends Chain {
  /** @param ways prices between the nodes, by moment; the first is not looked at */
  constructor(
    core: readonly CoreMoment[],
    private readonly ways: readonly Int32Array[],
    { steps, shares }: { readonly steps: readonly number[]; readonly shares: Extras },
    prices: Rows,
    ends: ChainEnds | null,
  ) {
    super(
      core.map((moment, k) => ownOfNodes(moment, prices[k]!, shares[k]!)),
      core.map(variantsOfNodes),
      steps,
      ends?.entry ?? null,
      ends?.exit ?? null,
    );
  }

  protected stepForward(k: number, before: Float64Array, into: Float64Array): void {
    const ways = this.ways[k]!;
    const times = this.steps[k]!;
    for (let a = 0, n = 0; a < before.length; a++) {
      const there = before[a]!;
      for (let b = 0; b < into.length; b++, n++) {
        const sum = there + times * ways[n]!;
        if (sum < into[b]!) into[b] = sum;
      }
    }
  }

  protected stepBackward(k: number, rest: Float64Array, into: Float64Array): void {
    const ways = this.ways[k]!;
    const times = this.steps[k]!;
    const columns = this.forward[k]!.length;
    for (let a = 0, n = 0; a < into.length; a++) {
      let least = UNREACHABLE;
      for (let b = 0; b < columns; b++, n++) {
        const sum = rest[b]! + times * ways[n]!;
        if (sum < least) least = sum;
      }
      into[a] = least;
    }
  }
}

export class RightChain extends Chain {
  private situations = new Float64Array(64);

  private constructor(
    own: Rows,
    variantOf: readonly Int32Array[],
    steps: readonly number[],
    ends: ChainEnds,
    private readonly links: readonly Links[],
  ) {
    super(own, variantOf, steps, ends.entry, ends.exit);
  }

  /** @param strokes one layer more than there are moments: where the piece begins the first is its start */
  static over(
    {
      core,
      strokes,
      strokeMasks,
      steps,
      shares,
    }: Pick<Contested, 'core' | 'strokes' | 'strokeMasks' | 'steps' | 'shares'>,
    prices: Rows,
    ends: ChainEnds | null,
  ): RightChain {
    const layers = strokes.slice(1);
    return new RightChain(
      layers.map((layer, k) => {
        const own = ownOfStrokes(layer, core[k]!.leftOut, strokeMasks[k + 1]!, prices[k]!);
        const share = shares.right[k + 1];
        return share ? own.map((cost, r) => cost + share[r]!) : own;
      }),
      layers.map(({ shared }) => shared.variantOf),
      steps,
      { entry: ends?.entry ?? firstWays(layers[0]), exit: ends?.exit ?? null },
      layers.map(({ shared: { situationOf, situations, ways } }) => ({
        situationOf,
        situations: situations.count,
        start: ways.start,
        from: ways.from,
        price: ways.price,
      })),
    );
  }

  /**
   * The same chain on the states that lie near to the best, with the cheapest of each variant: most of what changes the multipliers
   * happens there, on a small part of the ways.
   */
  narrowed(core: readonly CoreMoment[], near: number): RightChain {
    const kept = core.map(({ variants }, k) => this.statesNear(k, variants.length, near));
    const narrow = new RightChain(
      this.own.map((row, k) => picked(row, kept[k]!)),
      this.variantOf.map((row, k) => pickInto(row, kept[k]!, new Int32Array(kept[k]!.length))),
      this.steps,
      { entry: this.entry && picked(this.entry, kept[0]!), exit: null },
      narrowLinks(this.links, kept),
    );
    kept.forEach((states, k) => {
      pickInto(this.forward[k]!, states, narrow.forward[k]!);
      pickInto(this.backward[k]!, states, narrow.backward[k]!);
    });
    return narrow;
  }

  private statesNear(k: number, variants: number, near: number): Int32Array {
    const [there, rest, variantOf] = [this.forward[k]!, this.backward[k]!, this.variantOf[k]!];
    const leastOf = new Float64Array(variants);
    this.leastThrough(k, leastOf, variants);
    const most = near + leastOf.reduce((a, b) => Math.min(a, b));
    const kept = new Int32Array(variantOf.length);
    let count = 0;
    for (let s = 0; s < kept.length; s++) {
      const through = there[s]! + rest[s]!;
      if (through <= most || through <= leastOf[variantOf[s]!]!) kept[count++] = s;
    }
    return kept.subarray(0, count);
  }

  protected stepForward(k: number, before: Float64Array, into: Float64Array): void {
    const { situationOf, situations } = this.links[k - 1]!;
    const least = this.emptySituations(situations);
    for (let s = 0; s < before.length; s++) {
      const n = situationOf[s]!;
      if (before[s]! < least[n]!) least[n] = before[s]!;
    }
    const { start, from, price } = this.links[k]!;
    const times = this.steps[k]!;
    for (let s = 0; s < into.length; s++) {
      let cheapest = UNREACHABLE;
      for (let e = start[s]!, end = start[s + 1]!; e < end; e++) {
        const sum = least[from[e]!]! + times * price[e]!;
        if (sum < cheapest) cheapest = sum;
      }
      into[s] = cheapest;
    }
  }

  protected stepBackward(k: number, rest: Float64Array, into: Float64Array): void {
    const { situationOf, situations } = this.links[k - 1]!;
    const least = this.emptySituations(situations);
    const { start, from, price } = this.links[k]!;
    const times = this.steps[k]!;
    const states = start.length - 1;
    for (let s = 0; s < states; s++) {
      const onward = rest[s]!;
      for (let e = start[s]!, end = start[s + 1]!; e < end; e++) {
        const sum = onward + times * price[e]!;
        const n = from[e]!;
        if (sum < least[n]!) least[n] = sum;
      }
    }
    for (let s = 0; s < into.length; s++) into[s] = least[situationOf[s]!]!;
  }

  private emptySituations(count: number): Float64Array {
    if (this.situations.length < count) this.situations = new Float64Array(2 * count);
    return this.situations.fill(UNREACHABLE, 0, count);
  }
}

const picked = (row: Float64Array, places: Int32Array) =>
  pickInto(row, places, new Float64Array(places.length));

function pickInto<T extends Float64Array | Int32Array>(row: T, places: Int32Array, into: T): T {
  for (let n = 0; n < places.length; n++) into[n] = row[places[n]!]!;
  return into;
}

const variantsOf = new WeakMap<CoreMoment, Int32Array>();

function variantsOfNodes(moment: CoreMoment): Int32Array {
  let variants = variantsOf.get(moment);
  if (!variants) variantsOf.set(moment, (variants = Int32Array.from(moment.nodes, ({ variant }) => variant)));
  return variants;
}

function ownOfNodes(
  { nodes, layer }: CoreMoment,
  prices: Float64Array,
  share: Int32Array | null,
): Float64Array {
  const own = new Float64Array(nodes.length);
  for (let n = 0; n < own.length; n++) {
    const { state, variant } = nodes[n]!;
    own[n] = layer.plays * layer.stateCost[state]! + (share ? share[state]! : 0) + prices[variant]!;
  }
  return own;
}

function ownOfStrokes(
  { stateCost, shared, plays = 1 }: StrokeLayer,
  leftOut: readonly number[],
  mask: Mask,
  prices: Float64Array,
): Float64Array {
  const own = new Float64Array(stateCost.length);
  for (let r = 0; r < own.length; r++) {
    const variant = shared.variantOf[r]!;
    const cost = plays * (stateCost[r]! + LEFT_OUT_COST * leftOut[variant]!) - prices[variant]!;
    own[r] = !mask || mask[r] === 1 ? cost : UNREACHABLE;
  }
  return own;
}

/** From nowhere to the first strokes of a piece. */
function firstWays(first: StrokeLayer | undefined): Float64Array | null {
  if (!first) return null;
  const { start, price } = first.shared.ways;
  return Float64Array.from(first.stateCost, (_cost, r) => (first.steps ?? 1) * price[start[r]!]!);
}
