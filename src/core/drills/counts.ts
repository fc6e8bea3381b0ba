/** What a drill is made of, counted from its plan: how much of what it trains there is in it. */
import type { FingeringPlan, FingerStay } from '../fingering/report/plan';
import { fingertipMm } from '../instrument/fretboard';
import { pairOf } from '../instrument/handProfile';
import type { Player } from '../instrument/hands';
import type { TickRange } from '../score/range';

export interface DrillCounts {
  readonly notes: number;
  readonly shifts: number;
  readonly crossings: number;
  readonly repeats: number;
  /** How often the hand moves to other strings. */
  readonly pivots: number;
  /** Pairs of fingers that are further apart than is easy for the hand, once for each time they are put there. */
  readonly stretches: number;
  /** Mm, of the largest shift; 0 without one. */
  readonly farthestMm: number;
}

const ALL: TickRange = { from: 0, to: Infinity };

/** @param tickOf where a note begins; needed for a part only */
export function countsOf(
  plan: FingeringPlan,
  player: Player,
  range = ALL,
  tickOf: (uid: string) => number = () => 0,
): DrillCounts {
  const isIn = (tick: number) => tick >= range.from && tick < range.to;
  const strokes = plan.strokes.filter(({ ticks }) => isIn(ticks));
  const shifts = plan.shifts.filter(({ arrivesTicks }) => isIn(arrivesTicks));
  return {
    notes: plan.notes.filter(({ uid }) => isIn(tickOf(uid))).length,
    shifts: shifts.length,
    crossings: strokes.filter(({ move }) => move?.against).length,
    repeats: strokes.filter(({ again }) => again).length,
    pivots: strokes.filter(({ move }) => move !== null).length,
    stretches: stretchesIn(
      plan.fingers.filter(({ fromTicks }) => isIn(fromTicks)),
      player,
    ),
    farthestMm: Math.round(Math.max(0, ...shifts.map(({ distanceMm }) => distanceMm))),
  };
}

function stretchesIn(stays: readonly FingerStay[], { hand, fretboard }: Player): number {
  const along = (fret: number) => fingertipMm(fret, fretboard.scaleLengthMm);
  let count = 0;
  for (const later of stays) {
    for (const other of stays) {
      // Each pair is seen from the one that comes second.
      const together = other.fromTicks <= later.fromTicks && other.toTicks > later.fromTicks;
      const isFirst = other.fromTicks < later.fromTicks || other.finger < later.finger;
      if (!together || !isFirst || other.finger === later.finger) continue;
      const [low, high] = other.finger < later.finger ? [other, later] : [later, other];
      if (along(high.fret) - along(low.fret) > hand.reach[pairOf(low.finger, high.finger)].atEaseMm) count++;
    }
  }
  return count;
}
