/** What each term counts: the table's weight, times the factors of a school and of a hand. */
import type { HandProfile } from '../../../instrument/handProfile';
import { LEFT_SCHOOLS, type LeftSchoolId } from './schools';
import { LEFT_TERM_IDS, LEFT_TERMS, type LeftTermId } from './terms';

export type LeftWeights = Readonly<Record<LeftTermId, number>>;

/** A factor on a term whose own weight is 0 counts in the tenths of a point themselves. */
const weighed = (own: number, factor: number | undefined) =>
  factor === undefined ? own : own === 0 ? factor : own * factor;

export const leftWeights = (school: LeftSchoolId, hand: HandProfile): LeftWeights =>
  weightsFrom(TABLE, LEFT_SCHOOLS[school].factors, hand);

/** The same for weights that do not stand in the table: those of a calibration that is still running. */
export function weightsFrom(
  base: LeftWeights,
  factors: Readonly<Partial<Record<LeftTermId, number>>>,
  hand: HandProfile,
): LeftWeights {
  return Object.fromEntries(
    LEFT_TERM_IDS.map((id) => [id, weighed(base[id], factors[id]) * (hand.weights[id] ?? 1)]),
  ) as LeftWeights;
}

const TABLE = Object.fromEntries(LEFT_TERM_IDS.map((id) => [id, LEFT_TERMS[id].weight])) as LeftWeights;
