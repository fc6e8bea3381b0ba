/** Passages of the left hand planned by both hands, under weights that are still being fitted. */
import type { Ink } from '../../src/core/fingering/problem/ink';
import { type BothHands, JointPlanner } from '../../src/core/fingering/dual/planBoth';
import { LeftPlanner } from '../../src/core/fingering/left/lattice/planLeft';
import type { Placement } from '../../src/core/fingering/left/rules/place';
import { plainSetting, type RightSetting } from '../../src/core/fingering/right/rules/setting';
import { PLAIN_STYLE } from '../../src/core/fingering/right/rules/style';
import { type RightWeights, rightWeights } from '../../src/core/fingering/right/rules/weights';
import { type BaseWeights, weightsOfBase } from '../fit';
import { scoreOf, sumOfScores, type Totals } from '../measure';
import { type Passage, type Task, taskOf } from '../passage';

export interface BothWeights {
  readonly left: BaseWeights;
  readonly right: RightWeights;
}

export interface BothPlan extends BothHands {
  readonly placements: readonly (Placement | null)[];
}

export interface BothTask extends Task {
  readonly setting: RightSetting;
  readonly plan: (ink: Ink) => BothPlan;
}

export function bothTaskOf(passage: Passage, { left, right }: BothWeights): BothTask {
  const weightsOf = weightsOfBase(left);
  const task = taskOf(passage, (school) => weightsOf(school, passage));
  const { problem } = task;
  const plain = plainSetting(problem);
  const weights = rightWeights(PLAIN_STYLE.school, problem.hand, right);
  const setting = { ...plain, styles: plain.styles.map((manner) => ({ ...manner, weights })) };
  const hand = new LeftPlanner(problem);
  const planner = new JointPlanner(problem, hand, setting);
  return {
    ...task,
    setting,
    plan: (ink) => {
      const plan = planner.plan(ink);
      return { ...plan, placements: hand.planOf(plan.states, plan.conflicts).placements };
    },
  };
}

/** How near the left hand comes to what common practice accepts when both hands are planned. */
export const measuredBoth = (passages: readonly Passage[], weights: BothWeights): Totals =>
  sumOfScores(
    passages.map((passage) => {
      const task = bothTaskOf(passage, weights);
      return scoreOf(task, task.plan(new Map()).placements);
    }),
  );
