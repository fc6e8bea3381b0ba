/**
 * Both hands planned together on some states of each moment. Where the same states are asked for again, everything
 * that was made for them the last time is taken again.
 */
import { carried } from '../solver/carried';
import { bestPath, type Extras, type Solution, solveLattice } from '../solver/lattice';
import type { HandState } from '../left/rules/handState';
import type { HandLayer } from '../left/lattice/handLayer';
import type { FingeringProblem } from '../problem/problem';
import { type InkedLetters, maskOf } from '../right/lattice/inkedLetters';
import type { Played } from '../right/rules/memory';
import type { RightSetting } from '../right/rules/setting';
import { strokeChain, type StrokeLayer } from '../right/lattice/strokeChain';
import type { StrokeStore } from '../right/lattice/strokeStore';
import { type Core, coreOf, LEFT_OUT_COST } from './core';
import { type JointLayer, jointLayer } from './jointLayer';
import type { Found } from './lettersOn';
import type { Question } from './question';

/** By moment: the states that take part. */
type States = readonly (readonly number[])[];

/** Both hands' lattice of the last question. */
interface Made {
  readonly states: States;
  readonly hand: readonly HandLayer[];
  readonly core: Core;
  readonly strokes: readonly StrokeLayer[];
  readonly layers: readonly JointLayer[];
  readonly solution: Solution | null;
}

/** A plan of both hands read off the lattice, with what it was read from. */
interface Read {
  readonly layers: readonly JointLayer[];
  readonly path: readonly number[];
  readonly states: readonly HandState[];
  readonly played: readonly Played[];
}

export class Together {
  private made: Made | null = null;
  private read: Read | null = null;

  constructor(
    private readonly problem: FingeringProblem,
    private readonly setting: RightSetting,
    private readonly store: StrokeStore,
  ) {}

  /** The joint optimum over paths of the left hand through `states`, where it is cheaper than what is known. */
  cheapest(question: Question, states: States, extras: Extras | null, known: Found): Found {
    const { left, inked } = question;
    const last = this.made;
    const core = coreOf(
      this.problem,
      this.setting,
      left.layers,
      { asked: (k) => ({ states: states[k]!, others: NONE, far: NONE }), inked },
      last && {
        ...last.core,
        isSame: (k) => states[k] === last.states[k] && left.layers[k] === last.hand[k],
      },
    );
    const { moments } = core;
    const isSame = (k: number) => moments[k] === last!.core.moments[k];
    const strokes = strokeChain(this.problem, this.store, (k) => moments[k]!.variants, last?.strokes, isSame);
    const layers = carried<JointLayer>(
      moments.length,
      last?.layers ?? null,
      (k, made) =>
        isSame(k) && strokes[k + 1] === last!.strokes[k + 1] && sameBefore(last!.layers[k - 1], made[k - 1]),
      (k, made) => {
        const here = strokes[k + 1]!;
        const mask = inked.keyOf(k) === '' ? null : maskOf(here, moments[k]!.variants, inked.of);
        return jointLayer(made[k - 1] ?? null, moments[k]!, here, strokes[0]!, mask);
      },
    );
    const paid = extras && extras.map((extra, k) => spread(extra, layers[k]!));
    const masks = layers.map(() => null);
    const solution = solveLattice(layers, masks, last?.solution, paid);
    this.made = {
      states,
      hand: left.layers,
      core,
      strokes,
      layers,
      solution: solution ?? last?.solution ?? null,
    };
    return solution && solution.cost < known.cost ? this.found(layers, solution, inked) : known;
  }

  private found(layers: readonly JointLayer[], solution: Solution, inked: InkedLetters): Found {
    const path = bestPath(solution);
    const last = this.read;
    const same = (k: number) => layers[k] === last!.layers[k] && path[k] === last!.path[k];
    const states = carried(path.length, last?.states ?? null, same, (k) => handOf(layers[k]!, path[k]!));
    const played = carried(path.length, last?.played ?? null, same, (k) => playedOf(layers[k]!, path[k]!));
    this.read = { layers, path, states, played };
    const leftOut = path.reduce(
      (sum, s, k) => sum + (inked.keyOf(k) === '' ? 0 : leftOutAt(layers[k]!, s)),
      0,
    );
    const leftOutCost = LEFT_OUT_COST * leftOut;
    return { cost: solution.cost, leftOutCost, states, played };
  }
}

const NONE: readonly number[] = [];

const sameBefore = (a: JointLayer | undefined, b: JointLayer | undefined) =>
  a === b || (a !== undefined && b !== undefined && a.moment === b.moment && a.strokes === b.strokes);

const nodeOf = ({ moment, nodeOf }: JointLayer, s: number) => moment.nodes[nodeOf[s]!]!;

const handOf = (layer: JointLayer, s: number): HandState => layer.moment.layer.state(nodeOf(layer, s).state);

const playedOf = ({ strokes, strokeOf }: JointLayer, s: number) =>
  strokes.shared.states[strokeOf[s]!]!.played;

const leftOutAt = (layer: JointLayer, s: number): number => {
  const { moment } = layer;
  return moment.layer.plays * moment.leftOut[nodeOf(layer, s).variant]!;
};

/** What the left hand's states cost besides, for the joint states that hold them. */
const spread = (extra: Int32Array | null, { moment, nodeOf }: JointLayer): Int32Array | null =>
  extra && nodeOf.map((n) => extra[moment.nodes[n]!.state]!);
