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
const STRINGS_ABOVE = 300;
/** A moment with more states than this is not planned together: the plan then says how far it may be from the best. */
const MOST_STATES = 500;
/** From so many states a moment, or so many at one, bargaining is faster than planning together. From memory. */
const WIDE = 3;
const WIDE_AT_ONCE = 40;

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
  private core: readonly CoreMoment[] = [];
  private strokes: readonly StrokeLayer[] = [];
  private lefts: readonly Int32Array[] = [];
  private prices: Prices = [];
  private paid: readonly Int32Array[] = [];
  private leftBound: Solution | null = null;
  private rightBound: Solution | null = null;
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
    let lowerBound = best.cost;
    // Without prices of an earlier question the bound is not worth asking for.
    let bound = this.prices.length > 0 ? this.bound(question, this.kept(question.core)) : null;
    if (bound) best = this.better(question, bound, best);
    if (!bound || (bound.cost < best.cost && this.isWide(question, bound, best))) {
      this.prices = this.agree(question, best);
      bound = this.bound(question, this.prices);
      best = this.better(question, bound, best);
    }
    const { right } = bound;
    exploreReturns(
      this.problem,
      left.layers,
      left.masks,
      bound.left,
      this.paid,
      () => below(best.cost) - right.cost,
      (fixed) => {
        const least = fixed.solution.cost + right.cost;
        const states = statesBelow(
          question.core,
          question.strokes,
          fixed.solution,
          right,
          least + roomAbove(below(best.cost) - least),
        );
        if (states.some((some) => some.length > MOST_STATES)) {
          lowerBound = Math.min(lowerBound, wholeTenths(least));
          return;
        }
        const extras = returnExtras(this.problem, left.layers, fixed.states);
        const found = this.together(question, states, extras);
        if (found && found.cost < best.cost) best = found;
      },
      PARTS,
    );
    this.latestCost = best.cost;
    return {
      states: best.states,
      letters: best.letters,
      cost: best.cost - best.leftOutCost,
      lowerBound: Math.min(lowerBound, best.cost) - best.leftOutCost,
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

  private ask(left: LeftSolved, inked: Inked): Question {
    const { problem, setting } = this;
    const { layers, solution } = left;
    const struck = problem.moments.map((moment) => moment.struck);
    this.near = nearStates(layers, solution, struck, NODES_ABOVE, STRINGS_ABOVE, this.near);
    const core = coreOf(
      problem,
      setting,
      layers,
      this.near.map(({ nodes }) => nodes),
      this.near.map(({ strings }) => strings),
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
    this.core = core;
    this.strokes = strokes;
    const strokeMasks = strokes.map((layer, k) =>
      k === 0 ? null : maskOf(layer, core[k - 1]!.variants, inked),
    );
    return { left, inked, core, strokes, strokeMasks };
  }

  private adapting(inked: Inked) {
    const { moments } = this.problem;
    return {
      adapt: (group: Parameters<typeof withoutConflict>[0]) => withoutConflict(group, inked),
      keyOf: (k: number) => moments[k]!.struck.map((strike) => inked(strike) ?? '').join(),
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

  /** Whether so many states could still be part of a better plan that prices should be bargained anew first. */
  private isWide({ core, strokes }: Question, bound: Bound, best: Found): boolean {
    const states = statesBelow(core, strokes, bound.left, bound.right, below(best.cost));
    const count = states.reduce((sum, some) => sum + some.length, 0);
    return count > WIDE * core.length || states.some((some) => some.length > WIDE_AT_ONCE);
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

  private agree(question: Question, best: Found): Prices {
    const { left, core, strokes } = question;
    const start = this.prices.length > 0 ? this.kept(core) : this.firstPrices(question, best);
    const steps = this.problem.passes.steps.map((n, k) => (k === 0 ? 0 : n));
    const above = core.map(({ variants, strangers }, k) => {
      const row: (number | null)[] = variants.map(() => null);
      for (const [state, list] of strangers) {
        const own = costThrough(left.solution, k, state) - left.solution.cost;
        for (const v of list) row[v] = Math.min(row[v] ?? Infinity, own);
      }
      return row;
    });
    return agreedPrices(core, this.lefts, above, strokes, steps, start, STRINGS_ABOVE);
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
      const ink = strokeMasks[k]!;
      return Uint8Array.from(layer.shared.states, ({ variant }, r) =>
        variant === variants[k - 1] && (!ink || ink[r]) ? 1 : 0,
      );
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
      const mask = alike ? null : maskOf(strokes[k + 1]!, moment.variants, inked);
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

/** What the left hand's states cost besides, for the joint states that hold them. */
const spread = (extra: Int32Array | null, { moment, nodeOf }: JointLayer): Int32Array | null =>
  extra && nodeOf.map((n) => extra[moment.nodes[n]!.state]!);

/** In parts: below this lies what could be cheaper, since costs are whole. */
const below = (cost: number) => PARTS * (cost - 1) + 1;

/** In parts, and in few steps: so the states far from an edit are the same ones as before, and so is what was made of them. */
function roomAbove(parts: number): number {
  let room = 16 * PARTS;
  while (room < parts) room *= 2;
  return room;
}

/** Costs are whole, so a bound between two of them is the upper one. */
const wholeTenths = (parts: number) => Math.ceil(parts / PARTS);
