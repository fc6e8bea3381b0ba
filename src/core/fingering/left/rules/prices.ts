/** What states and steps cost, one by one and term by term: the rules themselves, without tables. */
import type { FingeringProblem, Moment } from '../../problem/problem';
import type { Return } from '../../problem/passes';
import { NO_ANCHOR } from './anchor';
import type { Hand } from './hand';
import type { HandState } from './handState';
import { Bill, type Ledger } from './ledger';
import { columnsOf, recordHand } from './recordHand';
import type { HandSetting, OwnRule, StepRules, WayRule } from './rule';
import { ENTRY, heldRules, ownRules, stepRules } from './rules';
import { isShift, measuredShift, SHIFT, type ShiftMeasure } from './shift';
import { jumpTo, type HandStep, placedNotes, stepTo } from './step';

/** Effort in tenths of a point of holding this state at this moment and striking what begins there. */
export function stateCost(
  problem: FingeringProblem,
  moment: Moment,
  state: HandState,
  ledger?: Ledger,
): number {
  const bill = new Bill(problem, ledger);
  const rules = ownRules(placedNotes(problem, moment));
  chargeOwn(rules, recordHand(state, moment), bill);
  return bill.sum;
}

export function chargeOwn(rules: readonly OwnRule[], hand: Hand, bill: Bill): void {
  for (const { code, charge } of rules) charge(code(hand), bill);
}

/** Two states and the step between them. */
interface Way {
  readonly before: Hand;
  readonly after: Hand;
  readonly step: HandStep;
}

/** Effort in tenths of a point of going from one state to that at `next`. Call it only when `follows` holds. */
export function transitionCost(
  problem: FingeringProblem,
  from: HandState,
  next: Moment,
  to: HandState,
  ledger?: Ledger,
): number {
  const bill = new Bill(problem, ledger);
  const way = wayTo(problem, from, next, to);
  chargePlain(heldRules(way.step), way, bill);
  chargeStep(stepRules(way.step), way, bill);
  return bill.sum;
}

/** What is lost of held notes on the way: the part of `transitionCost` that says so. */
export function cutsCost(problem: FingeringProblem, from: HandState, next: Moment, to: HandState): number {
  const bill = new Bill(problem, undefined);
  const way = wayTo(problem, from, next, to);
  chargePlain(heldRules(way.step), way, bill);
  return bill.sum;
}

function wayTo(problem: FingeringProblem, from: HandState, next: Moment, to: HandState): Way {
  const moment = problem.moments[next.index - 1]!;
  const step = stepTo(problem, columnsOf(moment), next);
  return { before: recordHand(from, moment), after: recordHand(to, next), step };
}

/** What one return costs: the way of the hand and its fingers; nothing is held over a jump. */
export function returnCost(
  problem: FingeringProblem,
  { from, to, tick }: Return,
  a: HandState,
  b: HandState,
  ledger?: Ledger,
): number {
  const [last, first] = [problem.moments[from]!, { ...problem.moments[to]!, tick }];
  const bill = new Bill(problem, ledger);
  const step = jumpTo(problem, last, columnsOf(last), first);
  const rules = stepRules(step);
  // At the very beginning every play lays its barre anew: its own cost says so.
  const plain = to === 0 ? rules.plain.filter((rule) => !ENTRY.includes(rule)) : rules.plain;
  chargeStep({ ...rules, plain }, { before: recordHand(a, last), after: recordHand(b, first), step }, bill);
  return bill.sum;
}

/** What a state costs as the first one. */
export function entryCost(setting: HandSetting, state: HandState, ledger?: Ledger): number {
  const bill = new Bill(setting, ledger);
  chargeEntry(
    recordHand(state, { index: 0, tick: 0, timeMs: 0, struck: state.strikes, held: [], taken: [], laid: [] }),
    bill,
  );
  return bill.sum;
}

export function chargeEntry(hand: Hand, bill: Bill): void {
  for (const { to, charge } of ENTRY) charge(0, to.code(hand), 0, bill);
  SHIFT.charge(0, SHIFT.to.code(hand), 0, 0, bill);
}

const onClock = new WeakMap<FingeringProblem, FingeringProblem>();

/** The same piece by its metronome marks: what a teacher is told of. */
function inRealTime(problem: FingeringProblem): FingeringProblem {
  let real = onClock.get(problem);
  if (!real) onClock.set(problem, (real = { ...problem, reckoned: problem.spans }));
  return real;
}

/** The change of position between two states in real time, or null when the hand stays where it is. `next` may be a jump's. */
export function measureShift(
  problem: FingeringProblem,
  moment: Moment,
  from: HandState,
  next: Moment,
  to: HandState,
): ShiftMeasure | null {
  if (from.anchor === NO_ANCHOR || !to.range || !isShift(from.anchor, to.anchor)) return null;
  const columns = columnsOf(moment);
  const follows = problem.moments[next.index - 1] === moment && problem.moments[next.index] === next;
  const real = inRealTime(problem);
  const step = follows ? stepTo(real, columns, next) : jumpTo(real, moment, columns, next);
  return measuredShift(problem, recordHand(from, moment), recordHand(to, next), step);
}

function chargeStep({ plain, carried }: StepRules, way: Way, bill: Bill): void {
  const counts = chargePlain(plain, way, bill);
  const { from, to, carrierOf, charge } = carried;
  const { before, after, step } = way;
  charge(from.code(before), to.code(after), from.ms(before, step), carrierOf(counts), bill);
}

/** Gives what the rules count for what carries the hand. */
function chargePlain(rules: readonly WayRule[], { before, after, step }: Way, bill: Bill): number {
  let counts = 0;
  for (const { from, to, charge, bears } of rules) {
    const [a, b] = [from.code(before), to.code(after)];
    charge(a, b, from.ms(before, step), bill);
    counts += bears?.(a, b) ?? 0;
  }
  return counts;
}
