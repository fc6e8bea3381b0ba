/**
 * Fingerings that the planner prefers to what is accepted, or that come too near to it: of the left hand by itself, of
 * the right hand on accepted strings, and of both together.
 */
import {
  differenceOf,
  type Example,
  type Rival,
  type TermCosts,
} from '../../src/core/fingering/learning/example';
import { termTotals } from '../../src/core/fingering/left/explain/explain';
import type { LeftCandidate } from '../../src/core/fingering/left/lattice/candidates';
import type { LeftPlan, LeftPlanner } from '../../src/core/fingering/left/lattice/planLeft';
import type { RightStep } from '../../src/core/fingering/right/explain/walk';
import {
  liftedGroup,
  placedOn,
  type PlacedStrike,
  type StrokeGroup,
} from '../../src/core/fingering/right/rules/strokes';
import { type Ink, NO_INK } from '../../src/core/fingering/problem/ink';
import type { FingeringProblem } from '../../src/core/fingering/problem/problem';
import {
  bestOfBoth,
  type Fingering,
  handsFor,
  type LessonHands,
  NOTHING_INKED,
  plucksOf,
  strokeSteps,
  strokeTotals,
} from './hands';
import {
  agrees,
  agreesLetter,
  type Lesson,
  lettersMissed,
  missesOf,
  missesOfBoth,
  type Wanted,
} from './lessons';
import { settled } from './settled';
import { told, type Weights } from './weights';

/** A rival should cost this much more, and so much more for each mark that it misses; in tenths of a point. */
const MARGIN = 4;
const MARGIN_FOR_A_MISS = 2;
const MOST_MARGIN = 30;
const marginOf = (misses: number) => Math.min(MOST_MARGIN, MARGIN + MARGIN_FOR_A_MISS * misses);

/** At most so many rivals of one hand from one look at a lesson. */
const MOST_RIVALS = 8;

/** What one look at a lesson shows. */
export interface Look {
  /** What stands in the way of it; null where no accepted fingering can be played. */
  readonly example: Example | null;
  /** Marks of the best plan of both hands that are not accepted, of so many. */
  readonly missed: number;
  readonly marks: number;
}

/** @param start the weights in which costs are told */
export function lookAt(lesson: Lesson, weights: Weights, start: Weights): Look {
  const hands = handsFor(lesson, weights);
  const best = bestOfBoth(hands);
  const missed = missesOfBoth(lesson, best);
  const tell = tellerOf(hands.problem, { at: weights, as: start });
  const rivals = rivalsOf(lesson, hands, { best, missed }, tell);
  const example = rivals && { id: lesson.id, family: lesson.family, rivals };
  return { example, missed, marks: lesson.problem.strikes.length };
}

/** What hands pay, each term named and in the weights that costs are told in. */
interface Teller {
  readonly left: (states: Fingering['states']) => TermCosts;
  readonly right: (steps: Fingering['steps']) => TermCosts;
}

const tellerOf = (problem: FingeringProblem, rates: Parameters<typeof told>[2]): Teller => ({
  left: (states) => new Map(told('left', termTotals(problem, states), rates)),
  right: (steps) => new Map(told('right', strokeTotals(problem, steps), rates)),
});

/** Null where no accepted fingering can be played. */
function rivalsOf(
  lesson: Lesson,
  hands: LessonHands,
  { best, missed }: { readonly best: Fingering; readonly missed: number },
  tell: Teller,
): readonly Rival[] | null {
  const accepted = cheapestAccepted(hands.left, lesson);
  if (!accepted) return null;
  const rival = (costs: TermCosts, base: TermCosts, misses: number): Rival => ({
    above: differenceOf(costs, base),
    margin: marginOf(misses),
  });
  const base = tell.left(accepted.states);
  const ofLeft = leftRivals(hands.left, lesson, accepted).map(({ states, misses }) =>
    rival(tell.left(states), base, misses),
  );
  const placed = placedOn(hands.problem, accepted.states);
  const letters = cheapestLetters(hands, lesson, placed);
  if (!letters) return ofLeft;
  const own = tell.right(letters.steps);
  const ofRight = rightRivals(hands, placed, letters).map(({ steps, misses }) =>
    rival(tell.right(steps), own, misses),
  );
  const together = new Map([...tell.left(best.states), ...tell.right(best.steps)]);
  const ofBoth = missed > 0 ? [rival(together, new Map([...base, ...own]), missed)] : [];
  return [...ofLeft, ...ofRight, ...ofBoth];
}

interface LeftRival extends Pick<LeftPlan, 'states'> {
  readonly misses: number;
}

/** The best plan of the left hand by itself, and near ones with another choice for one note. */
function leftRivals(planner: LeftPlanner, lesson: Lesson, accepted: LeftPlan): readonly LeftRival[] {
  const best = planner.plan(NOTHING_INKED);
  const near = nearRivals(planner, lesson, accepted.cost - best.cost).slice(0, MOST_RIVALS);
  return [best.states, ...near.map(({ states }) => states())].flatMap((states) => {
    const { placements } = planner.planOf(states, []);
    const misses = missesOf(lesson, placements) + lesson.brokenBy(placements);
    return misses > 0 ? [{ states, misses }] : [];
  });
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
    const plan = settled(
      (fixed: ReadonlySet<number>) => planner.plan(inkWith(fixed)),
      ({ placements }) => variant.flatMap((one, k) => (agrees(one, placements[k]!) ? [] : [k])),
    );
    return plan.conflicts.length === 0 ? [plan] : [];
  });
  return plans.length === 0 ? null : plans.reduce((a, b) => (b.cost < a.cost ? b : a));
}

type Placed = readonly (readonly PlacedStrike[])[];

interface AcceptedLetters {
  readonly cost: number;
  readonly steps: readonly RightStep[];
  /** Accepted fingerings on the same strings. */
  readonly variants: readonly (readonly Wanted[])[];
}

/** The cheapest accepted letters on some strings; null where nobody says any, or they cannot be played. */
function cheapestLetters(
  { problem, right }: LessonHands,
  lesson: Lesson,
  placed: Placed,
): AcceptedLetters | null {
  const stringOf = new Map(placed.flat().map(({ strike, place }) => [strike, place.string]));
  const variants = lesson.accepted.filter((variant) =>
    variant.every(({ string }, k) => string === null || !stringOf.has(k) || string === stringOf.get(k)),
  );
  const isJudged = variants.some((variant) => variant.some(({ plucks }) => plucks !== null));
  if (!isJudged) return null;
  const plans = variants.flatMap((variant) => {
    const inkWith = (fixed: ReadonlySet<number>): Ink =>
      new Map(
        problem.strikes.flatMap(({ uids, index }) => {
          const { plucks } = variant[index]!;
          const isSaid = plucks !== null && (plucks.length === 1 || fixed.has(index));
          return isSaid ? [[uids[0]!, { ...NO_INK, pluck: plucks[0]! }] as const] : [];
        }),
      );
    const plan = settled(
      (fixed: ReadonlySet<number>) => right.plan(placed, inkWith(fixed)),
      ({ plucks }) => variant.flatMap((one, k) => (agreesLetter(one, plucks[k]!) ? [] : [k])),
    );
    return plan.conflicts.length === 0 ? [plan] : [];
  });
  if (plans.length === 0) return null;
  const { cost, groups, played } = plans.reduce((a, b) => (b.cost < a.cost ? b : a));
  return { cost, steps: strokeSteps(problem, placed, groups, played), variants };
}

/** The best letters on those strings, and near ones with another choice for one note. */
function rightRivals(
  { problem, right }: LessonHands,
  placed: Placed,
  { cost, variants }: AcceptedLetters,
): readonly { readonly steps: readonly RightStep[]; readonly misses: number }[] {
  const best = right.plan(placed, NOTHING_INKED);
  const near = placed
    .flat()
    .flatMap(({ strike }) =>
      right.candidates(placed, NOTHING_INKED, strike).map((one) => ({ ...one, strike })),
    )
    .filter(
      ({ strike, pluck, extraCost }) =>
        extraCost < cost - best.cost + MARGIN + MARGIN_FOR_A_MISS &&
        variants.every((variant) => !agreesLetter(variant[strike]!, pluck)),
    )
    .sort((a, b) => a.extraCost - b.extraCost)
    .slice(0, MOST_RIVALS)
    .map(({ strike, played }) => ({ groups: liftedAt(best.groups, strike), played: played() }));
  return [best, ...near].flatMap(({ groups, played }) => {
    const steps = strokeSteps(problem, placed, groups, played);
    const plucks = plucksOf(problem, steps);
    const misses = Math.min(...variants.map((variant) => lettersMissed(variant, plucks)));
    return misses > 0 ? [{ steps, misses }] : [];
  });
}

/** Where a letter is asked for no filter holds. */
const liftedAt = (groups: readonly StrokeGroup[], strike: number) =>
  groups.map((group) => (group.strokes.some((one) => one.strike === strike) ? liftedGroup(group) : group));
