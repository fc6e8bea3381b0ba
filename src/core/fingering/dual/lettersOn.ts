/**
 * The best letters for the strings on which a path of the left hand lies. Two questions in a row are mostly about the
 * same path but for a few moments: everywhere else what the last one was answered with is taken again.
 */
import { before, Column, here } from '../solver/column';
import { sharesOf, solveWithJumps } from '../solver/jumps';
import { type Mask, type Solution, solveLattice } from '../solver/lattice';
import type { HandState } from '../left/rules/handState';
import type { FingeringProblem } from '../problem/problem';
import { maskOf } from '../right/lattice/inkedLetters';
import { strokeChain, strokeColumn, type StrokeLayer } from '../right/lattice/strokeChain';
import { strokeJumps } from '../right/lattice/strokeJumps';
import type { StrokeGroup } from '../right/rules/strokes';
import type { StrokeStore } from '../right/lattice/strokeStore';
import type { Hands } from './dualAscent';
import { type CoreMoment, LEFT_OUT_COST } from './core';
import type { Question } from './question';

/** What both hands cost on one path of the left. */
export interface Found extends Hands {
  readonly cost: number;
  /** Strokes left out because inked letters contradict each other: their part of the cost. */
  readonly leftOutCost: number;
}

/** One moment of a path. */
interface Stop {
  readonly hand: HandState;
  /** Which variant of the moment the right hand plays, alone in a row. */
  readonly variant: number;
  readonly groups: readonly StrokeGroup[];
  readonly leftOutCost: number;
}

/** The answer to the last question. */
interface Answer {
  readonly strokes: readonly StrokeLayer[];
  readonly solution: Solution;
  /** By layer of strokes: the state that was chosen. */
  readonly letters: readonly number[];
}

export class LettersOn {
  private last: Answer | null = null;

  private readonly stops = new Column<Stop | null>();
  private readonly strokes = strokeColumn();

  constructor(
    private readonly problem: FingeringProblem,
    private readonly store: StrokeStore,
  ) {}

  /** By moment, on the path of the last answer. */
  efforts(): readonly Effort[] {
    const { strokes, letters } = this.last!;
    return strokes.slice(1).map(({ stateCost, ways }, k) => ({
      own: stateCost[letters[k + 1]!]!,
      way: ways!.price(letters[k]!, letters[k + 1]!),
    }));
  }

  /** @param path states of the left hand, by moment; null where one is no node of the core */
  found({ core, inked }: Question, path: readonly number[], leftCost: number): Found | null {
    const { last } = this;
    const stops = this.stops.of(path.length, [here(core), before(path), here(path)], (_k, moment, from, to) =>
      stopAt(moment, from ?? -1, to),
    );
    if (!allThere(stops)) return null;
    const strokes = strokeChain(
      this.problem,
      this.store,
      stops.map(({ groups }) => groups),
      this.strokes,
    );
    const masks = strokes.map((layer, k): Mask =>
      k === 0 || inked.keyOf(k - 1) === '' ? null : maskOf(layer, stops[k - 1]!.groups, inked.of),
    );
    const jumps = strokeJumps(this.problem, this.store, strokes);
    const shares = jumps.length === 0 ? null : sharesOf(jumps, strokes.length);
    const solution = solveLattice(strokes, masks, last?.solution, shares);
    const best = solution && solveWithJumps({ layers: strokes, masks, jumps }, solution);
    if (!best) return null;
    const letters = best.path;
    this.last = { strokes, solution, letters };
    const leftOutCost = stops.reduce(
      (sum, stop, k) => sum + (inked.keyOf(k) === '' ? 0 : stop.leftOutCost),
      0,
    );
    return {
      cost: leftCost + best.cost + leftOutCost,
      leftOutCost,
      states: stops.map(({ hand }) => hand),
      played: stops.map((_stop, k) => strokes[k + 1]!.shared.states[letters[k + 1]!]!.played),
    };
  }
}

/** What the right hand pays at a moment: for its strokes by themselves, and for coming to them. */
export interface Effort {
  readonly own: number;
  readonly way: number;
}

const allThere = (stops: readonly (Stop | null)[]): stops is readonly Stop[] => !stops.includes(null);

function stopAt(moment: CoreMoment, before: number, state: number): Stop | null {
  const variant = variantOn(moment, before, state);
  if (variant === null) return null;
  const { layer, leftOut } = moment;
  return {
    hand: layer.state(state),
    variant,
    groups: soleVariant(moment, variant),
    leftOutCost: LEFT_OUT_COST * layer.plays * leftOut[variant]!,
  };
}

/** What the right hand plays at a moment when the left comes from one state to another; null where it is no node. */
function variantOn({ nodes, slursFrom }: CoreMoment, before: number, state: number): number | null {
  const slurs = slursFrom ? slursFrom(before, state) : 0;
  return nodes.find((node) => node.state === state && node.slurs === slurs)?.variant ?? null;
}

const soleVariants = new WeakMap<CoreMoment, Map<number, readonly StrokeGroup[]>>();

/** A moment with one way to put its notes on strings; one object as long as the moment is. */
function soleVariant(moment: CoreMoment, variant: number): readonly StrokeGroup[] {
  let known = soleVariants.get(moment);
  if (!known) soleVariants.set(moment, (known = new Map()));
  let sole = known.get(variant);
  if (!sole) known.set(variant, (sole = [moment.variants[variant]!]));
  return sole;
}
