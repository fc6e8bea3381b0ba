/** What each term counts: the table's weight, times the factors of a school and of a hand. */
import type { HandProfile } from '../../../instrument/handProfile';
import { RIGHT_SCHOOLS, type RightSchool, type RightSchoolId } from './schools';
import { RIGHT_TERM_IDS, RIGHT_TERMS, type RightTermId } from './terms';

export type RightWeights = Readonly<Record<RightTermId, number>>;

/** A factor on a term whose own weight is 0 counts in the tenths of a point themselves. */
const weighed = (own: number, factor: number | undefined) =>
  factor === undefined ? own : own === 0 ? factor : own * factor;

export const TABLE_WEIGHTS = Object.fromEntries(
  RIGHT_TERM_IDS.map((id) => [id, RIGHT_TERMS[id].weight]),
) as RightWeights;

/** What each term counts in a school: the weights of the table, or those of a calibration that is still running. */
export function rightWeights(id: RightSchoolId, hand: HandProfile, base = TABLE_WEIGHTS): RightWeights {
  const { factors }: RightSchool = RIGHT_SCHOOLS[id];
  return Object.fromEntries(
    RIGHT_TERM_IDS.map((term) => [
      term,
      weighed(base[term], factors[term]) * (hand.weights[`right.${term}`] ?? 1),
    ]),
  ) as RightWeights;
}
