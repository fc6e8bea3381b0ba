/** The changes of position in a plan. Source of the risk limits: handbook, "Shifts". */
import { type HandState, positionOf } from '../left/rules/handState';
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
 * Where the hand stands. It stays where it is until it shifts, or stands more than a fret from where it was, or its
 * fingers leave no doubt that it is elsewhere: an extension or a squeeze is no change of position.
 */
export function handStays(problem: FingeringProblem, states: readonly HandState[]): readonly HandStay[] {
  const stays: HandStay[] = [];
  states.forEach(({ range, anchor }, k) => {
    if (range && stays.at(-1)?.position !== anchor)
      stays.push({ position: anchor, fromTicks: problem.moments[k]!.tick });
  });
  return stays;
}

/** Finger 1 lies in it, or two fingers lie a fret apart for each finger between them. */
function isPlain({ range, slotOfFinger }: HandState): boolean {
  const down = [1, 2, 3, 4].filter((finger) => slotOfFinger[finger]! >= 0);
  return range !== null && range.low === range.high && (down.length > 1 || down[0] === 1);
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
