/**
 * Both hands planned together on some states of each moment. Where the same states are asked for again, everything
 * that was made for them the last time is taken again.
 */
import { after, Column, here } from '../solver/column';
import { bestPath, type Extras, type Solution, solveLattice } from '../solver/lattice';
import type { HandState } from '../left/rules/handState';
import type { FingeringProblem } from '../problem/problem';
import { type InkedLetters, maskOf } from '../right/lattice/inkedLetters';
import type { Played } from '../right/rules/memory';
import type { RightSetting } from '../right/rules/setting';
import { strokeChain, strokeColumn } from '../right/lattice/strokeChain';
import type { StrokeStore } from '../right/lattice/strokeStore';
import { type Asked, CoreColumns, coreOf, LEFT_OUT_COST } from './core';
import { type JointLayer, jointLayer } from './jointLayer';
import type { Found } from './lettersOn';
import type { Question } from './question';

/** By moment: the states that take part. */
type States = readonly (readonly number[])[];

export class Together {
  private readonly columns = {
    asked: new Column<Asked>(),
    core: new CoreColumns(),
    strokes: strokeColumn(),
    layers: new Column<JointLayer>(),
    states: new Column<HandState>(),
    played: new Column<Played>(),
  };
  private solution: Solution | null = null;

  constructor(
    private readonly problem: FingeringProblem,
    private readonly setting: RightSetting,
    private readonly store: StrokeStore,
  ) {}

  /** The joint optimum over paths of the left hand through `states`, where it is cheaper than what is known. */
  cheapest(question: Question, states: States, extras: Extras | null, known: Found): Found {
    const { left, inked } = question;
    const { problem, setting, columns } = this;
    const asked = columns.asked.of(states.length, [here(states)], (_k, some) => ({
      states: some,
      others: NONE,
      far: NONE,
    }));
    const core = coreOf({ problem, setting, layers: left.layers, inked }, asked, columns.core);
    const variants = core.map((moment) => moment.variants);
    const strokes = strokeChain(problem, this.store, variants, columns.strokes);
    const [start] = strokes;
    const layers = columns.layers.of(
      core.length,
      [here(core), after(strokes), columns.layers.own(sameBefore)],
      (k, moment, stroke, last) => {
        const mask = inked.keyOf(k) === '' ? null : maskOf(stroke!, moment.variants, inked.of);
        return jointLayer(last, moment, stroke!, start!, mask);
      },
    );
    const paid = extras && extras.map((extra, k) => spread(extra, layers[k]!));
    const masks = layers.map(() => null);
    const solution = solveLattice(layers, masks, this.solution, paid);
    this.solution = solution ?? this.solution;
    return solution && solution.cost < known.cost ? this.found(layers, solution, inked) : known;
  }

  private found(layers: readonly JointLayer[], solution: Solution, inked: InkedLetters): Found {
    const path = bestPath(solution);
    const { columns } = this;
    const taken = [here(layers), here(path)] as const;
    const states = columns.states.of(path.length, taken, (_k, layer, s) => handOf(layer, s));
    const played = columns.played.of(path.length, taken, (_k, layer, s) => playedOf(layer, s));
    const leftOut = path.reduce(
      (sum, s, k) => sum + (inked.keyOf(k) === '' ? 0 : leftOutAt(layers[k]!, s)),
      0,
    );
    const leftOutCost = LEFT_OUT_COST * leftOut;
    return { cost: solution.cost, leftOutCost, states, played };
  }
}

const NONE: readonly number[] = [];

/** A joint layer looks at the moment and the strokes before, and at nothing else of them. */
const sameBefore = (_layer: JointLayer, is: JointLayer | null, _k: number, was: JointLayer | null) =>
  is !== null && was !== null && is.moment === was.moment && is.strokes === was.strokes;

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
