/** Why one choice is dearer than another, in a teacher's terms: from the difference of two best plans. */
import type { FingeringProblem } from '../../problem/problem';
import type { Role } from '../../problem/strike';
import { FINGER_PAIRS } from '../../../instrument/handProfile';
import { spanOfPair } from './reachUsed';
import { cutsCost, measureShift } from '../rules/prices';
import { momentTerms, sameAt } from './explain';
import { type HandState, positionOf } from '../rules/handState';
import { stringsUnder } from '../rules/stand';
import { LEFT_TERMS, type LeftTermId } from '../rules/terms';

/**
 * fingerHolds: in the best plan that finger holds another note there. shift: a change of position more, or a more
 * pressing one. cut: a note is let go earlier. stretch, barre, hop: what the words say. term: any other term.
 */
export type ChoiceReason =
  | {
      readonly code: 'fingerHolds';
      readonly finger: number;
      readonly uid: string;
      readonly role: Role;
      readonly midi: number;
      readonly untilTicks: number;
    }
  | {
      readonly code: 'shift';
      readonly distanceMm: number;
      readonly windowMs: number;
      readonly neededMs: number;
      readonly toPosition: number;
    }
  | {
      readonly code: 'cut';
      readonly uid: string;
      readonly role: Role;
      readonly midi: number;
      readonly quarters: number;
    }
  | {
      readonly code: 'stretch';
      readonly low: number;
      readonly high: number;
      readonly mm: number;
      readonly atEaseMm: number;
    }
  | { readonly code: 'barre'; readonly fret: number; readonly strings: number }
  | { readonly code: 'hop'; readonly finger: number }
  | { readonly code: 'term'; readonly term: LeftTermId; readonly difference: number };

/** Reasons that are worth saying, and from what difference on. In tenths of a point. */
const MOST_REASONS = 2;
const LEAST_DIFFERENCE = 3;

/** What a moment adds, term by term. */
function ledgerAt(
  problem: FingeringProblem,
  states: readonly HandState[],
  k: number,
): ReadonlyMap<LeftTermId, number> {
  const { own, way } = momentTerms(problem, k, states[k - 1] ?? null, states[k]!);
  const totals = new Map(own);
  for (const [term, cost] of way) totals.set(term, (totals.get(term) ?? 0) + cost);
  return totals;
}

/**
 * @param momentIndex where the choice is made
 * @param finger the finger of the choice that is explained
 */
export function reasonsAgainst(
  problem: FingeringProblem,
  best: readonly HandState[],
  other: readonly HandState[],
  momentIndex: number,
  finger: number,
): readonly ChoiceReason[] {
  const held = fingerHolds(problem, best, momentIndex, finger);
  const differences = new Map<string, { amount: number; worst: number; worstBy: number; term: LeftTermId }>();
  other.forEach((_state, k) => {
    if (sameAt(best, other, k)) return;
    const [totals, bestTotals] = [ledgerAt(problem, other, k), ledgerAt(problem, best, k)];
    const terms = new Set([...totals.keys(), ...bestTotals.keys()]);
    for (const term of terms) {
      const more = (totals.get(term) ?? 0) - (bestTotals.get(term) ?? 0);
      if (more === 0) continue;
      const group = LEFT_TERMS[term].group ?? term;
      const known = differences.get(group) ?? { amount: 0, worst: k, worstBy: -Infinity, term };
      known.amount += more;
      if (more > known.worstBy) Object.assign(known, { worst: k, worstBy: more, term });
      differences.set(group, known);
    }
  });
  const dearest = [...differences]
    .filter(([, { amount }]) => amount >= LEAST_DIFFERENCE)
    .sort((x, y) => y[1].amount - x[1].amount);
  const words = dearest.map(([group, { amount, worst, term }]) =>
    reasonAt(problem, other, best, worst, { group, term, amount }),
  );
  return [...(held ? [held] : []), ...words].slice(0, MOST_REASONS);
}

/** Whether the finger holds another note over from before in that moment of the plan. */
export const holdsOther = (
  problem: FingeringProblem,
  states: readonly HandState[],
  momentIndex: number,
  finger: number,
): boolean => fingerHolds(problem, states, momentIndex, finger) !== null;

function fingerHolds(
  problem: FingeringProblem,
  best: readonly HandState[],
  momentIndex: number,
  finger: number,
): ChoiceReason | null {
  const state = best[momentIndex]!;
  const { held } = problem.moments[momentIndex]!;
  const slot = state.strikes.findIndex(
    (strike, k) => held.includes(strike) && state.placements[k]!.finger === finger && finger > 0,
  );
  if (slot < 0) return null;
  const strike = problem.strikes[state.strikes[slot]!]!;
  const { uids, role, midi, endTicks } = strike;
  return { code: 'fingerHolds', finger, uid: uids[0]!, role, midi, untilTicks: endTicks };
}

/** What makes the other plan dearer: a group of terms, the one that does so most, and by how much. */
interface Difference {
  readonly group: string;
  readonly term: LeftTermId;
  readonly amount: number;
}

function reasonAt(
  problem: FingeringProblem,
  states: readonly HandState[],
  best: readonly HandState[],
  k: number,
  { group, term, amount }: Difference,
): ChoiceReason {
  const generic = { code: 'term', term, difference: amount } as const;
  const state = states[k]!;
  switch (group) {
    case 'shift':
      return k > 0 ? shiftAt(problem, states, k, generic) : generic;
    case 'cut':
      return cutAt(problem, states, best, k) ?? generic;
    case 'stretch':
      return widestAt(problem, state) ?? generic;
    case 'barre': {
      const barre = state.barre ?? state.smallBarres[0] ?? null;
      return barre ? { code: 'barre', fret: barre.fret, strings: stringsUnder(barre) } : generic;
    }
    case 'hop': {
      const before = states[k - 1];
      const finger = before ? [1, 2, 3, 4].find((f) => hopped(before, state, f)) : undefined;
      return finger === undefined ? generic : { code: 'hop', finger };
    }
    default:
      return generic;
  }
}

function shiftAt(
  problem: FingeringProblem,
  states: readonly HandState[],
  k: number,
  generic: Extract<ChoiceReason, { readonly code: 'term' }>,
): ChoiceReason {
  const [moment, next] = [problem.moments[k - 1]!, problem.moments[k]!];
  const shift = measureShift(problem, moment, states[k - 1]!, next, states[k]!);
  if (!shift) return generic;
  const { distanceMm, windowMs, neededMs } = shift;
  // A hand whose fingers are squeezed over the nut opens again; along the neck it stays.
  if (Math.round(distanceMm) === 0) return { ...generic, term: 'squeeze' };
  return {
    code: 'shift',
    distanceMm,
    windowMs,
    neededMs,
    toPosition: positionOf(states[k]!.placements) ?? 1,
  };
}

/** The pair of fingers that opens furthest beyond ease. */
function widestAt(problem: FingeringProblem, state: HandState): ChoiceReason | null {
  const widest = FINGER_PAIRS.map((pair) => spanOfPair(problem, state, pair))
    .filter((span) => span !== null)
    .sort((x, y) => y.mm - y.atEaseMm - (x.mm - x.atEaseMm))[0];
  return widest && widest.mm > widest.atEaseMm ? { code: 'stretch', ...widest } : null;
}

function hopped(before: HandState, state: HandState, finger: number): boolean {
  const [a, b] = [before.slotOfFinger[finger]!, state.slotOfFinger[finger]!];
  return a >= 0 && b >= 0 && before.placements[a]!.string !== state.placements[b]!.string;
}

/** The note that loses most there, and did not in the best plan. */
function cutAt(
  problem: FingeringProblem,
  states: readonly HandState[],
  best: readonly HandState[],
  k: number,
): ChoiceReason | null {
  const moment = problem.moments[k]!;
  const before = states[k - 1];
  if (!before || cutsCost(problem, before, moment, states[k]!) === 0) return null;
  const lost = before.strikes
    .map((index) => problem.strikes[index]!)
    .filter((strike) => strike.endTicks > moment.tick && !states[k]!.strikes.includes(strike.index))
    .sort((x, y) => y.writtenEndTicks - x.writtenEndTicks);
  const strike = lost.find(({ index }) => best[k]!.strikes.includes(index)) ?? lost[0];
  if (!strike) return null;
  const quarters =
    (Math.max(strike.writtenEndTicks, strike.endTicks) - moment.tick) / problem.ticksPerQuarter;
  return { code: 'cut', uid: strike.uids[0]!, role: strike.role, midi: strike.midi, quarters };
}
