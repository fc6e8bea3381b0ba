/** One question to both hands: the piece under some ink, as far as it does not depend on what is found. */
import { before, Column, here } from '../solver/column';
import type { Ink } from '../problem/ink';
import type { LeftSolved } from '../left/lattice/leftLattice';
import type { Extras, Mask } from '../solver/lattice';
import { type Jump, sharesOf } from '../solver/jumps';
import type { FingeringProblem } from '../problem/problem';
import { inkedLetters, type InkedLetters, maskOf } from '../right/lattice/inkedLetters';
import type { RightSetting } from '../right/rules/setting';
import { strokeChain, strokeColumn, type StrokeLayer } from '../right/lattice/strokeChain';
import { strokeJumps } from '../right/lattice/strokeJumps';
import type { StrokeStore } from '../right/lattice/strokeStore';
import {
  type Asked,
  CoreColumns,
  type CoreMoment,
  coreOf,
  type HowNear,
  nearColumn,
  nearStates,
} from './core';
import { waysBetween } from './jointLayer';

/**
 * How much dearer than the best of the left hand a state may be to take part in the ascent, and how
 * much dearer strings may be to be bounded by what the right hand really pays for them. From memory; they change how
 * long it takes, not what comes out.
 */
export const ABOVE: HowNear = { nodes: 24, strings: 600, far: 200 };

/** Everything about the present question that does not depend on what is found. */
export interface Question {
  readonly left: LeftSolved;
  readonly inked: InkedLetters;
  readonly core: readonly CoreMoment[];
  readonly strokes: readonly StrokeLayer[];
  readonly strokeMasks: readonly Mask[];
  /** Of the right hand; the left one's are with what is solved of it. */
  readonly strokeJumps: readonly Jump[];
  /** What both hands' states pay of their jumps, by moment; for the right hand by layer of strokes. */
  readonly shares: { readonly left: Extras; readonly right: Extras };
  readonly near: readonly Asked[];
  /** Prices between the nodes of a moment and those before, by moment. */
  readonly lefts: readonly Int32Array[];
  /** First and last moment at which the question is another one than that before; none when the first is the later. */
  readonly changed: readonly [number, number];
}

/** Rows of one piece from question to question: what is the same stays the same objects. */
export class QuestionColumns {
  readonly near = nearColumn();
  readonly core = new CoreColumns();
  readonly strokes = strokeColumn();
  readonly lefts = new Column<Int32Array>();
}

/** The piece, and what is known of it. */
export interface Asking {
  readonly problem: FingeringProblem;
  readonly setting: RightSetting;
  readonly store: StrokeStore;
  readonly columns: QuestionColumns;
}

/** @param last the question before about the same piece */
export function askBoth(
  { problem, setting, store, columns }: Asking,
  left: LeftSolved,
  ink: Ink,
  last: Question | null,
): Question {
  const { layers } = left;
  const inked = inkedLetters(problem, ink);
  const struck = problem.moments.map((moment) => moment.struck);
  const near = nearStates(left, struck, ABOVE, columns.near);
  const core = coreOf({ problem, setting, layers, inked }, near, columns.core);
  const strokes = strokeChain(
    problem,
    store,
    core.map(({ variants }) => variants),
    columns.strokes,
  );
  const lefts = columns.lefts.of(core.length, [before(core), here(core)], (_k, from, to) =>
    from ? waysBetween(from, to) : new Int32Array(0),
  );
  const strokeMasks = strokes.map((layer, k) =>
    k === 0 || inked.keyOf(k - 1) === '' ? null : maskOf(layer, core[k - 1]!.variants, inked.of),
  );
  const jumps = strokeJumps(problem, store, strokes);
  const differs = (one: CoreMoment, k: number) => one !== last?.core[k];
  const changed = [core.findIndex(differs), core.findLastIndex(differs)] as const;
  return {
    left,
    inked,
    core,
    strokes,
    strokeMasks,
    strokeJumps: jumps,
    shares: { left: left.chain.extras ?? layers.map(() => null), right: sharesOf(jumps, strokes.length) },
    near,
    lefts,
    changed: changed[0] < 0 ? [0, -1] : changed,
  };
}
