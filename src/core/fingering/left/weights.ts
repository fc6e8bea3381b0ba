/** What each term counts: the table's weight, times the factors of a school and of a hand. */
import type { HandProfile } from '../../instrument/handProfile';
import { LEFT_SCHOOLS, type LeftSchoolId } from './schools';
import { LEFT_TERM_IDS, LEFT_TERMS, type LeftTermId } from './terms';

export type LeftWeights = Readonly<Record<LeftTermId, number>>;

/** A factor on a term whose own weight is 0 counts in the tenths of a point themselves. */
const weighed = (own: number, factor: number | undefined) =>
  factor === undefined ? own : own === 0 ? factor : own * factor;

export function leftWeights(school: LeftSchoolId, hand: HandProfile): LeftWeights {
  const factors: Readonly<Partial<Record<LeftTermId, number>>> = LEFT_SCHOOLS[school].factors;
  return Object.fromEntries(
    LEFT_TERM_IDS.map((id) => {
      const taught = weighed(LEFT_TERMS[id].weight, factors[id]);
      return [id, taught * (hand.weights[id] ?? 1)];
    }),
  ) as Record<LeftTermId, number>;
}
