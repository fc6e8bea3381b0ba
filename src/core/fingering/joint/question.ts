/** One question to both hands: the piece under some ink, as far as it does not depend on what is found. */
import type { Ink } from '../ink';
import type { LeftSolved } from '../left/planLeft';
import type { Mask } from '../lattice';
import type { FingeringProblem } from '../problem';
import { inkedPluck, maskOf, withoutConflict } from '../right/planRight';
import type { RightSetting } from '../right/setting';
import { strokeChain, type StrokeLayer } from '../right/strokeChain';
import type { StrokeStore } from '../right/strokeStore';
import { type Adapting, type CoreMoment, coreOf, type Near, nearStates } from './core';
import { waysBetween } from './jointLayer';

/**
 * How much dearer than the best of the left hand a state may be to take part in the bargain about strings, and how
 * much dearer strings may be to be bounded by what the right hand really pays for them. From memory; they change how
 * long it takes, not what comes out.
 */
export const NODES_ABOVE = 40;
const FAR_ABOVE = 200;
export const STRINGS_ABOVE = 600;
/** Everything about the present question that does not depend on what is found. */
export interface Question {
  readonly left: LeftSolved;
  readonly adapting: Adapting;
  readonly core: readonly CoreMoment[];
  readonly strokes: readonly StrokeLayer[];
  readonly strokeMasks: readonly Mask[];
  readonly near: readonly Near[];
  /** Prices between the nodes of a moment and those before, by moment. */
  readonly lefts: readonly Int32Array[];
  /** First and last moment at which the question is another one than that before; none when the first is the later. */
  readonly changed: readonly [number, number];
}

/** @param before an earlier question about the same piece: what is the same stays the same objects */
export function askBoth(
  problem: FingeringProblem,
  setting: RightSetting,
  store: StrokeStore,
  left: LeftSolved,
  ink: Ink,
  before: Question | null,
): Question {
  const { layers, solution } = left;
  const adapting = adaptingTo(problem, ink);
  const struck = problem.moments.map((moment) => moment.struck);
  const near = nearStates(
    layers,
    solution,
    struck,
    NODES_ABOVE,
    STRINGS_ABOVE,
    FAR_ABOVE,
    before?.near ?? [],
  );
  const core = coreOf(
    problem,
    setting,
    layers,
    near.map(({ nodes }) => nodes),
    near.map(({ strings }) => strings),
    near.map(({ far }) => far),
    adapting,
    before?.core,
  );
  const strokes = strokeChain(
    problem,
    store,
    core.map(({ variants }) => variants),
    before?.strokes,
  );
  const lefts = core.map((moment, k) => {
    if (k === 0) return new Int32Array(0);
    const same = before && moment === before.core[k] && core[k - 1] === before.core[k - 1];
    return same ? before.lefts[k]! : waysBetween(core[k - 1]!, moment);
  });
  const strokeMasks = strokes.map((layer, k) =>
    k === 0 || core[k - 1]!.inkKey === '' ? null : maskOf(layer, core[k - 1]!.variants, adapting.inked),
  );
  const differs = (one: Near, k: number) => one !== before?.near[k];
  const changed = [near.findIndex(differs), near.findLastIndex(differs)] as const;
  return {
    left,
    adapting,
    core,
    strokes,
    strokeMasks,
    near,
    lefts,
    changed: changed[0] < 0 ? [0, -1] : changed,
  };
}

function adaptingTo(problem: FingeringProblem, ink: Ink): Adapting {
  const inked = (strike: number) => inkedPluck(problem, ink, strike);
  if (![...ink.values()].some(({ pluck }) => pluck !== null))
    return { inked, adapt: (group) => group, keyOf: () => '' };
  const keys = problem.moments.map(({ struck }) => {
    const letters = struck.map(inked);
    return letters.every((letter) => letter === null) ? '' : letters.join();
  });
  return { inked, adapt: (group) => withoutConflict(group, inked), keyOf: (k) => keys[k]! };
}
