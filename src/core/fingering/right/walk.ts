/** What the right hand pays along a plan, moment by moment and term by term. */
import type { Pluck } from '../../score/model';
import type { FingeringProblem } from '../problem';
import type { HandState } from '../left/handState';
import { aged, memoryAfter, NO_MEMORY, type RightMemory, type Sharing, sharingFor } from './memory';
import type { RightSetting } from './setting';
import { groupCost, type RightLedger, strokeTransitionCost } from './strokeCost';
import { placedAt, stepMs, type StrokeGroup, strokeGroup } from './strokes';

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

/** The letters may be fewer than the strokes: then those are left out that `kept` does not keep. */
export function walkRight(
  problem: FingeringProblem,
  setting: RightSetting,
  states: readonly HandState[],
  letters: readonly (readonly Pluck[])[],
  kept: (group: StrokeGroup) => StrokeGroup = (group) => group,
  ledger?: (k: number) => RightLedger,
): readonly RightStep[] {
  let memory = NO_MEMORY;
  let fretBefore: number | null = null;
  return problem.moments.map((moment, k) => {
    const placed = placedAt(problem, moment, states[k - 1] ?? null, states[k]!);
    const group = kept(strokeGroup(problem, setting, k, placed));
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
