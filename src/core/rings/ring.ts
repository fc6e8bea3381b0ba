/** What every note really does: how long it sounds and why it stops. Source: handbook, "What really rings". */
import type { HandState } from '../fingering/left/rules/handState';
import type { Placement } from '../fingering/left/rules/place';
import { coversString } from '../fingering/left/rules/stand';
import { measureShift } from '../fingering/left/rules/prices';
import type { FingeringProblem } from '../fingering/problem/problem';
import type { Strike } from '../fingering/problem/strike';

/**
 * written: it ends as it is written (or as a broken chord is held). fingerNeeded: its finger goes to another note.
 * handMoves: the hand leaves the position. stringUsed: its string is struck or stopped again. barre: a barre comes
 * to lie over it. landed: a rest stroke comes to lie on its string. released: it is let go for another reason. endOfPiece: nothing stops it before.
 */
export type RingEnd =
  'written' | 'fingerNeeded' | 'handMoves' | 'stringUsed' | 'barre' | 'landed' | 'released' | 'endOfPiece';

/** One strike as it sounds. Times in ticks from the start of the piece. */
export interface Ring {
  readonly strike: number;
  readonly uid: string;
  readonly voice: string;
  readonly string: number;
  readonly fret: number;
  /** Rings on by itself: an open string or a natural harmonic. */
  readonly free: boolean;
  readonly onsetTicks: number;
  readonly writtenEndTicks: number;
  readonly soundsUntilTicks: number;
  readonly end: RingEnd;
}

/** By onset; strikes that are left out have none. */
export const ringsOf = (problem: FingeringProblem, states: readonly HandState[]): readonly Ring[] => {
  const momentOf = momentsOfStrikes(problem);
  const endOfPiece = endOf(problem);
  return problem.strikes.flatMap(
    (strike) => soundOf(problem, states, strike, momentOf[strike.index]!, endOfPiece).ring ?? [],
  );
};

/** By strike: index of its moment. */
export function momentsOfStrikes({ moments }: FingeringProblem): readonly number[] {
  const momentOf: number[] = [];
  for (const moment of moments) for (const strike of moment.struck) momentOf[strike] = moment.index;
  return momentOf;
}

export const endOf = ({ strikes }: FingeringProblem): number =>
  Math.max(0, ...strikes.map((strike) => strike.endTicks));

/** What becomes of one strike. */
export interface Sound {
  /** Null where it is left out. */
  readonly place: Placement | null;
  readonly ring: Ring | null;
  /** The last moment whose hand it depends on; the first is its own. */
  readonly until: number;
}

/** @param from index of the strike's moment */
export function soundOf(
  problem: FingeringProblem,
  states: readonly HandState[],
  strike: Strike,
  from: number,
  endOfPiece: number,
): Sound {
  const place = placeIn(states[from]!, strike.index);
  if (!place) return { place, ring: null, until: from };
  // A natural harmonic rings on like an open string.
  const free = place.finger === 0 || strike.touch !== null;
  const { until, ...stop } = free
    ? freeEnd(problem, states, { strike, place, from }, endOfPiece)
    : stoppedEnd(problem, states, { strike, place, from });
  const ring = {
    strike: strike.index,
    uid: strike.uids[0]!,
    voice: strike.voice,
    string: place.string,
    fret: place.fret,
    free,
    onsetTicks: strike.onsetTicks,
    writtenEndTicks: strike.writtenEndTicks,
    ...stop,
  };
  return { place, ring, until };
}

function placeIn(state: HandState, strike: number): Placement | null {
  const slot = state.strikes.indexOf(strike);
  return slot < 0 ? null : state.placements[slot]!;
}

interface Stop extends Pick<Ring, 'soundsUntilTicks' | 'end'> {
  readonly until: number;
}

/** A note where it begins, at the moment `from`. */
interface Struck {
  readonly strike: Strike;
  readonly place: Placement;
  readonly from: number;
}

/** A string that sounds by itself goes on until something comes to lie on it, at the latest to the end. */
function freeEnd(
  problem: FingeringProblem,
  states: readonly HandState[],
  { strike, place, from }: Struck,
  endOfPiece: number,
): Stop {
  for (let k = from + 1; k < problem.moments.length; k++) {
    const state = states[k]!;
    if (state.strikes.includes(strike.index)) continue;
    const tick = problem.moments[k]!.tick;
    if (state.placements.some(({ string }) => string === place.string))
      return { soundsUntilTicks: tick, end: 'stringUsed', until: k };
    if (state.barre && coversString(state.barre, place.string))
      return { soundsUntilTicks: tick, end: 'barre', until: k };
  }
  return { soundsUntilTicks: endOfPiece, end: 'endOfPiece', until: problem.moments.length - 1 };
}

/** A stopped note sounds until its written end, unless its finger is taken away before. */
function stoppedEnd(
  problem: FingeringProblem,
  states: readonly HandState[],
  { strike, place, from }: Struck,
): Stop {
  let k = from + 1;
  for (; k < problem.moments.length; k++) {
    const moment = problem.moments[k]!;
    if (moment.tick >= strike.endTicks) break;
    if (states[k]!.strikes.includes(strike.index)) continue;
    return {
      soundsUntilTicks: moment.tick,
      end: whyLetGo(problem, states, k, { strike, place }),
      until: k,
    };
  }
  return { soundsUntilTicks: strike.endTicks, end: 'written', until: k - 1 };
}

function whyLetGo(
  problem: FingeringProblem,
  states: readonly HandState[],
  k: number,
  { strike, place }: Pick<Struck, 'strike' | 'place'>,
): RingEnd {
  const [before, state] = [states[k - 1]!, states[k]!];
  if (state.placements.some(({ string }) => string === place.string)) return 'stringUsed';
  if (state.barre && coversString(state.barre, place.string)) return 'barre';
  const finger = before.placements[before.strikes.indexOf(strike.index)]?.finger ?? place.finger;
  if (state.placements.some((other) => other.finger === finger)) return 'fingerNeeded';
  const shift = measureShift(problem, problem.moments[k - 1]!, before, problem.moments[k]!, state);
  return shift ? 'handMoves' : 'released';
}
