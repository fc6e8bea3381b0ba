/**
 * Both hands planned together on some states of each moment. Where the same states are asked for again, everything
 * that was made for them the last time is taken again.
 */
import { after, Column, here } from '../solver/column';
import {
  type Jump,
  type JumpedChain,
  type JumpedPath,
  type JumpPrices,
  raisedShares,
  restOn,
  sharesOf,
  solveWithJumps,
  statesBelow,
} from '../solver/jumps';
import { costThrough, pathThrough, type Solution, solveLattice } from '../solver/lattice';
import type { HandState } from '../left/rules/handState';
import type { FingeringProblem } from '../problem/problem';
import { type InkedLetters, maskOf } from '../right/lattice/inkedLetters';
import type { Played } from '../right/rules/memory';
import type { RightSetting } from '../right/rules/setting';
import { strokeChain, strokeColumn } from '../right/lattice/strokeChain';
import { strokeJumps } from '../right/lattice/strokeJumps';
import type { StrokeGroup } from '../right/rules/strokes';
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
  private solved: Solved | null = null;
  /** Shares of jumps that were raised for both hands together; they hold for other questions, too. */
  private readonly raised = new WeakMap<JumpPrices, JumpPrices>();
  private readonly isRaised = new WeakSet<JumpPrices>();

  constructor(
    private readonly problem: FingeringProblem,
    private readonly setting: RightSetting,
    private readonly store: StrokeStore,
  ) {}

  /** The joint optimum over paths of the left hand through `states`, where it is cheaper than what is known. */
  cheapest(question: Question, states: States, known: Found): Found {
    const solved = this.solve(question, states);
    if (!solved) return known;
    const best = solveWithJumps(solved, solved.chain, known.cost);
    return best ? this.found(solved.layers, best, question.inked) : known;
  }

  /** Before many are asked for with `cheapestWith`: shares of ways back that are raised make each of them quick. */
  raise(): void {
    const solved = this.solved!;
    if (solved.jumps.every(({ prices }) => this.isRaised.has(prices))) return;
    const raised = raisedShares(solved, solved.chain, ROUNDS);
    raised.jumps.forEach(({ prices }, n) => {
      this.raised.set(solved.jumps[n]!.prices, prices);
      this.isRaised.add(prices);
    });
    this.solved = { ...solved, ...raised };
  }

  /**
   * The same over those that have what is meant at moment k, where it costs less than `limit`. `cheapest` has been asked
   * on the same states before.
   */
  cheapestWith(
    { inked }: Question,
    k: number,
    isMeant: (hand: HandState, played: Played, group: StrokeGroup) => boolean,
    limit: number,
  ): Found | null {
    const { layers, jumps, chain } = this.solved!;
    const layer = layers[k]!;
    const through = layer.nodeOf.map((_n, s) => costThrough(chain, k, s));
    const meant = [...through.keys()].filter(
      (s) => through[s]! < limit && isMeant(handOf(layer, s), playedOf(layer, s), groupOf(layer, s)),
    );
    if (meant.length === 0) return null;
    const best = meant.reduce((a, b) => (through[b]! < through[a]! ? b : a));
    const path = pathThrough(chain, k, best);
    const cost = through[best]! + restOn(jumps, path);
    if (cost === through[best]) return this.found(layers, { cost, path }, inked);
    // What ways back cost decides: among states that could still be part of something no dearer.
    const most = Math.min(limit, cost + 1);
    const masks = statesBelow(chain, most);
    const forced = masks.with(
      k,
      masks[k]!.map((allowed, s) => (meant.includes(s) ? allowed : 0)),
    );
    const narrow = solveLattice(layers, forced, chain, chain.extras);
    const cheapest = narrow && solveWithJumps({ layers, masks: forced, jumps }, narrow, most);
    return cheapest && this.found(layers, cheapest, inked);
  }

  private solve({ left, inked }: Question, states: States): Solved | null {
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
    const jumps = [
      ...left.jumps.map((jump) => ofLeft(this.withRaised(jump), layers)),
      ...strokeJumps(problem, this.store, strokes).map((jump) => ofRight(this.withRaised(jump), layers)),
    ];
    const masks = layers.map(() => null);
    const shares = jumps.length === 0 ? null : sharesOf(jumps, layers.length);
    const chain = solveLattice(layers, masks, this.solved?.chain, shares);
    if (!chain) return null;
    this.solved = { layers, masks, jumps, chain };
    return this.solved;
  }

  private withRaised(jump: Jump): Jump {
    return { ...jump, prices: this.raised.get(jump.prices) ?? jump.prices };
  }

  private found(layers: readonly JointLayer[], { cost, path }: JumpedPath, inked: InkedLetters): Found {
    const { columns } = this;
    const taken = [here(layers), here(path)] as const;
    const states = columns.states.of(path.length, taken, (_k, layer, s) => handOf(layer, s));
    const played = columns.played.of(path.length, taken, (_k, layer, s) => playedOf(layer, s));
    const leftOut = path.reduce(
      (sum, s, k) => sum + (inked.keyOf(k) === '' ? 0 : leftOutAt(layers[k]!, s)),
      0,
    );
    const leftOutCost = LEFT_OUT_COST * leftOut;
    return { cost, leftOutCost, states, played };
  }
}

/** What was planned together, with its solution but for what jumps cost beyond their shares. */
interface Solved extends JumpedChain {
  readonly layers: readonly JointLayer[];
  readonly chain: Solution;
}

/** A joint lattice is dear to solve: shares are raised a little each time. */
const ROUNDS = 1;

const NONE: readonly number[] = [];

/** A joint layer looks at the moment and the strokes before, and at nothing else of them. */
const sameBefore = (_layer: JointLayer, is: JointLayer | null, _k: number, was: JointLayer | null) =>
  is !== null && was !== null && is.moment === was.moment && is.strokes === was.strokes;

const nodeOf = ({ moment, nodeOf }: JointLayer, s: number) => moment.nodes[nodeOf[s]!]!;

const handOf = (layer: JointLayer, s: number): HandState => layer.moment.layer.state(nodeOf(layer, s).state);

const groupOf = (layer: JointLayer, s: number): StrokeGroup =>
  layer.moment.variants[nodeOf(layer, s).variant]!;

const playedOf = ({ strokes, strokeOf }: JointLayer, s: number) =>
  strokes.shared.states[strokeOf[s]!]!.played;

const leftOutAt = (layer: JointLayer, s: number): number => {
  const { moment } = layer;
  return moment.layer.plays * moment.leftOut[nodeOf(layer, s).variant]!;
};

/** A jump of one hand between the joint states that hold it. */
function ofLeft(jump: Jump, layers: readonly JointLayer[]): Jump {
  const read = (classOf: Int32Array, { moment, nodeOf }: JointLayer) =>
    nodeOf.map((n) => classOf[moment.nodes[n]!.state]!);
  const { from, to } = jump;
  return { ...jump, rowOf: read(jump.rowOf, layers[from]!), columnOf: read(jump.columnOf, layers[to]!) };
}

/** The right hand's layers begin one before the first moment. */
function ofRight(jump: Jump, layers: readonly JointLayer[]): Jump {
  const read = (classOf: Int32Array, { strokeOf }: JointLayer) => strokeOf.map((r) => classOf[r]!);
  const [from, to] = [jump.from - 1, jump.to - 1];
  return {
    ...jump,
    from,
    to,
    rowOf: read(jump.rowOf, layers[from]!),
    columnOf: read(jump.columnOf, layers[to]!),
  };
}
