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
  earlier?: readonly RightStep[],
): readonly RightStep[] =>
  walkPlaced(problem, setting, placedOn(problem, states), letters, kept, ledger, earlier);

/** The same on strings from anywhere. */
export function walkPlaced(
  problem: FingeringProblem,
  setting: RightSetting,
  placed: readonly (readonly PlacedStrike[])[],
  letters: readonly (readonly Pluck[])[],
  kept: (group: StrokeGroup) => StrokeGroup = (group) => group,
  ledger?: (k: number) => RightLedger,
  earlier: readonly RightStep[] = [],
): readonly RightStep[] {
  let memory = NO_MEMORY;
  let fretBefore: number | null = null;
  return problem.moments.map((_moment, k) => {
    const known = earlier[k];
    if (known && !ledger && isSame(known, memory, fretBefore, placed[k]!, letters[k]!)) {
      memory = known.after;
      fretBefore = known.group.fret;
      return known;
    }
    const group = kept(strokeGroup(problem, setting, k, placed[k]!));
    const from = memory;
    const sharing = sharingFor(group, letters[k]!);
    const before = aged(memory, stepMs(problem, k));
    const step: RightStep = {
      group,
      sharing,
      before,
      fretBefore,
      from,
      after: memoryAfter(before, sharing),
      placed: placed[k]!,
      own: groupCost(group, sharing, ledger?.(k)),
      way: strokeTransitionCost(before, fretBefore, group, sharing, problem.hand, ledger?.(k)),
    };
    memory = step.after;
    fretBefore = group.fret;
    return step;
  });
}

/** Whether a step of an earlier walk is this one: nearly all are when one note is changed. */
function isSame(
  known: RightStep,
  memory: RightMemory,
  fretBefore: number | null,
  placed: readonly PlacedStrike[],
  letters: readonly Pluck[],
): boolean {
  return (
    known.fretBefore === fretBefore &&
    known.sharing.letters.length === letters.length &&
    known.sharing.letters.every((letter, n) => letter === letters[n]) &&
    samePlaces(known.placed, placed) &&
    (known.from === memory ||
      (fingersKey(known.from.fingers) === fingersKey(memory.fingers) &&
        thumbKey(known.from.thumb) === thumbKey(memory.thumb)))
  );
}

const samePlaces = (a: readonly PlacedStrike[], b: readonly PlacedStrike[]) =>
  a.length === b.length &&
  a.every(({ strike, place, slurred }, n) => {
    const other = b[n]!;
    return (
      strike === other.strike &&
      slurred === other.slurred &&
      place.string === other.place.string &&
      place.fret === other.place.fret
    );
  });
