/** The weights of both hands, by hand and by one name for each: learning knows names only. */
import { LEFT_TERM_IDS, LEFT_TERMS, type LeftTermId } from '../../src/core/fingering/left/rules/terms';
import type { LeftWeights } from '../../src/core/fingering/left/rules/weights';
import { RIGHT_TERM_IDS, RIGHT_TERMS, type RightTermId } from '../../src/core/fingering/right/rules/terms';
import type { RightWeights } from '../../src/core/fingering/right/rules/weights';

export interface Weights {
  readonly left: LeftWeights;
  readonly right: RightWeights;
}

export type Hand = keyof Weights;

/** "left.hop", "right.restation". */
export const nameOf = (hand: Hand, term: string) => `${hand}.${term}`;

/** Names of one hand's terms, without the hand. */
export const ofHand = (hand: Hand, names: readonly string[]): readonly string[] =>
  names.filter((name) => name.startsWith(`${hand}.`)).map((name) => name.slice(hand.length + 1));

const weightsBy = (left: (id: LeftTermId) => number, right: (id: RightTermId) => number): Weights => ({
  left: Object.fromEntries(LEFT_TERM_IDS.map((id) => [id, left(id)])) as LeftWeights,
  right: Object.fromEntries(RIGHT_TERM_IDS.map((id) => [id, right(id)])) as RightWeights,
});

export const STANDING: Weights = weightsBy(
  (id) => LEFT_TERMS[id].weight,
  (id) => RIGHT_TERMS[id].weight,
);

/** Free terms at the numbers that were set by hand; what is not free stands as it does. */
export const startOf = (free: readonly string[]): Weights =>
  weightsBy(
    (id) => (free.includes(nameOf('left', id)) ? LEFT_TERMS[id].start : LEFT_TERMS[id].weight),
    (id) => (free.includes(nameOf('right', id)) ? RIGHT_TERMS[id].start : RIGHT_TERMS[id].weight),
  );

/** Every weight under its name. */
export const byName = ({ left, right }: Weights): Readonly<Record<string, number>> =>
  Object.fromEntries([
    ...Object.entries(left).map(([term, weight]) => [nameOf('left', term), weight]),
    ...Object.entries(right).map(([term, weight]) => [nameOf('right', term), weight]),
  ]) as Record<string, number>;

const rounded = (weight: number) => Math.round(10 * weight) / 10;

/** @param factors by name; a term without one keeps its weight */
export function withFactors(start: Weights, factors: ReadonlyMap<string, number>): Weights {
  const weigh = (hand: Hand, term: string, weight: number) => {
    const factor = factors.get(nameOf(hand, term));
    return factor === undefined ? weight : rounded(weight * factor);
  };
  return weightsBy(
    (id) => weigh('left', id, start.left[id]),
    (id) => weigh('right', id, start.right[id]),
  );
}

/** Costs of one hand's terms at some weights, named and told as they would be at others. */
export function told(
  hand: Hand,
  costs: ReadonlyMap<string, number>,
  { at, as }: { readonly at: Weights; readonly as: Weights },
): readonly (readonly [name: string, cost: number])[] {
  const [now, then] = [at[hand], as[hand]] as Readonly<Record<string, number>>[];
  return [...costs].map(([term, cost]) => [
    nameOf(hand, term),
    now![term]! > 0 ? (cost * then![term]!) / now![term]! : cost,
  ]);
}
