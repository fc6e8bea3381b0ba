/**
 * A passage moment by moment: what each hand does on the way to a moment and on it, what could lie early, what stays.
 * Source: handbook 9, walk-through; 4, "Looking ahead".
 */
import type { HandAction } from '../fingering/left/explain/handScript';
import type { FingeringPlan, FingerStay } from '../fingering/report/plan';
import type { StrokeAction } from '../fingering/right/explain/strokeScript';
import type { Score } from '../score/model';
import type { TickRange } from '../score/range';

export interface WalkStep {
  readonly momentIndex: number;
  readonly ticks: number;
  readonly uids: readonly string[];
  /** Placed, laid, slid, hinged or lifted for this moment, in the order in which it is done. */
  readonly hand: readonly HandAction[];
  /** Of later moments: what could lie from here on already. */
  readonly early: readonly HandAction[];
  /** Fingers that lie from before and go on lying. */
  readonly keeps: readonly FingerStay[];
  readonly strokes: readonly StrokeAction[];
}

export interface Scripts {
  readonly script: readonly HandAction[];
  readonly strokes: readonly StrokeAction[];
}

/** One step for each moment at which something is struck, in order. */
export function walkSteps(
  plan: FingeringPlan,
  score: Score,
  { script, strokes }: Scripts,
): readonly WalkStep[] {
  const onsetOf = new Map(score.notes.map(({ uid, onsetTicks }) => [uid, onsetTicks]));
  const moments = new Map<number, string[]>();
  for (const { uid, momentIndex } of plan.notes)
    moments.set(momentIndex, [...(moments.get(momentIndex) ?? []), uid]);
  const rows = [...moments]
    .map(([momentIndex, uids]) => ({ momentIndex, uids, ticks: onsetOf.get(uids[0]!) ?? 0 }))
    .sort((a, b) => a.momentIndex - b.momentIndex);
  return rows.map(({ momentIndex, uids, ticks }, k) => {
    const before = rows[k - 1]?.ticks ?? -1;
    const next = rows[k + 1]?.ticks ?? Infinity;
    return {
      momentIndex,
      ticks,
      uids,
      hand: script.filter((action) => action.ticks > before && action.ticks <= ticks),
      early: script.filter(
        (action) =>
          action.kind === 'prepare' &&
          action.ticks > ticks &&
          action.earliestTicks >= ticks &&
          action.earliestTicks < next,
      ),
      keeps: plan.fingers.filter(({ fromTicks, toTicks }) => fromTicks < ticks && toTicks > ticks),
      strokes: strokes.filter((action) => action.momentIndex === momentIndex),
    };
  });
}

/** The beat before the bar line that follows a tick, and the first one after it: where most passages stumble. */
export function joinAfter(score: Score, ticks: number): TickRange {
  const bar = score.measures.findLastIndex(({ startTicks }) => startTicks <= ticks);
  const here = score.measures[Math.max(0, bar)]!;
  const beat =
    (score.ticksPerQuarter * 4) / (score.metres.findLast(({ tick }) => tick <= ticks)?.beatType ?? 4);
  const line = here.startTicks + here.durationTicks;
  return { from: Math.max(here.startTicks, line - beat), to: line + beat };
}

/** The bar of a tick. */
export function barAround(score: Score, ticks: number): TickRange {
  const bar = score.measures.findLast(({ startTicks }) => startTicks <= ticks) ?? score.measures[0]!;
  return { from: bar.startTicks, to: bar.startTicks + bar.durationTicks };
}

/** Index of the step before or after one, going round inside a range. */
export function stepFrom(
  steps: readonly WalkStep[],
  at: number,
  by: 1 | -1,
  range: TickRange | null,
): number {
  const inside = steps.flatMap(({ ticks }, k) =>
    !range || (ticks >= range.from && ticks < range.to) ? [k] : [],
  );
  if (inside.length === 0) return at;
  const here = inside.indexOf(at);
  if (here < 0) return inside[by > 0 ? 0 : inside.length - 1]!;
  return inside[(here + by + inside.length) % inside.length]!;
}
