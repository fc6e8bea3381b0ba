/** One question to both hands: the piece under some ink, as far as it does not depend on what is found. */
import { carried } from '../solver/carried';
import type { Ink } from '../problem/ink';
import type { LeftSolved } from '../left/lattice/planLeft';
import type { Mask } from '../solver/lattice';
import type { FingeringProblem } from '../problem/problem';
import { inkedLetters, type InkedLetters, maskOf } from '../right/lattice/inkedLetters';
import type { RightSetting } from '../right/rules/setting';
import { strokeChain, type StrokeLayer } from '../right/lattice/strokeChain';
import type { StrokeStore } from '../right/lattice/strokeStore';
import { type CoreMoment, coreOf, type HowNear, type Near, nearStates } from './core';
import { waysBetween } from './jointLayer';

/**
 * How much dearer than the best of the left hand a state may be to take part in the ascent, and how
 * much dearer strings may be to be bounded by what the right hand really pays for them. From memory; they change how
 * long it takes, not what comes out.
 */
export const ABOVE: HowNear = { nodes: 40, strings: 600, far: 200 };

/** Everything about the present question that does not depend on what is found. */
export interface Question {
  readonly left: LeftSolved;
  readonly inked: InkedLetters;
  readonly core: readonly CoreMoment[];
  readonly strokes: readonly StrokeLayer[];
  readonly strokeMasks: readonly Mask[];
  readonly near: readonly Near[];
  /** Prices between the nodes of a moment and those before, by moment. */
  readonly lefts: readonly Int32Array[];
  /** First and last moment at which the question is another one than that before; none when the first is the later. */
  readonly changed: readonly [number, number];
}

/** The piece, and what is known of the right hand's layers. */
export interface Asking {
  readonly problem: FingeringProblem;
  readonly setting: RightSetting;
  readonly store: StrokeStore;
}

/** @param before an earlier question about the same piece: what is the same stays the same objects */
export function askBoth(
  { problem, setting, store }: Asking,
  left: LeftSolved,
  ink: Ink,
  before: Question | null,
): Question {
  const { layers } = left;
  const inked = inkedLetters(problem, ink);
  const struck = problem.moments.map((moment) => moment.struck);
  const near = nearStates(left, struck, ABOVE, before && { ...before.left, near: before.near });
  const { moments: core } = coreOf(
    problem,
    setting,
    layers,
    { asked: (k) => ({ states: near[k]!.nodes, others: near[k]!.strings, far: near[k]!.far }), inked },
    before && {
      inked: before.inked,
      moments: before.core,
      isSame: (k) => near[k] === before.near[k] && layers[k] === before.left.layers[k],
    },
  );
  const strokes = strokeChain(
    problem,
    store,
    (k) => core[k]!.variants,
    before?.strokes,
    (k) => core[k] === before!.core[k],
  );
  const lefts = carried(
    core.length,
    before?.lefts ?? null,
    (k) => core[k] === before!.core[k] && core[k - 1] === before!.core[k - 1],
    (k) => (k === 0 ? new Int32Array(0) : waysBetween(core[k - 1]!, core[k]!)),
  );
  const strokeMasks = strokes.map((layer, k) =>
    k === 0 || inked.keyOf(k - 1) === '' ? null : maskOf(layer, core[k - 1]!.variants, inked.of),
  );
  const differs = (one: CoreMoment, k: number) => one !== before?.core[k];
  const changed = [core.findIndex(differs), core.findLastIndex(differs)] as const;
  return {
    left,
    inked,
    core,
    strokes,
    strokeMasks,
    near,
    lefts,
    changed: changed[0] < 0 ? [0, -1] : changed,
  };
}
