/** Fingerings that the planner prefers to what is accepted, or that come too near to it. */
import {
  differenceOf,
  type Example,
  type Rival,
  type TermCosts,
} from '../../src/core/fingering/learning/example';
import { termTotals } from '../../src/core/fingering/left/explain/explain';
import type { LeftCandidate } from '../../src/core/fingering/left/lattice/candidates';
import { type LeftPlan, LeftPlanner } from '../../src/core/fingering/left/lattice/planLeft';
import type { HandState } from '../../src/core/fingering/left/rules/handState';
import { LEFT_SCHOOLS } from '../../src/core/fingering/left/rules/schools';
import type { LeftTermId } from '../../src/core/fingering/left/rules/terms';
import { weightsFrom } from '../../src/core/fingering/left/rules/weights';
import type { Ink } from '../../src/core/fingering/problem/ink';
import { agrees, type Lesson, missesOf, type Wanted } from './lessons';

export type Weights = Readonly<Record<LeftTermId, number>>;

/** A rival should cost this much more, and so much more for each mark that it misses; in tenths of a point. */
const MARGIN = 4;
const MARGIN_FOR_A_MISS = 2;
const MOST_MARGIN = 30;
const marginOf = (misses: number) => Math.min(MOST_MARGIN, MARGIN + MARGIN_FOR_A_MISS * misses);

const NOTHING_INKED: Ink = new Map();

/** At most so many rivals from one look at a lesson. */
const MOST_RIVALS = 8;

export const plannerFor = ({ problem, school, hand }: Lesson, weights: Weights): LeftPlanner =>
  new LeftPlanner({ ...problem, weights: weightsFrom(weights, LEFT_SCHOOLS[school].factors, hand) });

/** What stands in the way of a lesson at these weights; null where no accepted fingering can be played. @param start the weights in which costs are told */
export function exampleOf(lesson: Lesson, weights: Weights, start: Weights): Example | null {
  const planner = plannerFor(lesson, weights);
  const accepted = cheapestAccepted(planner, lesson);
  if (!accepted) return null;
  const told = (states: readonly HandState[]) => toldIn(start, weights, termTotals(planner.problem, states));
  const base = told(accepted.states);
  const rivals: Rival[] = [];
  const add = (states: readonly HandState[]) => {
    const { placements } = planner.planOf(states, []);
    const misses = missesOf(lesson, placements) + lesson.brokenBy(placements);
    if (misses > 0) rivals.push({ above: differenceOf(told(states), base), margin: marginOf(misses) });
  };
  const best = planner.plan(NOTHING_INKED);
  add(best.states);
  nearRivals(planner, lesson, accepted.cost - best.cost)
    .slice(0, MOST_RIVALS)
    .forEach(({ states }) => add(states()));
  return { id: lesson.id, family: lesson.family, rivals };
}

/** Other choices for single notes that cost less than the accepted fingering and the largest margin. */
function nearRivals(planner: LeftPlanner, lesson: Lesson, above: number): readonly LeftCandidate[] {
  const isWrong = (strike: number, { place }: LeftCandidate) =>
    lesson.accepted.every((variant) => !agrees(variant[strike]!, place));
  return lesson.problem.strikes
    .filter(({ index }) => lesson.accepted.some((variant) => variant[index]!.string !== null))
    .flatMap(({ index }) =>
      planner
        .candidates(NOTHING_INKED, index)
        .filter((one) => one.extraCost < above + MARGIN + MARGIN_FOR_A_MISS && isWrong(index, one)),
    )
    .sort((a, b) => a.extraCost - b.extraCost);
}

/** The cheapest whole plan around an accepted fingering. */
export function cheapestAccepted(planner: LeftPlanner, { accepted, problem }: Lesson): LeftPlan | null {
  const plans = accepted.flatMap((variant) => {
    const inkWith = (fixed: ReadonlySet<number>): Ink =>
      new Map(
        problem.strikes.flatMap(({ uids, index }) => {
          const { string, fret, fingers } = variant[index]!;
          if (string === null) return [];
          const only = fingers?.length === 1 || fixed.has(index) ? (fingers?.[0] ?? null) : null;
          return [[uids[0]!, { string, finger: fret === 0 ? 0 : only, pluck: null }] as const];
        }),
      );
    const free = planner.plan(inkWith(new Set()));
    const wrong = variant.flatMap((one: Wanted, k) => (agrees(one, free.placements[k]!) ? [] : [k]));
    const plan = wrong.length === 0 ? free : planner.plan(inkWith(new Set(wrong)));
    return plan.conflicts.length === 0 ? [plan] : [];
  });
  return plans.length === 0 ? null : plans.reduce((a, b) => (b.cost < a.cost ? b : a));
}

/** Costs at some weights, told as they would be at others. */
const toldIn = (start: Weights, weights: Weights, costs: ReadonlyMap<LeftTermId, number>): TermCosts =>
  new Map(
    [...costs].map(([term, cost]) => [term, weights[term] > 0 ? (cost * start[term]) / weights[term] : cost]),
  );
