/** Both hands of a lesson at some weights. */
import { HandsPlanner } from '../../src/core/fingering/dual/handsPlanner';
import { LeftPlanner } from '../../src/core/fingering/left/lattice/planLeft';
import type { Placement } from '../../src/core/fingering/left/rules/place';
import type { HandState } from '../../src/core/fingering/left/rules/handState';
import { LEFT_SCHOOLS } from '../../src/core/fingering/left/rules/schools';
import { weightsFrom } from '../../src/core/fingering/left/rules/weights';
import type { FingeringProblem } from '../../src/core/fingering/problem/problem';
import { rightStep, type RightStep } from '../../src/core/fingering/right/explain/walk';
import { RightPlanner } from '../../src/core/fingering/right/lattice/planRight';
import type { Played } from '../../src/core/fingering/right/rules/memory';
import { type RightSetting, rightSettingOf } from '../../src/core/fingering/right/rules/setting';
import { groupCost, strokeTransitionCost } from '../../src/core/fingering/right/rules/strokeCost';
import {
  placedOn,
  type PlacedStrike,
  type StrokeGroup,
  strokeGroup,
} from '../../src/core/fingering/right/rules/strokes';
import type { RightTermId } from '../../src/core/fingering/right/rules/terms';
import type { Ink } from '../../src/core/fingering/problem/ink';
import type { Pluck } from '../../src/core/score/model';
import type { Lesson } from './lessons';
import type { Weights } from './weights';

export const NOTHING_INKED: Ink = new Map();

export interface LessonHands {
  readonly problem: FingeringProblem;
  readonly setting: RightSetting;
  readonly left: LeftPlanner;
  readonly right: RightPlanner;
}

export function handsFor(
  { problem: bare, score, school, hand, style }: Lesson,
  weights: Weights,
): LessonHands {
  const problem = { ...bare, weights: weightsFrom(weights.left, LEFT_SCHOOLS[school].factors, hand) };
  const setting = rightSettingOf(score, problem, style, { base: weights.right });
  return { problem, setting, left: new LeftPlanner(problem), right: new RightPlanner(problem, setting) };
}

/** What both hands do: states and strokes by moment, and by strike what comes of it. */
export interface Fingering {
  readonly states: readonly HandState[];
  readonly placements: readonly (Placement | null)[];
  readonly plucks: readonly (Pluck | null)[];
  readonly steps: readonly RightStep[];
}

/** The best plan of both hands together. */
export function bestOfBoth({ problem, setting, left }: LessonHands): Fingering {
  const { states, played } = new HandsPlanner(problem, left, setting).plan(NOTHING_INKED);
  const placed = placedOn(problem, states);
  const groups = placed.map((strikes, k) => strokeGroup(problem, setting, k, strikes));
  const steps = strokeSteps(problem, placed, groups, played);
  return { ...left.planOf(states, []), plucks: plucksOf(problem, steps), steps };
}

/** The strokes of some groups, one after the other. */
export function strokeSteps(
  problem: FingeringProblem,
  placed: readonly (readonly PlacedStrike[])[],
  groups: readonly StrokeGroup[],
  played: readonly Played[],
): readonly RightStep[] {
  const steps: RightStep[] = [];
  groups.forEach((group, k) => {
    const now = { group, placed: placed[k]!, played: played[k]! };
    steps.push(rightStep(problem, k, steps.at(-1) ?? null, now));
  });
  return steps;
}

/** Letters by strike. */
export function plucksOf(
  { strikes }: FingeringProblem,
  steps: readonly RightStep[],
): readonly (Pluck | null)[] {
  const plucks: (Pluck | null)[] = strikes.map(() => null);
  for (const { group, sharing } of steps)
    group.strokes.forEach(({ strike }, slot) => (plucks[strike] = sharing.letters[slot]!));
  return plucks;
}

/** Sums each term of the right hand, as often as it is played; ways back are left out. */
export function strokeTotals(
  { passes: { plays, steps: ways }, hand }: FingeringProblem,
  steps: readonly RightStep[],
): ReadonlyMap<RightTermId, number> {
  const totals = new Map<RightTermId, number>();
  const counting = (times: number) => (term: RightTermId, cost: number) =>
    void totals.set(term, (totals.get(term) ?? 0) + times * cost);
  steps.forEach(({ group, sharing, before }, k) => {
    groupCost(group, sharing, counting(plays[k]!));
    strokeTransitionCost(before, group, sharing, hand, counting(k === 0 ? plays[0]! : ways[k]!));
  });
  return totals;
}
