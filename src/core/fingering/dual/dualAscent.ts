/** Dual ascent: multipliers on the strings, kept from question to question, raise the bound until both hands agree. */
import { before, Column, here } from '../solver/column';
import {
  costThrough,
  type Extras,
  type Layer,
  type Solution,
  solveLattice,
  UNREACHABLE,
} from '../solver/lattice';
import type { HandState } from '../left/rules/handState';
import type { FingeringProblem } from '../problem/problem';
import type { Played } from '../right/rules/memory';
import type { StrokeLayer } from '../right/lattice/strokeChain';
import { agreedMultipliers, type Terms } from './agreement';
import type { ChainEnds } from './chain';
import {
  inParts,
  alikeOf,
  PARTS,
  type Multipliers,
  pricesOfStates,
  pricesOfStrokes,
  variantsByStrings,
} from './bound';
import { type CoreMoment, LEFT_OUT_COST } from './core';
import type { Effort } from './lettersOn';
import { ABOVE, type Question } from './question';

/** See `agreement.ts`; the second is for quick music, where the right hand pays much from stroke to stroke. */
const SLACKS_GIVEN = [1 / 30, 1 / 100];

/** A bound so near, in tenths of a point, is not raised again: the rest is planned together. */
const NEAR_ENOUGH = 64;

/**
 * What both hands pay on so many moments is near. From memory: with a quarter of it the bound of a tremolo is worse,
 * with more of it none that was looked at is better.
 */
const NEAR_MOMENTS = 2;

/** Multipliers around a change are found anew with so many moments on both sides. */
const AROUND = 3;

/** A left hand and what the right one plays, by moment. */
export interface Hands {
  readonly states: readonly HandState[];
  readonly played: readonly Played[];
}

/** What no plan can be cheaper than, with the two plans that say so; their costs are in parts. */
export interface Bound {
  readonly left: Solution;
  readonly right: Solution;
  /** By moment and state: what the left hand paid. */
  readonly paid: readonly Int32Array[];
  /** In tenths of a point. */
  readonly cost: number;
}

/** A bound with what it was made of. */
interface KnownBound extends Bound {
  readonly layers: readonly Layer[];
  readonly core: readonly CoreMoment[];
  readonly strokes: readonly StrokeLayer[];
  readonly multipliers: Multipliers;
  readonly given: Extras;
}

/** In parts: multipliers that have drifted so far are brought back. */
const DRIFTED = PARTS * 4096;

/** The same amount on all choices of a moment says nothing; over many questions it must not grow without end. */
function near0(multipliers: Int32Array): Int32Array {
  const [drift] = multipliers;
  return Math.abs(drift!) > DRIFTED ? multipliers.map((price) => price - drift!) : multipliers;
}

/** What the right hand is given: the multipliers, and what it owes for strokes that are left out. */
function lessLeftOut({ leftOut, layer }: CoreMoment, multipliers: Int32Array): Int32Array {
  if (leftOut.every((count) => count === 0)) return multipliers;
  return multipliers.map((price, v) => price - PARTS * LEFT_OUT_COST * layer.plays * leftOut[v]!);
}

const termsFor = (core: readonly CoreMoment[], cost: number, slackGiven: number): Terms => ({
  outsideCost: ABOVE.strings,
  slackGiven,
  near: (NEAR_MOMENTS * cost) / core.length,
});

/** What a state is paid or given, with its share of jumps. */
const together = (column: Column<Int32Array | null>, paid: Extras, shares: Extras): Extras =>
  column.of(paid.length, [here(paid), here(shares)], (_k, row, share) =>
    share ? share.map((cost, s) => PARTS * cost + (row ? row[s]! : 0)) : row,
  );

/** Costs are whole, so a bound between two of them is the upper one. */
export const wholeTenths = (parts: number) => Math.ceil(parts / PARTS);

export class DualAscent {
  private multipliers: Multipliers = [];
  private readonly parts = new WeakMap<Layer, Layer>();
  private readonly paid = new Column<Int32Array>();
  private readonly given = new Column<Int32Array | null>();
  private readonly withShares = {
    left: new Column<Int32Array | null>(),
    right: new Column<Int32Array | null>(),
  };
  /** The bound of the last multipliers that were tried. */
  latest: KnownBound | null = null;

  constructor(private readonly problem: FingeringProblem) {}

  /** The multipliers of the last question still hold nearly everywhere; where there are other strings now, the multiplier of all others does. */
  private kept(core: readonly CoreMoment[]): Multipliers {
    const { multipliers } = this;
    this.multipliers = core.map((moment, k) => {
      const known = multipliers[k]!;
      const count = moment.variants.length;
      return known.length === count || moment === this.latest?.core[k]
        ? known
        : new Int32Array(count).fill(known.at(-1)!);
    });
    return this.multipliers;
  }

  /** Strings outside of the core give the right hand what it would save there, and no more. */
  private firstMultipliers({ core }: Question, efforts: readonly Effort[]): Multipliers {
    return core.map((moment, k) => {
      const { variants } = moment;
      const onward = efforts[k + 1]?.way ?? 0;
      const { own, way } = efforts[k]!;
      const alike = alikeOf(moment, variantsByStrings(moment));
      const multipliers = new Int32Array(variants.length);
      for (let v = 0; v < multipliers.length; v++) {
        const first = alike[v]!;
        if (first === multipliers.length - 1) multipliers[v] = -PARTS * (own + way + onward);
        else if (variants[first]!.forgets) multipliers[v] = -PARTS * onward;
      }
      return multipliers;
    });
  }

  /**
   * The bound by the multipliers of earlier questions, raised anew around what has changed since the last one.
   * Null before the first.
   */
  again(question: Question): Bound | null {
    if (this.multipliers.length === 0) return null;
    const kept = this.kept(question.core);
    const [from, to] = question.changed;
    if (from <= to) {
      const isKnown = (k: number) => this.isAbout(question, this.latest!, k);
      let a = Math.max(0, from - AROUND);
      let b = Math.min(kept.length - 1, to + AROUND);
      while (a > 0 && !isKnown(a)) a--;
      while (b < kept.length - 1 && !isKnown(b)) b++;
      this.multipliers = this.around(question, this.latest!, a, b);
    }
    return this.bound(question, this.multipliers);
  }

  /** Whether the messages of the bound at a moment can be read as those of the question. */
  private isAbout({ left, strokes }: Question, { layers, strokes: before }: KnownBound, k: number): boolean {
    return layers[k] === left.layers[k] && before[k + 1] === strokes[k + 1];
  }

  /**
   * Multipliers for the question, to which a plan of a `cost` is known; where the left hand got too much of the slack, it is tried with less.
   * @param efforts of the right hand in a plan on the left hand's own strings: what the first multipliers start from
   */
  anew(question: Question, cost: number, efforts: () => readonly Effort[]): Bound {
    let highest: { readonly bound: Bound; readonly multipliers: Multipliers } | null = null;
    for (const slackGiven of SLACKS_GIVEN) {
      const multipliers = this.agree(question, cost, efforts, slackGiven);
      const bound = this.bound(question, multipliers);
      if (!highest || bound.cost > highest.bound.cost) highest = { bound, multipliers };
      const near = cost - bound.cost <= NEAR_ENOUGH;
      if (near || bound.left.cost >= bound.right.cost - PARTS) break;
    }
    this.multipliers = highest!.multipliers;
    return highest!.bound;
  }

  /** Multipliers from moment a to b, between what the bound says of both ends; elsewhere they hold. */
  private around(question: Question, bound: Bound, a: number, b: number): Multipliers {
    const { core, strokes } = question;
    const steps = this.problem.passes.steps.map((n, k) => (k === 0 ? 0 : n));
    const nodesAt = (k: number) => core[k]!.nodes.map(({ state }) => state);
    const strokesAt = (k: number) => strokes[k]!.shared.states.map((_state, r) => r);
    const opens = a === 0;
    const within = agreedMultipliers(
      {
        core: core.slice(a, b + 1),
        lefts: question.lefts.slice(a, b + 1),
        above: this.aboveOf(question, a, b),
        strokes: strokes.slice(a, b + 2),
        strokeMasks: question.strokeMasks.slice(a, b + 2),
        steps: steps.slice(a, b + 1),
        shares: {
          left: question.shares.left.slice(a, b + 1),
          right: question.shares.right.slice(a, b + 2),
        },
      },
      this.multipliers.slice(a, b + 1),
      termsFor(core, bound.cost, SLACKS_GIVEN[0]!),
      {
        left: endsOf(bound.left, { layer: a, states: nodesAt(a), opens }, { layer: b, states: nodesAt(b) }),
        right: endsOf(
          bound.right,
          { layer: a + 1, states: strokesAt(a + 1), opens },
          { layer: b + 1, states: strokesAt(b + 1) },
        ),
      },
    );
    return [...this.multipliers.slice(0, a), ...within.map(near0), ...this.multipliers.slice(b + 1)];
  }

  private agree(
    question: Question,
    cost: number,
    efforts: () => readonly Effort[],
    slackGiven: number,
  ): Multipliers {
    const { core } = question;
    const start = this.multipliers.length > 0 ? this.kept(core) : this.firstMultipliers(question, efforts());
    const steps = this.problem.passes.steps.map((n, k) => (k === 0 ? 0 : n));
    const above = this.aboveOf(question, 0, core.length - 1);
    return agreedMultipliers({ ...question, above, steps }, start, termsFor(core, cost, slackGiven)).map(
      near0,
    );
  }

  /**
   * By moment from a to b and variant: how much dearer than its best the left hand is with it. Counts where no node has
   * it, or only nodes from which no other node can be come to.
   */
  private aboveOf({ left, core }: Question, a: number, b: number): readonly (readonly (number | null)[])[] {
    return core.slice(a, b + 1).map(({ variants, nodes, outside }, k) => {
      const row: (number | null)[] = variants.map(() => null);
      const add = (state: number, v: number) => {
        const own = costThrough(left.chain, a + k, state) - left.chain.cost;
        row[v] = Math.min(row[v] ?? Infinity, own);
      };
      for (const { state, variant } of nodes) add(state, variant);
      for (const [state, list] of outside) for (const v of list) add(state, v);
      return row;
    });
  }

  private bound({ left, core, strokes, strokeMasks, shares }: Question, multipliers: Multipliers): Bound {
    const last = this.latest;
    const paid = this.paid.of(core.length, [here(core), here(multipliers)], (_k, moment, row) =>
      pricesOfStates(moment, row),
    );
    const given = this.given.of(
      strokes.length,
      [here(strokes), before(core), before(multipliers)],
      (_k, stroke, moment, row) => (moment && row ? pricesOfStrokes(stroke, lessLeftOut(moment, row)) : null),
    );
    const leftParts = left.layers.map((layer) => this.partOf(layer));
    const rightParts = strokes.map((layer) => this.partOf(layer));
    const leftBound = solveLattice(
      leftParts,
      left.masks,
      last?.left ?? null,
      together(this.withShares.left, paid, shares.left),
    );
    const rightBound = solveLattice(
      rightParts,
      strokeMasks,
      last?.right ?? null,
      together(this.withShares.right, given, shares.right),
    );
    if (!leftBound || !rightBound)
      throw new Error(
        'dual ascent: a hand found no path under the multipliers, though it has one without them',
      );
    this.latest = {
      left: leftBound,
      right: rightBound,
      paid,
      cost: wholeTenths(leftBound.cost + rightBound.cost),
      layers: left.layers,
      core,
      strokes,
      multipliers,
      given,
    };
    return this.latest;
  }

  /** One object for the same layer, so that messages of an earlier question are found again. */
  private partOf(layer: Layer): Layer {
    let parts = this.parts.get(layer);
    if (!parts) this.parts.set(layer, (parts = inParts(layer)));
    return parts;
  }
}

/**
 * In tenths of a point: what it costs to come to the layer `first`, and to go on from `last`; null at the ends of a
 * piece, where nothing lies beyond.
 */
function endsOf(
  solution: Solution,
  first: { readonly layer: number; readonly states: readonly number[]; readonly opens: boolean },
  last: { readonly layer: number; readonly states: readonly number[] },
): ChainEnds {
  const inTenths = (cost: number) => (cost >= UNREACHABLE ? UNREACHABLE : cost / PARTS);
  const { forward, backward, own } = solution;
  const [a, b] = [first.layer, last.layer];
  const entry = (s: number) => {
    const cost = forward.cost[a]![s]!;
    return cost >= UNREACHABLE ? UNREACHABLE : (cost - own[a]![s]!) / PARTS;
  };
  return {
    entry: first.opens ? null : Float64Array.from(first.states, entry),
    exit:
      b === solution.layers.length - 1
        ? null
        : Float64Array.from(last.states, (s) => inTenths(backward.cost[b]![s]!)),
  };
}
