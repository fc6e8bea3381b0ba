/** A passage of the right hand in numbers: what a teacher compares two ways of playing by. */
import { type RightFinger, RIGHT_FINGERS, type RightPair } from '../../instrument/rightProfile';
import type { FingeringProblem } from '../problem/problem';
import { crossingOf, repeatOf } from '../right/explain/reasons';
import { displacementMs, displacementStrings, placeOfSet } from '../right/rules/strokeCost';
import { STRING_GAP_AT_SOUNDHOLE_MM } from '../right/rules/terms';
import type { RightStep } from '../right/explain/walk';

export interface StrokeMeasure {
  readonly strokes: number;
  /** How far the hand is moved beyond what the fingers spread, all together. */
  readonly displacementMm: number;
  /** How often the set of fingers changes its strings, and by how many on average. */
  readonly pivots: number;
  readonly pivotStrings: number;
  /** Pivots that go on in the direction of the one before swing, those that turn round at once jolt. */
  readonly jolts: number;
  readonly crossings: number;
  readonly repeats: number;
  /** In tenths of a point. */
  readonly effort: number;
  /** Quarters a minute up to which every finger has the time that it needs; null where nothing is pressed. */
  readonly runsAtBpm: number | null;
}

/** Moments `from` to `to`, both counted. */
export function measureStrokes(
  problem: FingeringProblem,
  steps: readonly RightStep[],
  from: number,
  to: number,
): StrokeMeasure {
  let [strokes, displacement, pivots, pivotStrings, jolts, crossings, repeats, effort] = [
    0, 0, 0, 0, 0, 0, 0, 0,
  ];
  let direction = 0;
  let share = 0;
  for (let k = from; k <= to; k++) {
    const step = steps[k]!;
    if (step.group.strokes.length === 0) continue;
    strokes += step.group.strokes.length;
    effort += step.own + (k === from ? 0 : step.way);
    if (k === from) continue;
    const moved = placeChange(step);
    const strings = displacementStrings(0, moved);
    displacement += strings;
    if (Math.abs(moved) >= 1) {
      pivots++;
      pivotStrings += Math.abs(moved);
      if (direction !== 0 && Math.sign(moved) !== direction) jolts++;
      direction = Math.sign(moved);
    }
    if (crossingOf(step)?.code === 'crosses') crossings++;
    if (repeatOf(step)) repeats++;
    share = Math.max(share, pressing(problem, step));
  }
  return {
    strokes,
    displacementMm: Math.round(displacement * STRING_GAP_AT_SOUNDHOLE_MM),
    pivots,
    pivotStrings: pivots === 0 ? 0 : Math.round((10 * pivotStrings) / pivots) / 10,
    jolts,
    crossings,
    repeats,
    effort,
    runsAtBpm: share === 0 ? null : Math.floor(bpmAt(problem, from) / share),
  };
}

const bpmAt = ({ clock, moments, ticksPerQuarter }: FingeringProblem, k: number): number => {
  const { tick } = moments[k]!;
  return 60_000 / (clock(tick + ticksPerQuarter) - clock(tick));
};

/** By how many strings the set stands further up (negative) or down. */
function placeChange({ earlier, sharing }: RightStep): number {
  const last = earlier.fingers?.sharing.fingers;
  return last && sharing.fingers ? placeOfSet(sharing.fingers) - placeOfSet(last) : 0;
}

/** The largest share of its time that a movement into the group needs; 1 is as fast as the hand goes. */
function pressing({ hand }: FingeringProblem, step: RightStep): number {
  const { earlier, sharing, timeMs } = step;
  const shares = [0];
  const last = earlier.fingers?.sharing.fingers;
  const now = sharing.fingers;
  if (last && now) {
    const passedMs = Math.max(1, timeMs - earlier.fingers!.timeMs);
    shares.push(displacementMs(displacementStrings(0, placeChange(step)), hand) / passedMs);
    for (const a of fingersIn(last.bits)) {
      for (const b of fingersIn(now.bits))
        shares.push((a === b ? hand.right.strokeMs[a] : hand.right.pairMs[pairOf(a, b)]) / passedMs);
    }
  }
  const { thumb } = earlier;
  if (thumb && sharing.thumb) shares.push(hand.right.strokeMs.p / Math.max(1, timeMs - thumb.timeMs));
  return Math.max(...shares);
}

const fingersIn = (bits: number): readonly RightFinger[] =>
  RIGHT_FINGERS.slice(1).filter((_finger, k) => bits & (1 << k));

const pairOf = (a: RightFinger, b: RightFinger) =>
  (RIGHT_FINGERS.indexOf(a) < RIGHT_FINGERS.indexOf(b) ? `${a}${b}` : `${b}${a}`) as RightPair;
