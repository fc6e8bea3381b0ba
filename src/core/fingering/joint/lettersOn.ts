/**
 * The best letters for the strings on which a path of the left hand lies. Two questions in a row are mostly about the
 * same path but for a few moments: everywhere else what the last one was answered with is taken again.
 */
import { bestPath, type Mask, type Solution, solveLattice } from '../lattice';
import type { HandState } from '../left/handState';
import type { FingeringProblem } from '../problem';
import { maskOf } from '../right/planRight';
import { strokeChain, type StrokeLayer } from '../right/strokeChain';
import type { StrokeGroup } from '../right/strokes';
import type { StrokeStore } from '../right/strokeStore';
import type { Hands } from './bargain';
import type { CoreMoment } from './core';
import { LEFT_OUT_COST } from './jointLayer';
import type { Question } from './question';

/** What both hands cost on one path of the left. */
export interface Found extends Hands {
  readonly cost: number;
  /** Strokes left out because inked letters contradict each other: their part of the cost. */
  readonly leftOutCost: number;
}

/** One moment of a path. */
interface Stop {
  readonly moment: CoreMoment;
  readonly state: number;
  readonly before: number;
  readonly hand: HandState;
  /** Which variant of the moment the right hand plays, alone in a row. */
  readonly variant: number;
  readonly groups: readonly StrokeGroup[];
}

export class LettersOn {
  private stops: readonly Stop[] = [];
  private strokes: readonly StrokeLayer[] = [];
  private solution: Solution | null = null;

  constructor(
    private readonly problem: FingeringProblem,
    private readonly store: StrokeStore,
  ) {}

  /** @param path states of the left hand, by moment; null where one is no node of the core */
  found({ core, adapting }: Question, path: readonly number[], leftCost: number): Found | null {
    const stops: Stop[] = [];
    let leftOutCost = 0;
    for (let k = 0; k < path.length; k++) {
      const stop = this.stopAt(core[k]!, k, path[k]!, path[k - 1] ?? -1);
      if (!stop) return null;
      stops.push(stop);
      const { leftOut, layer } = core[k]!;
      leftOutCost += LEFT_OUT_COST * layer.plays * leftOut[stop.variant]!;
    }
    const groups = stops.map((stop) => stop.groups);
    const strokes = strokeChain(this.problem, this.store, groups, this.strokes);
    const masks = strokes.map((layer, k): Mask =>
      k === 0 || core[k - 1]!.inkKey === '' ? null : maskOf(layer, groups[k - 1]!, adapting.inked),
    );
    const solution = solveLattice(strokes, masks, this.solution);
    if (!solution) return null;
    this.stops = stops;
    this.strokes = strokes;
    this.solution = solution;
    const best = bestPath(solution);
    return {
      cost: leftCost + solution.cost + leftOutCost,
      leftOutCost,
      states: stops.map(({ hand }) => hand),
      letters: stops.map((_stop, k) => strokes[k + 1]!.shared.states[best[k + 1]!]!.letters),
    };
  }

  private stopAt(moment: CoreMoment, k: number, state: number, before: number): Stop | null {
    const known = this.stops[k];
    if (known?.moment === moment && known.state === state && known.before === before) return known;
    const variant = variantOn(moment, before, state);
    if (variant === null) return null;
    return {
      moment,
      state,
      before,
      hand: moment.layer.state(state),
      variant,
      groups: soleVariant(moment, variant),
    };
  }
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
