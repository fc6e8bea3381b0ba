/**
 * Both hands together: the least of what the left hand costs and what the right hand costs on its strings. Prices on
 * the strings make the two hands agree (`agreement.ts`) and give a bound; where a plan costs no more than the bound
 * it is the best. Otherwise both are planned together on all states through which something could cost less.
 */
import type { Ink } from '../ink';
import { bestPath, type Extras, type Solution, solveLattice, UNREACHABLE } from '../lattice';
import { codeOf } from '../left/handState';
import { NO_PLACE, PLACEMENTS } from '../left/packed/handTables';
import type { LeftConflict, LeftPlanner } from '../left/planLeft';
import { exploreReturns, returnExtras } from '../left/returns';
import type { FingeringProblem } from '../problem';
import { maskOf } from '../right/planRight';
import type { RightSetting } from '../right/setting';
import { strokeChain, type StrokeLayer } from '../right/strokeChain';
import { StrokeStore } from '../right/strokeStore';
import { Bargain, type Bound, type Hands, wholeTenths } from './bargain';
import { type Below, PARTS, statesBelow, throughStates } from './bound';
import { type CoreMoment, coreOf } from './core';
import { type JointLayer, jointLayer, LEFT_OUT_COST } from './jointLayer';
import { type Found, LettersOn } from './lettersOn';
import { askBoth, type Question } from './question';

/**
 * How much above the bound, in tenths of a point, is planned together first; doubled until nothing cheaper can be
 * outside. Far from an edit the same states are below the same room, so that what was made of them is found again.
 */
const FIRST_ROOM = 16;
/** Prices of an earlier question are bargained anew when so much room does not do. */
const ROOM_BEFORE_BARGAIN = 64;
/** A moment with more states, or a piece with more pairs of them, is not planned together. From memory. */
const MOST_STATES = 300;
const MOST_PAIRS = 400_000;

export interface BothHands extends Hands {
  readonly cost: number;
  readonly lowerBound: number;
  readonly conflicts: readonly LeftConflict[];
}

interface Proof {
  readonly best: Found;
  readonly lowerBound: number;
}

export class JointPlanner {
  private readonly store: StrokeStore;
  private readonly bargain: Bargain;
  private question: Question | null = null;
  private below: readonly Below[] = [];
  private latestCost = 0;
  private readonly lettersOn: LettersOn;
  private readonly joint = new Map<number, Joint>();

  constructor(
    private readonly problem: FingeringProblem,
    private readonly left: LeftPlanner,
    private readonly setting: RightSetting,
  ) {
    this.store = new StrokeStore(problem.hand);
    this.bargain = new Bargain(problem, setting);
    this.lettersOn = new LettersOn(problem, this.store);
  }

  plan(ink: Ink): BothHands {
    const left = this.left.solve(ink);
    const question = askBoth(this.problem, this.setting, this.store, left, ink, this.question);
    this.question = question;
    const kept = this.bargain.again(question);
    let best = (kept && this.onBound(question, kept)) ?? this.onLeft(question);
    let proof = kept && this.prove(question, kept, best, ROOM_BEFORE_BARGAIN);
    best = proof?.best ?? best;
    if (!proof || proof.lowerBound < best.cost) {
      const bound = this.bargain.anew(question, best);
      const known = cheaper(best, this.onBound(question, bound));
      proof = this.prove(question, bound, this.onNodes(question, bound, known), Infinity);
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
    const { question } = this;
    const bound = this.bargain.latest;
    const k = this.problem.moments.findIndex(({ struck }) => struck.includes(strike));
    const least = new Map<number, number>();
    if (!question || !bound) return least;
    const moment = question.core[k]!;
    const column = moment.layer.strikes.indexOf(strike);
    if (column < 0) return least;
    const through = throughStates(moment, question.strokes[k + 1]!, k, bound.left, bound.right);
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
    if (known.cost - bound.cost <= ROOM_BEFORE_BARGAIN) return known;
    const { left } = question;
    const nodes = question.near.map(({ nodes }) => nodes);
    return this.together(question, nodes, left.solution.extras, ON_NODES, known);
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
      bound.paid,
      () => below(best.cost) - right.cost,
      (fixed) => {
        const least = fixed.solution.cost + right.cost;
        const extras = returnExtras(this.problem, left.layers, fixed.states);
        for (let room = roomFor(best.cost - wholeTenths(least)); ; room *= 2) {
          const states = this.statesBelow(core, strokes, fixed.solution, right, least + room * PARTS);
          if (room > mostRoom || tooMany(states)) {
            lowerBound = Math.min(lowerBound, wholeTenths(least));
            return;
          }
          best = this.together(question, states, extras, room, best);
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

  /** The plan on the strings that the left hand would choose by itself. */
  private onLeft(question: Question): Found {
    const { solution } = question.left;
    return this.lettersOn.found(question, bestPath(solution), solution.cost)!;
  }

  /** The plan on the strings of the bound's left hand; null where they are not in the core, or ways back are priced. */
  private onBound(question: Question, { left, paid }: Bound): Found | null {
    if (this.problem.passes.returns.length > 0) return null;
    const path = bestPath(left);
    const paidOnIt = path.reduce((sum, s, k) => sum + paid[k]![s]!, 0);
    return this.lettersOn.found(question, path, (left.cost - paidOnIt) / PARTS);
  }

  /** The joint optimum over paths of the left hand through `states`, where it is cheaper than what is known. */
  private together(
    { left, adapting }: Question,
    states: readonly (readonly number[])[],
    extras: Extras | null,
    kind: number,
    known: Found,
  ): Found {
    const { problem } = this;
    const joint = this.joint.get(kind) ?? NO_JOINT;
    const core = coreOf(
      problem,
      this.setting,
      left.layers,
      states,
      states.map(() => NO_STATES),
      states.map(() => NO_STATES),
      adapting,
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
      const last = joint.layers[k];
      const alike =
        last?.moment === moment && last.strokes === strokes[k + 1] && sameBefore(last.before, before);
      const mask =
        alike || moment.inkKey === '' ? null : maskOf(strokes[k + 1]!, moment.variants, adapting.inked);
      layers.push(alike ? last : jointLayer(before, moment, strokes[k + 1]!, strokes[0]!, mask));
    });
    const paid = extras && extras.map((extra, k) => spread(extra, layers[k]!));
    const solution = solveLattice(
      layers,
      layers.map(() => null),
      joint.solution,
      paid,
    );
    this.joint.set(kind, { core, strokes, layers, solution: solution ?? joint.solution });
    return solution && solution.cost < known.cost ? foundOn(layers, solution) : known;
  }
}

const cheaper = (known: Found, found: Found | null) => (found && found.cost < known.cost ? found : known);

const sameBefore = (a: JointLayer | null, b: JointLayer | null) =>
  a === b || (a !== null && b !== null && a.moment === b.moment && a.strokes === b.strokes);

const NO_STATES: readonly number[] = [];

const ON_NODES = 0;
const NO_JOINT: Joint = { core: [], strokes: [], layers: [], solution: null };

/** Both hands' lattice of the last question that needed one. */
interface Joint {
  readonly core: readonly CoreMoment[];
  readonly strokes: readonly StrokeLayer[];
  readonly layers: readonly JointLayer[];
  readonly solution: Solution | null;
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

/** Room enough for a gap between cost and bound, where that is not too much at once. */
function roomFor(gap: number): number {
  let room = FIRST_ROOM;
  while (room < gap && room < ROOM_BEFORE_BARGAIN) room *= 2;
  return room;
}

/** In parts: below this lies what could be cheaper, since costs are whole. */
const below = (cost: number) => PARTS * (cost - 1) + 1;

/** So many states at one moment, or in all, are not planned together: it would take too long. */
const tooMany = (states: readonly (readonly number[])[]) =>
  states.some((some) => some.length > MOST_STATES) ||
  states.reduce((sum, some) => sum + some.length * some.length, 0) > MOST_PAIRS;
