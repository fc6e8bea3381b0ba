/** What the right hand pays along a plan, moment by moment and term by term. */
import type { Pluck } from '../../score/model';
import type { FingeringProblem } from '../problem';
import type { HandState } from '../left/handState';
import {
  aged,
  fingersKey,
  memoryAfter,
  NO_MEMORY,
  type RightMemory,
  type Sharing,
  sharingFor,
  thumbKey,
} from './memory';
import type { RightSetting } from './setting';
import { groupCost, type RightLedger, strokeTransitionCost } from './strokeCost';
import { placedOn, type PlacedStrike, stepMs, type StrokeGroup, strokeGroup } from './strokes';

export interface RightStep {
  readonly group: StrokeGroup;
  readonly sharing: Sharing;
  /** What the hand remembers as it comes to the group. */
  readonly before: RightMemory;
  readonly fretBefore: number | null;
  /** The memory as the group before left it, and as this one leaves it. */
  readonly from: RightMemory;
  readonly after: RightMemory;
  readonly placed: readonly PlacedStrike[];
  /** Effort of the group by itself, and of coming to it. */
  readonly own: number;
  readonly way: number;
}

/** `kept`: what of a group is played; inked letters that contradict each other leave strokes out. */
export const walkRight = (
  problem: FingeringProblem,
  setting: RightSetting,
  states: readonly HandState[],
  letters: readonly (readonly Pluck[])[],
  kept?: (group: StrokeGroup) => StrokeGroup,
  ledger?: (k: number) => RightLedger,
): readonly RightStep[] => walkPlaced(problem, setting, placedOn(problem, states), letters, kept, ledger);

/** The same on strings from anywhere. */
export function walkPlaced(
  problem: FingeringProblem,
  setting: RightSetting,
  placed: readonly (readonly PlacedStrike[])[],
  letters: readonly (readonly Pluck[])[],
  kept: (group: StrokeGroup) => StrokeGroup = (group) => group,
  ledger?: (k: number) => RightLedger,
): readonly RightStep[] {
  const steps: RightStep[] = [];
  placed.forEach((strikes, k) => {
    const group = kept(strokeGroup(problem, setting, k, strikes));
    steps.push(rightStep(problem, k, steps.at(-1) ?? null, group, strikes, letters[k]!, ledger?.(k)));
  });
  return steps;
}

/** One step after the one before it, null at the start. */
export function rightStep(
  problem: FingeringProblem,
  k: number,
  last: RightStep | null,
  group: StrokeGroup,
  placed: readonly PlacedStrike[],
  letters: readonly Pluck[],
  ledger?: RightLedger,
): RightStep {
  const from = last?.after ?? NO_MEMORY;
  const fretBefore = last?.group.fret ?? null;
  const sharing = sharingFor(group, letters);
  const before = aged(from, stepMs(problem, k));
  return {
    group,
    sharing,
    before,
    fretBefore,
    from,
    after: memoryAfter(before, sharing),
    placed,
    own: groupCost(group, sharing, ledger),
    way: strokeTransitionCost(before, fretBefore, group, sharing, problem.hand, ledger),
  };
}

/** Whether a step would be the same after another one: it is when what the hand knows and where the left was are. */
export const isSameAfter = (step: RightStep, last: RightStep | null): boolean =>
  step.fretBefore === (last?.group.fret ?? null) && sameMemory(step.from, last?.after ?? NO_MEMORY);

const sameMemory = (a: RightMemory, b: RightMemory) =>
  a === b || (fingersKey(a.fingers) === fingersKey(b.fingers) && thumbKey(a.thumb) === thumbKey(b.thumb));
