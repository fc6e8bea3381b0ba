/**
 * A bound for both hands. Each hand is planned by itself, and a price on every choice of strings, paid by one hand to
 * the other, makes them agree: Lagrangian decomposition. Whatever the multipliers, the two optima together are at most the
 * joint one; sequential averaging of both hands' least costs through each choice (tree-reweighted message passing,
 * Kolmogorov 2006) never lowers that bound.
 */
import { type Extras, type Mask, UNREACHABLE } from '../solver/lattice';
import type { StrokeLayer } from '../right/lattice/strokeChain';
import { alikeOf, PARTS, type Multipliers, variantsByStrings } from './bound';
import { type ChainEnds, LeftChain, RightChain } from './chain';
import type { CoreMoment } from './core';

/** There and back at most so often; no more than that once it hardly raises the bound, in tenths of a point. */
const MOST_SWEEPS = 24;
const HARDLY = 1;

/** Multipliers may have been added to or taken off what cannot be reached; no real cost comes near it. */
const BROKEN = UNREACHABLE / 2;

/** What lies around a part of a piece, by hand. */
export interface Ends {
  readonly left: ChainEnds;
  readonly right: ChainEnds;
}

/** How the ascent goes, in tenths of a point but for the share. */
export interface Terms {
  /** How much dearer than its best the left hand is at least on strings that no variant has. */
  readonly outsideCost: number;
  /**
   * What is no node is dearer for the left hand: this share of the difference goes to the right hand, so that a row of
   * such strings does not look as good as the core to it; more, and it does so to the left hand.
   */
  readonly slackGiven: number;
  /** After the first sweep only states of the right hand are looked at that are so much dearer than the best. */
  readonly near: number;
}

/** What both hands have to agree on, by moment. */
export interface Contested {
  readonly core: readonly CoreMoment[];
  /** Multipliers between the core's nodes; the first is not looked at. */
  readonly lefts: readonly Int32Array[];
  /** By variant: how much dearer than its best the left hand is with it, where no node has it. */
  readonly above: readonly (readonly (number | null)[])[];
  /** One layer more than there are moments, before the first. */
  readonly strokes: readonly StrokeLayer[];
  /** What of them inked letters allow. */
  readonly strokeMasks: readonly Mask[];
  readonly steps: readonly number[];
  /** What states pay of jumps: of the left hand by moment, of the right by layer of strokes. */
  readonly shares: { readonly left: Extras; readonly right: Extras };
}

/** @param ends null for a whole piece */
export function agreedMultipliers(
  { core, lefts, above, strokes, strokeMasks, steps, shares }: Contested,
  start: Multipliers,
  terms: Terms,
  ends: Ends | null = null,
): Multipliers {
  const multipliers = core.map(({ variants }, k) =>
    start[k]?.length === variants.length
      ? Float64Array.from(start[k], (price) => price / PARTS)
      : new Float64Array(variants.length),
  );
  const left = new LeftChain(core, lefts, { steps, shares: shares.left }, multipliers, ends?.left ?? null);
  const right = RightChain.over(
    { core, strokes, strokeMasks, steps, shares },
    multipliers,
    ends?.right ?? null,
  );
  const alike = core.map((moment) => alikeOf(moment, variantsByStrings(moment)));
  const agreement = new Agreement(left, right, terms);
  const agree = (k: number) => agreement.at(k, above[k]!, alike[k]!, multipliers[k]!);
  const last = core.length - 1;
  for (let k = last; k > 0; k--) agreement.backwardInto(k);
  agreement.forwardInto(0);
  let bound = agreement.bound(multipliers[0]!.length);
  for (let sweep = 0; sweep < MOST_SWEEPS; sweep++) {
    for (let k = 0; k <= last; k++) {
      agreement.forwardInto(k);
      agree(k);
    }
    if (sweep === 0) agreement.narrow(core);
    for (let k = last; k >= 0; k--) {
      agree(k);
      if (k === 0) break;
      agreement.backwardInto(k);
    }
    const raised = agreement.bound(multipliers[0]!.length);
    if (raised - bound < HARDLY) break;
    bound = raised;
  }
  return multipliers.map((row) => Int32Array.from(row, (price) => Math.round(PARTS * price)));
}

/** Makes both hands agree at one moment after the other; its rows, by variant, are written over each time. */
class Agreement {
  private a = new Float64Array(32);
  private b = new Float64Array(32);
  private change = new Float64Array(32);

  constructor(
    private readonly left: LeftChain,
    private right: RightChain,
    private readonly terms: Terms,
  ) {}

  forwardInto(k: number): void {
    this.left.forwardInto(k);
    this.right.forwardInto(k);
  }

  backwardInto(k: number): void {
    this.left.backwardInto(k);
    this.right.backwardInto(k);
  }

  /**
   * From now on the right hand is looked at near to its best only. So the bound here is no more than a sign of when to
   * stop: what the multipliers prove is worked out on whole chains (`DualAscent`).
   */
  narrow(core: readonly CoreMoment[]): void {
    this.right = this.right.narrowed(core, this.terms.near);
  }

  /** Both hands get the same least cost through each variant; the one for all other strings is made no better than the best. */
  at(
    k: number,
    above: readonly (number | null)[],
    alike: readonly number[],
    multipliers: Float64Array,
  ): void {
    const count = multipliers.length;
    if (this.a.length < count) this.grow(2 * count);
    const { a, b, change } = this;
    const other = count - 1;
    this.left.leastThrough(k, a, count);
    this.right.leastThrough(k, b, count);
    shareAmongAlike(a, alike);
    shareAmongAlike(b, alike);
    // What the left hand costs without the multipliers of this moment.
    let bare = UNREACHABLE;
    let least = UNREACHABLE;
    for (let v = 0; v < count; v++) {
      bare = Math.min(bare, a[v]! - multipliers[v]!);
      change[v] = 0;
      if (v === other || a[v]! >= BROKEN || b[v]! >= BROKEN) continue;
      change[v] = (b[v]! - a[v]!) / 2;
      least = Math.min(least, (a[v]! + b[v]!) / 2);
    }
    if (least >= BROKEN) return;
    this.changeWithoutNodes(above, multipliers, bare, least);
    for (let v = 0; v < count; v++) multipliers[v]! += change[v]!;
    this.left.shift(k, change, 1);
    this.right.shift(k, change, -1);
  }

  /**
   * What is no node pays little more than keeps it from being better than the best for the right hand.
   * @param bare what the left hand costs without the multipliers of the moment
   */
  private changeWithoutNodes(
    above: readonly (number | null)[],
    multipliers: Float64Array,
    bare: number,
    least: number,
  ): void {
    const { a, b, change, terms } = this;
    const other = multipliers.length - 1;
    for (let v = 0; v <= other; v++) {
      const own = above[v] ?? null;
      if (a[v]! < BROKEN || b[v]! >= BROKEN || (own === null && v !== other)) continue;
      const there = bare + (own ?? terms.outsideCost) + multipliers[v]!;
      const slack = (b[v]! + there) / 2 - least;
      change[v] = slack <= 0 ? (b[v]! - there) / 2 : b[v]! - least - slack * terms.slackGiven;
    }
  }

  /** What both hands cost at least, as it shows at the first moment. */
  bound(count: number): number {
    if (this.a.length < count) this.grow(2 * count);
    this.left.leastThrough(0, this.a, count);
    this.right.leastThrough(0, this.b, count);
    const least = (costs: Float64Array) => costs.subarray(0, count).reduce((a, b) => Math.min(a, b));
    return least(this.a) + least(this.b);
  }

  private grow(length: number): void {
    this.a = new Float64Array(length);
    this.b = new Float64Array(length);
    this.change = new Float64Array(length);
  }
}

/** The first of its alike has the least cost of all of them, and gives it to each. */
function shareAmongAlike(costs: Float64Array, alike: readonly number[]): void {
  for (let v = 0; v < alike.length; v++) {
    const first = alike[v]!;
    if (costs[v]! < costs[first]!) costs[first] = costs[v]!;
  }
  for (let v = 0; v < alike.length; v++) costs[v] = costs[alike[v]!]!;
}
