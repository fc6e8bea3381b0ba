/** When each strike stops sounding under a fingering. Source: handbook, "What really rings". */
import type { HandState, Placement } from '../left/handState';
import type { FingeringProblem } from '../problem';

/**
 * Ticks from the start, by strike. A stopped note sounds until its written end or until its finger is taken
 * away; an open string rings on until its string is used or barred again, at the latest to the end of the piece.
 */
export function soundsUntilTicks(
  problem: FingeringProblem,
  states: readonly HandState[],
  placements: readonly (Placement | null)[],
): readonly number[] {
  const endOfPiece = Math.max(0, ...problem.strikes.map((strike) => strike.endTicks));
  const momentOf: number[] = [];
  for (const moment of problem.moments) for (const strike of moment.struck) momentOf[strike] = moment.index;
  return problem.strikes.map((strike) => {
    const place = placements[strike.index];
    if (!place) return strike.onsetTicks;
    // A natural harmonic rings on like an open string.
    const open = place.finger === 0 || strike.touch !== null;
    const end = open ? endOfPiece : strike.endTicks;
    for (let k = momentOf[strike.index]! + 1; k < problem.moments.length; k++) {
      const moment = problem.moments[k]!;
      if (moment.tick >= end) break;
      const state = states[moment.index]!;
      const holds = state.strikes.includes(strike.index);
      if (open ? !holds && stringUsed(state, place.string) : !holds) return moment.tick;
    }
    return end;
  });
}

function stringUsed(state: HandState, string: number): boolean {
  const barre = state.barre;
  if (barre && string >= barre.firstString && string <= barre.lastString) return true;
  return state.placements.some((place) => place.string === string);
}
