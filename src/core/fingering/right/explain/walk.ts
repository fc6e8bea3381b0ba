/** What the right hand pays along a plan, moment by moment and term by term. */
import type { FingeringProblem } from '../../problem/problem';
import type { HandState } from '../../left/rules/handState';
import {
  fingersKey,
  memoryAfter,
  NO_MEMORY,
  type Played,
  type RightMemory,
  type Sharing,
  sharingFor,
  thumbKey,
} from '../rules/memory';
import type { RightSetting } from '../rules/setting';
import { groupCost, type RightLedger, strokeTransitionCost } from '../rules/strokeCost';
import { placedOn, type PlacedStrike, type StrokeGroup, strokeGroup } from '../rules/strokes';

export interface RightStep {
  readonly group: StrokeGroup;
  readonly sharing: Sharing;
  /** What the hand remembers as it comes to the group, and as it leaves it. */
  readonly before: RightMemory;
  readonly after: RightMemory;
  readonly timeMs: number;
  /** The strokes of the fingers and of the thumb before this group, with their time. */
  readonly earlier: EarlierStrokes;
  readonly placed: readonly PlacedStrike[];
  /** Effort of the group by itself, and of coming to it. */
  readonly own: number;
  readonly way: number;
}

/** The last stroke of some fingers, or of p. */
export interface EarlierStroke {
  readonly sharing: Sharing;
  readonly timeMs: number;
}

/** What reports compare a stroke with; no price knows these times. */
export interface EarlierStrokes {
  readonly fingers: EarlierStroke | null;
  readonly thumb: EarlierStroke | null;
}

const NO_STROKES: EarlierStrokes = { fingers: null, thumb: null };

export interface Walking {
  /** What of a group is played; inked letters that contradict each other leave strokes out. */
  readonly kept?: (group: StrokeGroup) => StrokeGroup;
  readonly ledger?: (k: number) => RightLedger;
}

export const walkRight = (
  problem: FingeringProblem,
  setting: RightSetting,
  states: readonly HandState[],
  played: readonly Played[],
  how: Walking = {},
): readonly RightStep[] => walkPlaced(problem, setting, placedOn(problem, states), played, how);

/** The same on strings from anywhere. */
export function walkPlaced(
  problem: FingeringProblem,
  setting: RightSetting,
  placed: readonly (readonly PlacedStrike[])[],
  played: readonly Played[],
  { kept = (group) => group, ledger }: Walking = {},
): readonly RightStep[] {
  const steps: RightStep[] = [];
  placed.forEach((strikes, k) => {
    const group = kept(strokeGroup(problem, setting, k, strikes));
    steps.push(
      rightStep(
        problem,
        k,
        steps.at(-1) ?? null,
        { group, placed: strikes, played: played[k]! },
        ledger?.(k),
      ),
    );
  });
  return steps;
}

/** What is struck at a step, where it lies and how it is played. */
interface StepPlayed extends Pick<RightStep, 'group' | 'placed'> {
  readonly played: Played;
}

/** One step after the one before it, null at the start. */
export function rightStep(
  problem: FingeringProblem,
  k: number,
  last: RightStep | null,
  { group, placed, played }: StepPlayed,
  ledger?: RightLedger,
): RightStep {
  const before = last?.after ?? NO_MEMORY;
  const sharing = sharingFor(group, played);
  return {
    group,
    sharing,
    before,
    after: memoryAfter(before, sharing),
    timeMs: problem.moments[k]!.timeMs,
    earlier: last ? earlierAfter(problem, k - 1, last) : NO_STROKES,
    placed,
    own: groupCost(group, sharing, ledger),
    way: strokeTransitionCost(before, group, sharing, problem.hand, ledger),
  };
}

function earlierAfter(
  { moments }: FingeringProblem,
  k: number,
  { sharing, earlier }: RightStep,
): EarlierStrokes {
  if (!sharing.fingers && !sharing.thumb) return earlier;
  if (sharing.away) return NO_STROKES;
  const now = { sharing, timeMs: moments[k]!.timeMs };
  return { fingers: sharing.fingers ? now : earlier.fingers, thumb: sharing.thumb ? now : earlier.thumb };
}

/** Whether a step would be the same after another one: it is when what the hand knows and has played are. */
export const isSameAfter = (
  step: RightStep,
  last: RightStep | null,
  problem: FingeringProblem,
  k: number,
): boolean =>
  sameMemory(step.before, last?.after ?? NO_MEMORY) &&
  sameEarlier(step.earlier, last ? earlierAfter(problem, k - 1, last) : NO_STROKES);

const sameMemory = (a: RightMemory, b: RightMemory) =>
  a === b || (fingersKey(a.fingers) === fingersKey(b.fingers) && thumbKey(a.thumb) === thumbKey(b.thumb));

const sameEarlier = (a: EarlierStrokes, b: EarlierStrokes) =>
  sameStroke(a.fingers, b.fingers) && sameStroke(a.thumb, b.thumb);

const sameStroke = (a: EarlierStroke | null, b: EarlierStroke | null) =>
  a === b || (a !== null && b !== null && a.timeMs === b.timeMs && sameFingers(a.sharing, b.sharing));

const sameFingers = (a: Sharing, b: Sharing) =>
  a === b ||
  (a.letters.join() === b.letters.join() &&
    a.fingers?.strings.join() === b.fingers?.strings.join() &&
    a.thumb?.string === b.thumb?.string);
