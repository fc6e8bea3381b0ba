/**
 * Both hands together: the least of what the left hand costs and what the right hand costs on its strings. Prices on
 * the strings make the two hands agree (`agreement.ts`) and give a bound; where a plan costs no more than the bound
 * it is the best. Otherwise both are planned together on all states through which something could cost less.
 */
import type { Pluck } from '../../score/model';
import type { Ink } from '../ink';
import {
  bestPath,
  costThrough,
  type Extras,
  type Layer,
  type Mask,
  type Solution,
  solveLattice,
  UNREACHABLE,
} from '../lattice';
import { codeOf, type HandState } from '../left/handState';
import { NO_PLACE, PLACEMENTS } from '../left/packed/handTables';
import type { LeftConflict, LeftPlanner, LeftSolved } from '../left/planLeft';
import { exploreReturns, returnExtras } from '../left/returns';
import type { FingeringProblem } from '../problem';
import { type Inked, inkedPluck, maskOf, withoutConflict } from '../right/planRight';
import type { RightSetting } from '../right/setting';
import { strokeChain, type StrokeLayer } from '../right/strokeChain';
import { StrokeStore } from '../right/strokeStore';
import { walkRight } from '../right/walk';
import { agreedPrices } from './agreement';
import {
  type Below,
  givenToStrokes,
  inParts,
  kinOf,
  PARTS,
  type Prices,
  pricesOfStates,
  statesBelow,
  throughStates,
  variantsByStrings,
} from './bound';
import { type CoreMoment, coreOf, type Near, nearStates } from './core';
import { type JointLayer, jointLayer, LEFT_OUT_COST, waysBetween } from './jointLayer';

/**
 * How much dearer than the best of the left hand a state may be to take part in the bargain about strings, and how
 * much dearer strings may be to be bounded by what the right hand really pays for them. From memory; they change how
 * long it takes, not what comes out.
 */
const NODES_ABOVE = 60;
const FAR_ABOVE = 200;
const STRINGS_ABOVE = 600;
/** See `agreement.ts`; the second is for quick music, where the right hand pays much from stroke to stroke. */
const SLACKS_GIVEN = [1 / 30, 1 / 100];

/**
 * How much above the bound, in tenths of a point, is planned together first; doubled until nothing cheaper can be
 * outside. Far from an edit the same states are below the same room, so that what was made of them is found again.
 */
const FIRST_ROOM = 16;
/** Prices of an earlier question are bargained anew when so much room does not do. */
const ROOM_BEFORE_BARGAIN = 64;
/** Prices around a change are bargained with so many moments on both sides. */
const AROUND = 12;
/** A moment with more states, or a piece with more pairs of them, is not planned together. From memory. */
const MOST_STATES = 300;
const MOST_PAIRS = 400_000;

/** A left hand and the letters of the right, by moment; letters from the lowest string of a group on. */
export interface Hands {
  readonly states: readonly HandState[];
  readonly letters: readonly (readonly Pluck[])[];
}

export interface BothHands extends Hands {
  readonly cost: number;
  readonly lowerBound: number;
  readonly conflicts: readonly LeftConflict[];
}

interface Found extends Hands {
  readonly cost: number;
  /** Strokes left out because inked letters contradict each other: their part of the cost. */
  readonly leftOutCost: number;
}

interface Proof {
  readonly best: Found;
  readonly lowerBound: number;
}

interface Bound {
  readonly left: Solution;
  readonly right: Solution;
  readonly cost: number;
}

/** Everything about the present question that does not depend on what is found. */
interface Question {
  readonly left: LeftSolved;
  readonly inked: Inked;
  readonly core: readonly CoreMoment[];
  readonly strokes: readonly StrokeLayer[];
  readonly strokeMasks: readonly Mask[];
}

export class JointPlanner {
  private readonly store: StrokeStore;
  private near: readonly Near[] = [];
  /** First and last moment at which the last question was another one than that before. */
  private changed: readonly [number, number] = [0, -1];
  private core: readonly CoreMoment[] = [];
  private strokes: readonly StrokeLayer[] = [];
  private lefts: readonly Int32Array[] = [];
  private prices: Prices = [];
  private paid: readonly Int32Array[] = [];
  private leftBound: Solution | null = null;
  private rightBound: Solution | null = null;
  private below: readonly Below[] = [];
  private latestCost = 0;
  private onStrings: Solution | null = null;
  private joint: Joint = { core: [], strokes: [], layers: [], solution: null };
  private readonly parts = new WeakMap<Layer, Layer>();

  constructor(
    private readonly problem: FingeringProblem,
    private readonly left: LeftPlanner,
    private readonly setting: RightSetting,
  ) {
    this.store = new StrokeStore(problem.hand);
  }

  plan(ink: Ink): BothHands {
    const left = this.left.solve(ink);
    const question = this.ask(left, (strike) => inkedPluck(this.problem, ink, strike));
    let best = this.onStringsOf(question, bestPath(left.solution), left.solution.cost)!;
    let proof: Proof | null = null;
    // Without prices of an earlier question the bound is not worth asking for.
    if (this.prices.length > 0) {
      let bound = this.bound(question, this.kept(question.core));
      best = this.better(question, bound, best);
      if (best.cost - bound.cost > FIRST_ROOM) {
        bound = this.bargainAround(question, bound);
        best = this.better(question, bound, best);
      }
      proof = this.prove(question, bound, best, ROOM_BEFORE_BARGAIN);
      best = proof.best;
    }
    if (!proof || proof.lowerBound < best.cost) {
      const bound = this.bargain(question, best);
      best = this.better(question, bound, best);
      proof = this.prove(question, bound, this.onNodes(question, bound, best), Infinity);
      best = proof.best;
    }
    const { lowerBound } = proof;
    this.latestCost = best.cost;
    return {
      states: best.states,
      letters: best.letters,
      cost: best.cost - best.leftOutCost,
      lowerBound: lowerBound - best.leftOutCost,
      conflicts: this.left.conflictsOf(left.layers),
    };
  }

  /**
   * For every string and finger of a strike: what the best plan of both hands that contains it costs more, at least. Read
   * off the bound of the last plan; nearly always what it really costs.
   */
  boundsFor(strike: number): ReadonlyMap<number, number> {
    const { core, strokes, leftBound, rightBound } = this;
    const k = this.problem.moments.findIndex(({ struck }) => struck.includes(strike));
    const moment = core[k]!;
    const least = new Map<number, number>();
    if (!leftBound || !rightBound) return least;
    const column = moment.layer.strikes.indexOf(strike);
    if (column < 0) return least;
    const through = throughStates(moment, strokes[k + 1]!, k, leftBound, rightBound);
    const { rows } = moment.layer;
    for (let s = 0; s < rows.count; s++) {
      const place = rows.places[s * rows.columns + column]!;
      if (place === NO_PLACE || through[s]! >= UNREACHABLE) continue;
      const code = codeOf(PLACEMENTS[place]!);
      const extra = Math.max(0, wholeTenths(through[s]!) - this.latestCost);
      if (extra < (least.get(code) ?? Infinity)) least.set(code, extra);
    }
    return least;
  }

  /** A better plan makes the rest narrower: the best on the nodes of the core is found quickly. */
  private onNodes(question: Question, bound: Bound, known: Found): Found {
    if (known.cost - bound.cost <= FIRST_ROOM) return known;
    const { left } = question;
    const nodes = this.near.map((near) => near.nodes);
    const found = this.together(question, nodes, left.solution.extras);
    return found && found.cost < known.cost ? found : known;
  }

  private ask(left: LeftSolved, inked: Inked): Question {
    const { problem, setting } = this;
    const { layers, solution } = left;
    const nearBefore = this.near;
    const struck = problem.moments.map((moment) => moment.struck);
    this.near = nearStates(layers, solution, struck, NODES_ABOVE, STRINGS_ABOVE, FAR_ABOVE, this.near);
    const core = coreOf(
      problem,
      setting,
      layers,
      this.near.map(({ nodes }) => nodes),
      this.near.map(({ strings }) => strings),
      this.near.map(({ far }) => far),
      this.adapting(inked),
      this.core,
    );
    const strokes = strokeChain(
      problem,
      this.store,
      core.map(({ variants }) => variants),
      this.strokes,
    );
    this.lefts = core.map((moment, k) => {
      if (k === 0) return new Int32Array(0);
      const same = moment === this.core[k] && core[k - 1] === this.core[k - 1];
      return same ? this.lefts[k]! : waysBetween(core[k - 1]!, moment);
    });
    const differs = (near: Near, k: number) => near !== nearBefore[k];
    this.changed = [this.near.findIndex(differs), this.near.findLastIndex(differs)];
    this.core = core;
    this.strokes = strokes;
    const strokeMasks = strokes.map((layer, k) =>
      k === 0 || core[k - 1]!.inkKey === '' ? null : maskOf(layer, core[k - 1]!.variants, inked),
    );
    return { left, inked, core, strokes, strokeMasks };
  }

  private adapting(inked: Inked) {
    const { moments } = this.problem;
    return {
      adapt: (group: Parameters<typeof withoutConflict>[0]) => withoutConflict(group, inked),
      keyOf: (k: number) => {
        const letters = moments[k]!.struck.map(inked);
        return letters.every((letter) => letter === null) ? '' : letters.join();
      },
    };
  }

  /** The prices of the last question still hold nearly everywhere; where there are other strings now, wild ones do. */
  private kept(core: readonly CoreMoment[]): Prices {
    this.prices = core.map(({ variants }, k) => {
      const known = this.prices[k]!;
      return known.length === variants.length ? known : new Int32Array(variants.length).fill(known.at(-1)!);
    });
    return this.prices;
  }

  /**
   * Plans both hands together on all states through which a plan could cost so much above the bound, more and more of
   * them, until nothing cheaper can be outside. Where that would be too many the bound stays below the cost.
   */
  private prove(question: Question, bound: Bound, known: Found, mostRoom: number): Proof {
    const { left, core, strokes } = question;
    const { right } = bound;
    let best = known;
    let lowerBound = UNREACHABLE;
    exploreReturns(
      this.problem,
      left.layers,
      left.masks,
      bound.left,
      this.paid,
      () => below(best.cost) - right.cost,
      (fixed) => {
        const least = fixed.solution.cost + right.cost;
        const extras = returnExtras(this.problem, left.layers, fixed.states);
        for (let room = FIRST_ROOM; ; room *= 2) {
          const states = this.statesBelow(core, strokes, fixed.solution, right, least + room * PARTS);
          if (room > mostRoom || tooMany(states)) {
            lowerBound = Math.min(lowerBound, wholeTenths(least));
            return;
          }
          const found = this.together(question, states, extras);
          if (found && found.cost < best.cost) best = found;
          if (least + room * PARTS >= below(best.cost)) return;
        }
      },
      PARTS,
    );
    return { best, lowerBound: Math.min(lowerBound, best.cost) };
  }

  private statesBelow(
    ...asked: readonly [readonly CoreMoment[], readonly StrokeLayer[], Solution, Solution, number]
  ) {
    this.below = statesBelow(...asked, this.below);
    return this.below.map(({ states }) => states);
  }

  /** Strings outside of the core give the right hand what it would save there, and no more. */
  private firstPrices({ core, inked }: Question, best: Found): Prices {
    const { adapt } = this.adapting(inked);
    const steps = walkRight(this.problem, this.setting, best.states, best.letters, adapt);
    return core.map(({ variants }, k) => {
      const onward = steps[k + 1]?.way ?? 0;
      const { own, way } = steps[k]!;
      const prices = Int32Array.from(variants, (group, v) =>
        v === variants.length - 1 ? -PARTS * (own + way + onward) : group.forgets ? -PARTS * onward : 0,
      );
      const kin = kinOf(core[k]!, variantsByStrings(core[k]!));
      return prices.map((_price, v) => prices[kin[v]!]!);
    });
  }

  /** Prices for the question; where the left hand got too much of the slack, it is tried with less. */
  private bargain(question: Question, best: Found): Bound {
    let highest: { readonly bound: Bound; readonly prices: Prices } | null = null;
    for (const slackGiven of SLACKS_GIVEN) {
      const prices = this.agree(question, best, slackGiven);
      const bound = this.bound(question, prices);
      if (!highest || bound.cost > highest.bound.cost) highest = { bound, prices };
      if (bound.cost >= best.cost || bound.left.cost >= bound.right.cost - PARTS) break;
    }
    this.prices = highest!.prices;
    // What is paid belongs to the prices of the bound.
    this.paid = question.core.map((moment, k) => pricesOfStates(moment, this.prices[k]!));
    return highest!.bound;
  }

  /** Prices only where the question is another one than the last: elsewhere they hold. */
  private bargainAround(question: Question, bound: Bound): Bound {
    const { core, strokes } = question;
    const [from, to] = this.changed;
    if (from > to) return bound;
    const a = Math.max(0, from - AROUND);
    const b = Math.min(core.length - 1, to + AROUND);
    const steps = this.problem.passes.steps.map((n, k) => (k === 0 ? 0 : n));
    const within = agreedPrices(
      core.slice(a, b + 1),
      this.lefts.slice(a, b + 1),
      this.aboveOf(question).slice(a, b + 1),
      strokes.slice(a, b + 2),
      steps.slice(a, b + 1),
      this.prices.slice(a, b + 1),
      STRINGS_ABOVE,
      SLACKS_GIVEN[0]!,
      {
        left: endsOf(bound.left, a, b, (k) => core[k]!.nodes.map(({ state }) => state)),
        right: endsOf(bound.right, a + 1, b + 1, (k) => strokes[k]!.shared.states.map((_state, r) => r)),
      },
    );
    const before = this.prices;
    const prices = [...before.slice(0, a), ...within, ...before.slice(b + 1)];
    const next = this.bound(question, prices);
    if (next.cost < bound.cost) return this.bound(question, before);
    this.prices = prices;
    return next;
  }

  private agree(question: Question, best: Found, slackGiven: number): Prices {
    const { core, strokes } = question;
    const start = this.prices.length > 0 ? this.kept(core) : this.firstPrices(question, best);
    const steps = this.problem.passes.steps.map((n, k) => (k === 0 ? 0 : n));
    const above = this.aboveOf(question);
    return agreedPrices(core, this.lefts, above, strokes, steps, start, STRINGS_ABOVE, slackGiven);
  }

  /** By moment and variant without a node: how much dearer than its best the left hand is with it. */
  private aboveOf({ left, core }: Question): readonly (readonly (number | null)[])[] {
    return core.map(({ variants, strangers }, k) => {
      const row: (number | null)[] = variants.map(() => null);
      for (const [state, list] of strangers) {
        const own = costThrough(left.solution, k, state) - left.solution.cost;
        for (const v of list) row[v] = Math.min(row[v] ?? Infinity, own);
      }
      return row;
    });
  }

  private bound({ left, core, strokes, strokeMasks }: Question, prices: Prices): Bound {
    this.paid = core.map((moment, k) => pricesOfStates(moment, prices[k]!));
    const given = givenToStrokes(strokes, prices);
    const leftBound = solveLattice(this.partsOf(left.layers), left.masks, this.leftBound, this.paid);
    const rightBound = solveLattice(this.partsOf(strokes), strokeMasks, this.rightBound, given);
    if (!leftBound || !rightBound) throw new Error('each hand by itself can be planned');
    this.leftBound = leftBound;
    this.rightBound = rightBound;
    return { left: leftBound, right: rightBound, cost: wholeTenths(leftBound.cost + rightBound.cost) };
  }

  /** One object for the same layer, so that messages of an earlier question are found again. */
  private partsOf(layers: readonly Layer[]): readonly Layer[] {
    return layers.map((layer) => {
      let parts = this.parts.get(layer);
      if (!parts) this.parts.set(layer, (parts = inParts(layer)));
      return parts;
    });
  }

  /** The plan on the strings of the bound's left hand, where it is cheaper than the one that is known. */
  private better(question: Question, bound: Bound, known: Found): Found {
    if (bound.cost >= known.cost || this.problem.passes.returns.length > 0) return known;
    const path = bestPath(bound.left);
    const paid = path.reduce((sum, s, k) => sum + this.paid[k]![s]!, 0);
    const found = this.onStringsOf(question, path, (bound.left.cost - paid) / PARTS);
    return found && found.cost < known.cost ? found : known;
  }

  /** A path of the left hand with the best letters for its strings; null where it leaves the core. */
  private onStringsOf(
    { core, strokes, strokeMasks, left }: Question,
    path: readonly number[],
    leftCost: number,
  ): Found | null {
    const variants = path.map((s, k) => variantOn(core, path, k));
    if (variants.includes(null)) return null;
    const masks = strokes.map((layer, k): Mask => {
      if (k === 0) return null;
      return maskOfVariant(layer, variants[k - 1]!, strokeMasks[k]!);
    });
    const solution = solveLattice(strokes, masks, this.onStrings);
    if (!solution) return null;
    this.onStrings = solution;
    const leftOutCost = core.reduce(
      (sum, { layer, leftOut }, k) => sum + LEFT_OUT_COST * layer.plays * leftOut[variants[k]!]!,
      0,
    );
    const letters = bestPath(solution)
      .slice(1)
      .map((r, k) => strokes[k + 1]!.shared.states[r]!.letters);
    return {
      cost: leftCost + solution.cost + leftOutCost,
      leftOutCost,
      states: path.map((s, k) => left.layers[k]!.state(s)),
      letters,
    };
  }

  /** The joint optimum over paths of the left hand through `states`; null where they do not join. */
  private together(
    { left, inked }: Question,
    states: readonly (readonly number[])[],
    extras: Extras | null,
  ): Found | null {
    const { problem, joint } = this;
    const core = coreOf(
      problem,
      this.setting,
      left.layers,
      states,
      states.map(() => NO_STATES),
      states.map(() => NO_STATES),
      this.adapting(inked),
      joint.core,
    );
    const strokes = strokeChain(
      problem,
      this.store,
      core.map(({ variants }) => variants),
      joint.strokes,
    );
    const layers: JointLayer[] = [];
    core.forEach((moment, k) => {
      const before = layers.at(-1) ?? null;
      const known = joint.layers[k];
      const alike =
        known?.moment === moment && known.strokes === strokes[k + 1] && sameBefore(known.before, before);
      const mask = alike || moment.inkKey === '' ? null : maskOf(strokes[k + 1]!, moment.variants, inked);
      layers.push(alike ? known : jointLayer(before, moment, strokes[k + 1]!, strokes[0]!, mask));
    });
    const paid = extras && extras.map((extra, k) => spread(extra, layers[k]!));
    const solution = solveLattice(
      layers,
      layers.map(() => null),
      joint.solution,
      paid,
    );
    this.joint = { core, strokes, layers, solution: solution ?? joint.solution };
    return solution && foundOn(layers, solution);
  }
}

/** In tenths of a point: what it costs to come to the first moment, and to go on from the last. */
function endsOf(solution: Solution, a: number, b: number, statesOf: (k: number) => readonly number[]) {
  const inTenths = (cost: number) => (cost >= UNREACHABLE ? UNREACHABLE : cost / PARTS);
  const { forward, backward, own } = solution;
  return {
    entry: Float64Array.from(statesOf(a), (s) => {
      const cost = forward.cost[a]![s]!;
      return cost >= UNREACHABLE ? UNREACHABLE : (cost - own[a]![s]!) / PARTS;
    }),
    exit: Float64Array.from(statesOf(b), (s) => inTenths(backward.cost[b]![s]!)),
  };
}

const sameBefore = (a: JointLayer | null, b: JointLayer | null) =>
  a === b || (a !== null && b !== null && a.moment === b.moment && a.strokes === b.strokes);

const NO_STATES: readonly number[] = [];

/** Both hands' lattice of the last question that needed one. */
interface Joint {
  readonly core: readonly CoreMoment[];
  readonly strokes: readonly StrokeLayer[];
  readonly layers: readonly JointLayer[];
  readonly solution: Solution | null;
}

/** What the right hand plays at moment k on a path of the left; null where its state is no node of the core. */
function variantOn(core: readonly CoreMoment[], path: readonly number[], k: number): number | null {
  const { nodes, slursFrom } = core[k]!;
  const slurs = slursFrom ? slursFrom(path[k - 1]!, path[k]!) : 0;
  return nodes.find((node) => node.state === path[k] && node.slurs === slurs)?.variant ?? null;
}

function foundOn(layers: readonly JointLayer[], solution: Solution): Found {
  const path = bestPath(solution);
  const nodes = path.map((s, k) => layers[k]!.moment.nodes[layers[k]!.nodeOf[s]!]!);
  const leftOut = nodes.reduce((sum, { variant }, k) => {
    const { moment } = layers[k]!;
    return sum + moment.layer.plays * moment.leftOut[variant]!;
  }, 0);
  return {
    cost: solution.cost,
    leftOutCost: LEFT_OUT_COST * leftOut,
    states: nodes.map(({ state }, k) => layers[k]!.moment.layer.state(state)),
    letters: path.map((s, k) => layers[k]!.strokes.shared.states[layers[k]!.strokeOf[s]!]!.letters),
  };
}

const variantMasks = new WeakMap<StrokeLayer, Map<number, Uint8Array>>();

/** The states of one variant, those that agree with the ink; one object as long as there is none. */
function maskOfVariant(layer: StrokeLayer, variant: number, ink: Mask): Uint8Array {
  const known = variantMasks.get(layer)?.get(variant);
  if (known && !ink) return known;
  const mask = Uint8Array.from(layer.shared.states, (state, r) =>
    state.variant === variant && (!ink || ink[r]) ? 1 : 0,
  );
  if (!ink) {
    const masks = variantMasks.get(layer) ?? new Map<number, Uint8Array>();
    variantMasks.set(layer, masks.set(variant, mask));
  }
  return mask;
}

/** What the left hand's states cost besides, for the joint states that hold them. */
const spread = (extra: Int32Array | null, { moment, nodeOf }: JointLayer): Int32Array | null =>
  extra && nodeOf.map((n) => extra[moment.nodes[n]!.state]!);

/** In parts: below this lies what could be cheaper, since costs are whole. */
const below = (cost: number) => PARTS * (cost - 1) + 1;

/** So many states at one moment, or in all, are not planned together: it would take too long. */
const tooMany = (states: readonly (readonly number[])[]) =>
  states.some((some) => some.length > MOST_STATES) ||
  states.reduce((sum, some) => sum + some.length * some.length, 0) > MOST_PAIRS;

/** Costs are whole, so a bound between two of them is the upper one. */
const wholeTenths = (parts: number) => Math.ceil(parts / PARTS);
