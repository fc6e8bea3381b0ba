/** What the right hand pays along a plan, moment by moment and term by term. */
import type { Pluck } from '../../score/model';
import type { FingeringProblem } from '../problem';
import type { HandState } from '../left/handState';
import { aged, memoryAfter, NO_MEMORY, type RightMemory, type Sharing, sharingFor } from './memory';
import type { RightSetting } from './setting';
import { groupCost, type RightLedger, strokeTransitionCost } from './strokeCost';
import { placedOn, type PlacedStrike, stepMs, type StrokeGroup, strokeGroup } from './strokes';

export interface RightStep {
  readonly group: StrokeGroup;
  readonly sharing: Sharing;
  /** What the hand remembers as it comes to the group. */
  readonly before: RightMemory;
  readonly fretBefore: number | null;
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
  let memory = NO_MEMORY;
  let fretBefore: number | null = null;
  return problem.moments.map((_moment, k) => {
    const group = kept(strokeGroup(problem, setting, k, placed[k]!));
    const sharing = sharingFor(group, letters[k]!);
    const before = aged(memory, stepMs(problem, k));
    const step: RightStep = {
      group,
      sharing,
      before,
      fretBefore,
      own: groupCost(group, sharing, ledger?.(k)),
      way: strokeTransitionCost(before, fretBefore, group, sharing, problem.hand, ledger?.(k)),
    };
    memory = memoryAfter(before, sharing);
    fretBefore = group.fret;
    return step;
  });
}
