/** What a state of the hand costs by itself, whatever came before. */
import { pairOf } from '../../instrument/handProfile';
import { price } from '../costTerm';
import type { FingeringProblem, Moment } from '../problem';
import { fingerDistanceMm } from './constraints';
import type { HandRange, HandState, Placement } from './handState';
import { BARRE_SIZE, LEFT_TERMS, type LeftTermId } from './terms';

/** Told of every amount that is charged; how a total is explained. */
export type Ledger = (term: LeftTermId, cost: number) => void;

/** Effort in tenths of a point of holding this state at this moment and striking what begins there. */
export function stateCost(
  problem: FingeringProblem,
  moment: Moment,
  state: HandState,
  ledger?: Ledger,
): number {
  let sum = 0;
  const charge = (term: LeftTermId, value: number) => {
    const cost = price(LEFT_TERMS[term], value);
    if (cost === 0) return;
    sum += cost;
    ledger?.(term, cost);
  };
  chargePairs(problem, state, charge);
  if (state.barre) charge('barreHold', BARRE_SIZE[state.barre.lastString - state.barre.firstString + 1]!);
  for (const strikeIndex of moment.struck) {
    const slot = state.strikes.indexOf(strikeIndex);
    if (slot < 0) continue;
    chargeStruck(problem, strikeIndex, state.placements[slot]!, state, charge);
  }
  return sum;
}

type Charge = (term: LeftTermId, value: number) => void;

function chargePairs(problem: FingeringProblem, state: HandState, charge: Charge) {
  for (let low = 1; low <= 3; low++) {
    for (let high = low + 1; high <= 4; high++) {
      const a = placesOf(state, low);
      const b = placesOf(state, high);
      if (a.length === 0 || b.length === 0) continue;
      const nearest = Math.min(
        ...a.flatMap((one) => b.map((other) => fingerDistanceMm(one, other, problem.fretboard))),
      );
      const reach = problem.hand.reach[pairOf(low, high)];
      charge('stretch', Math.max(0, nearest - reach.atEaseMm) / (reach.atMostMm - reach.atEaseMm));
      const squeezed = high - low - (b[0]!.fret - a[0]!.fret) - 1;
      charge('contraction', Math.max(0, squeezed));
      const sameFret = a[0]!.fret === b[0]!.fret;
      charge('order', sameFret && b.some((one) => a.every((other) => one.string > other.string)) ? 1 : 0);
    }
  }
}

const placesOf = (state: HandState, finger: number): readonly Placement[] => {
  if (state.slotOfFinger[finger] === -1) return [];
  return finger === 1
    ? state.placements.filter((place) => place.finger === 1)
    : [state.placements[state.slotOfFinger[finger]!]!];
};

function chargeStruck(
  problem: FingeringProblem,
  strikeIndex: number,
  place: Placement,
  state: HandState,
  charge: Charge,
) {
  const strike = problem.strikes[strikeIndex]!;
  const printed = strike.printed;
  const departures =
    (printed.finger !== null && printed.finger !== place.finger ? 1 : 0) +
    (printed.string !== null && printed.string !== place.string ? 1 : 0);
  charge('printed', departures);
  if (place.finger === 0) {
    if (strike.role === 'melody') charge('openMelody', middleOf(state.range ?? state.memory?.range ?? null));
    return;
  }
  charge('finger', place.finger);
  charge('position', middleOf(state.range));
  if (place.string >= 4) charge('wound', place.fret);
}

const middleOf = (range: HandRange | null) => (range ? (range.low + range.high) / 2 : 1);
