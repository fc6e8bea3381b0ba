/** What each finger holds over time: the raw material of the hand's script. */
import type { FingeringProblem } from '../../problem/problem';
import type { HandState } from '../rules/handState';

/** Where a finger lies: one string, or a barre over several. */
export interface Grip {
  readonly fret: number;
  readonly firstString: number;
  readonly lastString: number;
}

/** A finger that lies at one place without lifting. */
export interface Stint {
  readonly finger: number;
  readonly grip: Grip;
  /** First and last moment with it. */
  readonly from: number;
  readonly to: number;
  readonly startTicks: number;
  /** When nothing under it sounds any more. */
  readonly endTicks: number;
}

export function gripOf(state: HandState, finger: number): Grip | null {
  const under = state.placements.filter((place) => place.finger === finger);
  if (under.length === 0) return null;
  const strings = under.map((place) => place.string);
  return { fret: under[0]!.fret, firstString: Math.min(...strings), lastString: Math.max(...strings) };
}

export const isBarreGrip = (grip: Grip): boolean => grip.lastString > grip.firstString;

export const sameGrip = (a: Grip, b: Grip): boolean =>
  a.fret === b.fret && a.firstString === b.firstString && a.lastString === b.lastString;

export const gripCovers = (a: Grip, b: Grip): boolean =>
  a.fret === b.fret && a.firstString <= b.firstString && a.lastString >= b.lastString;

/** All stints of one finger in order of time. */
export function stintsOf(
  problem: FingeringProblem,
  states: readonly HandState[],
  finger: number,
): readonly Stint[] {
  const stints: Stint[] = [];
  states.forEach((state, k) => {
    const grip = gripOf(state, finger);
    if (!grip) return;
    const last = stints.at(-1);
    const endTicks = heldUntil(problem, states, k, finger);
    if (last && last.to === k - 1 && sameGrip(last.grip, grip) && last.endTicks >= problem.moments[k]!.tick) {
      stints[stints.length - 1] = { ...last, to: k, endTicks };
    } else {
      stints.push({ finger, grip, from: k, to: k, startTicks: problem.moments[k]!.tick, endTicks });
    }
  });
  return stints;
}

/** When the last note under the finger in this state ends, at the latest when the next state has it elsewhere. */
function heldUntil(
  problem: FingeringProblem,
  states: readonly HandState[],
  k: number,
  finger: number,
): number {
  const state = states[k]!;
  const ends = state.strikes.map((strike, slot) =>
    state.placements[slot]!.finger === finger ? problem.strikes[strike]!.endTicks : 0,
  );
  const end = Math.max(...ends);
  const next = problem.moments[k + 1];
  return next ? Math.min(end, next.tick) : end;
}
