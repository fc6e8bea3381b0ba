/** Other good plans of the whole piece: cheapest first, each different enough from the ones before. */
import type { HandState } from '../left/rules/handState';
import type { FingeringProblem } from '../problem/problem';

export interface PricedStates {
  readonly extraCost: number;
  readonly states: () => readonly HandState[];
}

/** So long must two takes differ in string or position. Source: common practice. */
const LEAST_DIFFERENCE_QUARTERS = 2;

/** Picks up to `count` from candidates, none of them close to the best plan or to one picked before. */
export function pickAlternatives<T extends PricedStates>(
  problem: FingeringProblem,
  best: readonly HandState[],
  candidates: readonly T[],
  count: number,
): readonly T[] {
  const picked: T[] = [];
  const known = [best];
  for (const candidate of [...candidates].sort((a, b) => a.extraCost - b.extraCost)) {
    if (picked.length === count) break;
    const states = candidate.states();
    if (known.some((one) => differenceQuarters(problem, one, states) < LEAST_DIFFERENCE_QUARTERS)) continue;
    known.push(states);
    picked.push(candidate);
  }
  return picked;
}

/** For how many quarters two plans have another string or position. */
export function differenceQuarters(
  problem: FingeringProblem,
  a: readonly HandState[],
  b: readonly HandState[],
): number {
  let ticks = 0;
  problem.moments.forEach((moment, k) => {
    const next =
      problem.moments[k + 1]?.tick ?? Math.max(...problem.strikes.map((strike) => strike.endTicks));
    if (differ(a[k]!, b[k]!, moment.struck)) ticks += next - moment.tick;
  });
  return ticks / problem.ticksPerQuarter;
}

function differ(a: HandState, b: HandState, struck: readonly number[]): boolean {
  const placeOf = (state: HandState, strike: number) => state.placements[state.strikes.indexOf(strike)];
  return struck.some((strike) => {
    const [one, other] = [placeOf(a, strike), placeOf(b, strike)];
    return one?.string !== other?.string || (a.anchor !== b.anchor && one?.finger !== other?.finger);
  });
}
