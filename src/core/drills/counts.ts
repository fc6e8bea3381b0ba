/** What a drill is made of, counted from its plan: how much of what it trains there is in it. */
import type { FingeringPlan } from '../fingering/report/plan';

export interface DrillCounts {
  readonly notes: number;
  readonly shifts: number;
  readonly crossings: number;
  readonly repeats: number;
  /** Mm, of the largest shift; 0 without one. */
  readonly farthestMm: number;
}

export const countsOf = ({ notes, shifts, strokes }: FingeringPlan): DrillCounts => ({
  notes: notes.length,
  shifts: shifts.length,
  crossings: strokes.filter(({ move }) => move?.against).length,
  repeats: strokes.filter(({ again }) => again).length,
  farthestMm: Math.round(Math.max(0, ...shifts.map(({ distanceMm }) => distanceMm))),
});
