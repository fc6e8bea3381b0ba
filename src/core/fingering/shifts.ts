/** The changes of position in a plan. Source of the risk limits: handbook, "Shifts". */
import type { HandState } from './left/handState';
import { positionOf } from './left/handState';
import { measureShift } from './left/shift';
import { SQUEEZE_FRETS } from './left/terms';
import type { HandStay, PlannedShift, ShiftRisk } from './plan';
import type { FingeringProblem, Moment } from './problem';

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
      const last = problem.moments[k - 1]!.struck.at(-1)!;
      shifts.push({
        fromPosition: position,
        toPosition,
        distanceMm: Math.round(shift.distanceMm),
        windowMs: Math.round(shift.windowMs),
        neededMs: Math.round(shift.neededMs),
        carrier: shift.carrier,
        risk: riskOf(shift.neededMs, shift.windowMs),
        fromUid: problem.strikes[last]!.uids[0]!,
        toUid: problem.strikes[first]!.uids[0]!,
        leavesTicks: leavingTicks(problem, moment, shift.windowMs),
        arrivesTicks: moment.tick,
        worksUpToBpm: Math.floor((tempoAt(problem, moment) * shift.windowMs) / Math.max(1, shift.neededMs)),
      });
    }
    position = toPosition ?? position;
  });
  return shifts;
}

/**
 * Where the hand stands. It stays where it is until it shifts, or stands more than a fret from where it was: an
 * extension or a squeeze is no change of position.
 */
export function handStays(problem: FingeringProblem, states: readonly HandState[]): readonly HandStay[] {
  const stays: HandStay[] = [];
  states.forEach(({ range, placements }, k) => {
    const position = positionOf(placements);
    const last = stays.at(-1);
    if (!range || position === null) return;
    const near =
      last && last.position >= range.low - SQUEEZE_FRETS && last.position <= range.high + SQUEEZE_FRETS;
    if (near && !shiftInto(problem, states, k)) return;
    if (last?.position !== position) stays.push({ position, fromTicks: problem.moments[k]!.tick });
  });
  return stays;
}

const shiftInto = (problem: FingeringProblem, states: readonly HandState[], k: number): boolean =>
  k > 0 &&
  measureShift(problem, problem.moments[k - 1]!, states[k - 1]!, problem.moments[k]!, states[k]!) !== null;

/** Quarters per minute just before a moment. */
function tempoAt({ spans, ticksPerQuarter }: FingeringProblem, { tick }: Moment): number {
  const before = Math.max(0, tick - 1);
  return 60_000 / (spans.spanMs(before, before + 1) * ticksPerQuarter);
}

/** The tick that lies so many ms before a moment. */
function leavingTicks(problem: FingeringProblem, moment: Moment, windowMs: number): number {
  const pulseMs = 60_000 / (tempoAt(problem, moment) * problem.ticksPerQuarter);
  return Math.max(0, Math.round(moment.tick - windowMs / pulseMs));
}
