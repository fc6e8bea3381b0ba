/** The changes of position in a plan. Source of the risk limits: handbook, "Shifts". */
import { type HandState, positionOf } from '../left/rules/handState';
import { anchorHigh, anchorLow, NO_ANCHOR } from '../left/rules/anchor';
import { isShift } from '../left/rules/shift';
import { measureShift } from '../left/rules/prices';
import { FREE_SHARE } from '../rules/costTerm';
import type { HandStay, PlannedShift, ShiftRisk } from './plan';
import type { FingeringProblem, Moment } from '../problem/problem';

export function riskOf(neededMs: number, windowMs: number): ShiftRisk {
  if (neededMs <= FREE_SHARE * windowMs) return 'free';
  return neededMs <= windowMs ? 'tight' : 'tooFast';
}

/** One way of the hand: to the next moment, back to where a passage begins again, or on to another ending. */
interface Way {
  readonly from: Moment;
  readonly to: Moment;
  readonly hands: readonly [HandState, HandState];
  /** Roman number of the position that the hand comes from; null before it has stopped anything. */
  readonly fromPosition: number | null;
  readonly jump: PlannedShift['jump'];
}

/**
 * In order of time; those back to a repeat or on to another ending are at the bar line that they come from. A move that changes
 * no Roman number (an extension) is not in the list.
 */
export function shiftsOf(problem: FingeringProblem, states: readonly HandState[]): readonly PlannedShift[] {
  const { moments, passes } = problem;
  // By moment: the last position at or before it.
  const positions: (number | null)[] = [];
  states.forEach(({ placements }, k) => positions.push(positionOf(placements) ?? positions[k - 1] ?? null));
  // Nobody goes on from one ending to the next.
  const isGone = (to: number) => passes.steps[to]! > 0 || !passes.returns.some((one) => one.to === to);
  const wayFrom = (from: number, to: number, next: Moment, jump: Way['jump']): Way => ({
    from: moments[from]!,
    to: next,
    hands: [states[from]!, states[to]!],
    fromPosition: positions[from]!,
    jump,
  });
  const onward = moments
    .filter(({ index }) => index > 0 && isGone(index))
    .map((to) => wayFrom(to.index - 1, to.index, to, null));
  const jumps = passes.returns.map(({ from, to, tick }) =>
    wayFrom(from, to, { ...moments[to]!, tick, held: [] }, to <= from ? 'back' : 'on'),
  );
  return [...onward, ...jumps]
    .map((way) => shiftOn(problem, way))
    .filter((shift) => shift !== null)
    .sort((a, b) => a.arrivesTicks - b.arrivesTicks);
}

function shiftOn(
  problem: FingeringProblem,
  { from, to, hands, fromPosition, jump }: Way,
): PlannedShift | null {
  const [before, after] = hands;
  const shift = measureShift(problem, from, before, to, after);
  const toPosition = positionOf(after.placements);
  if (!shift || fromPosition === null || toPosition === null || fromPosition === toPosition) return null;
  const first = to.struck.find((strike) => after.strikes.includes(strike)) ?? to.struck[0]!;
  return {
    fromPosition,
    toPosition,
    distanceMm: Math.round(shift.distanceMm),
    windowMs: Math.round(shift.windowMs),
    neededMs: Math.round(shift.neededMs),
    carrier: shift.carrier,
    risk: riskOf(shift.neededMs, shift.windowMs),
    fromUid: problem.strikes[from.struck.at(-1)!]!.uids[0]!,
    toUid: problem.strikes[first]!.uids[0]!,
    leavesTicks: leavingTicks(problem, to, shift.windowMs),
    arrivesTicks: to.tick,
    worksUpToBpm: Math.floor((tempoAt(problem, to) * shift.windowMs) / Math.max(1, shift.neededMs)),
    jump,
  };
}

/**
 * Where the hand stands. It stays where it is until it shifts: a finger that reaches out is no change of position.
 */
export function handStays(problem: FingeringProblem, states: readonly HandState[]): readonly HandStay[] {
  const stays: HandStay[] = [];
  let last = NO_ANCHOR;
  states.forEach(({ range, anchor, placements }, k) => {
    if (!range) return;
    const moved = last === NO_ANCHOR || isShift(last, anchor);
    last = anchor;
    // A hand that spreads stands where its lowest finger says.
    const position = anchorLow(anchor) === anchorHigh(anchor) ? anchorLow(anchor) : positionOf(placements)!;
    if ((moved || anchorLow(anchor) === anchorHigh(anchor)) && stays.at(-1)?.position !== position)
      stays.push({ position, fromTicks: problem.moments[k]!.tick });
  });
  return stays;
}

/** Quarters per minute just before a moment. */
function tempoAt({ spans, ticksPerQuarter }: FingeringProblem, { tick }: Moment): number {
  const before = Math.max(0, tick - 1);
  return 60_000 / (spans.spanMs(before, before + 1) * ticksPerQuarter);
}

/** The time in ticks that lies so many ms before a moment; not always a whole number. */
function leavingTicks(problem: FingeringProblem, moment: Moment, windowMs: number): number {
  const pulseMs = 60_000 / (tempoAt(problem, moment) * problem.ticksPerQuarter);
  return Math.max(0, moment.tick - windowMs / pulseMs);
}
