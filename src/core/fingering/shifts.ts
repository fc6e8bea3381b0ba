/** The changes of position in a plan. Source of the risk limits: handbook, "Shifts". */
import type { HandState } from './left/handState';
import { positionOf } from './left/handState';
import { measureShift } from './left/shift';
import type { PlannedShift, ShiftRisk } from './plan';
import type { FingeringProblem } from './problem';

const FREE_SHARE = 0.6;

export function riskOf(neededMs: number, windowMs: number): ShiftRisk {
  if (neededMs <= FREE_SHARE * windowMs) return 'free';
  return neededMs <= windowMs ? 'tight' : 'tooFast';
}

/** In order of time. A move that changes no Roman number (an extension) is not in the list. */
export function shiftsOf(problem: FingeringProblem, states: readonly HandState[]): readonly PlannedShift[] {
  const shifts: PlannedShift[] = [];
  let position: number | null = null;
  states.forEach((state, k) => {
    const before = states[k - 1];
    const toPosition = positionOf(state.placements);
    const moment = problem.moments[k]!;
    const shift = before ? measureShift(problem, problem.moments[k - 1]!, before, moment, state) : null;
    if (shift && position !== null && toPosition !== null && position !== toPosition) {
      const first = moment.struck.find((strike) => state.strikes.includes(strike)) ?? moment.struck[0]!;
      shifts.push({
        fromPosition: position,
        toPosition,
        distanceMm: Math.round(shift.distanceMm),
        windowMs: Math.round(shift.windowMs),
        neededMs: Math.round(shift.neededMs),
        carrier: shift.carrier,
        risk: riskOf(shift.neededMs, shift.windowMs),
        toUid: problem.strikes[first]!.uids[0]!,
      });
    }
    position = toPosition ?? position;
  });
  return shifts;
}
