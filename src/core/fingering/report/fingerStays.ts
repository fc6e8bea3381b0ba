/** When each finger is down, and where: whether its string sounds or the finger lies prepared. */
import type { HandState } from '../left/rules/handState';
import type { FingeringProblem } from '../problem/problem';
import type { FingerStay } from './plan';

/** In order of their beginnings. A barre is one stay for each string that has a note under it. */
export function fingerStays(
  problem: FingeringProblem,
  states: readonly HandState[],
  endTicks: number,
): readonly FingerStay[] {
  const stays: FingerStay[] = [];
  let down = new Map<string, FingerStay>();
  const lift = (stay: FingerStay, toTicks: number) => stays.push({ ...stay, toTicks });
  states.forEach(({ placements }, k) => {
    const { tick } = problem.moments[k]!;
    const next = new Map<string, FingerStay>();
    for (const { finger, string, fret } of placements) {
      if (finger === 0) continue;
      const key = `${finger} ${string} ${fret}`;
      next.set(key, down.get(key) ?? { finger, string, fret, fromTicks: tick, toTicks: tick });
    }
    for (const [key, stay] of down) if (!next.has(key)) lift(stay, tick);
    down = next;
  });
  for (const stay of down.values()) lift(stay, endTicks);
  return stays.sort((a, b) => a.fromTicks - b.fromTicks || a.string - b.string || a.finger - b.finger);
}
