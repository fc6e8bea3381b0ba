/** Whether each slur that the music asks for can be played as one. Source: handbook, "Slurs". */
import type { FingeringProblem } from '../problem/problem';
import type { HandState } from '../left/rules/handState';
import type { Placement } from '../left/rules/place';
import { slurPlayable, weakSlur } from '../left/rules/connections';

/**
 * strings: the notes lie on two strings. fingers: the fingers cannot do it in that direction. planted: the finger that
 * a pull-off goes to holds another note until then. weak: it can be played, by fingers that do it badly.
 */
export type SlurFault = 'strings' | 'fingers' | 'planted' | 'weak';

export interface SlurJudgement {
  readonly strike: number;
  readonly uids: readonly [string, string];
  readonly fault: SlurFault | null;
  readonly fingers: readonly [number, number];
}

export function checkSlurs(
  problem: FingeringProblem,
  states: readonly HandState[],
): readonly SlurJudgement[] {
  return problem.moments.flatMap((moment, k) =>
    moment.struck.flatMap((index): SlurJudgement[] => {
      const source = problem.strikes[index]!.slurredFrom;
      const before = states[k - 1];
      const to = placeIn(states[k]!, index);
      const from = source !== null && before ? placeIn(before, source) : null;
      if (source === null || !before || !from || !to) return [];
      return [
        {
          strike: index,
          uids: [problem.strikes[source]!.uids[0]!, problem.strikes[index]!.uids[0]!],
          fault: faultOf(before, from, to),
          fingers: [from.finger, to.finger],
        },
      ];
    }),
  );
}

function placeIn(state: HandState, strike: number): Placement | null {
  const slot = state.strikes.indexOf(strike);
  return slot < 0 ? null : state.placements[slot]!;
}

function faultOf(before: HandState, from: Placement, to: Placement): SlurFault | null {
  if (from.string !== to.string) return 'strings';
  if (!slurPlayable(from, to)) return 'fingers';
  const pullsOff = to.fret < from.fret && to.finger > 0;
  const elsewhere = before.placements.some(
    (place) => place.finger === to.finger && (place.string !== to.string || place.fret !== to.fret),
  );
  if (pullsOff && elsewhere) return 'planted';
  return weakSlur(from, to) ? 'weak' : null;
}
