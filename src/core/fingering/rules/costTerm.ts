/** One thing that makes a fingering harder, measured first and weighed second: all that is to be known of it. */
export interface TermRow {
  readonly unit: 'mm' | 'ms share' | 'quarters' | 'count' | 'fret' | 'finger' | 'strings';
  readonly measures: string;
  readonly source: string;
  /** For the reader, as what there is more of. */
  readonly words: string;
  /** Terms of a group are told as one reason. */
  readonly group?: string;
  /** The weight that fitting starts from. */
  readonly start: number;
  /** Whether fitting may move the weight; otherwise it is set by hand. */
  readonly fitted: boolean;
  /** The measured value as it grows into effort. */
  readonly shape: (value: number) => number;
}

export interface CostTerm extends TermRow {
  readonly id: string;
  /** Effort (in tenths of a point) per unit of `shape`. */
  readonly weight: number;
}

/**
 * Effort in whole tenths of a point: quantised after the formula, so that sums are exact. `weight` stands for the
 * term's own where a school or a hand weighs it otherwise.
 */
export function price(term: CostTerm, value: number, weight = term.weight): number {
  return Math.round(weight * term.shape(value));
}

export const linear = (value: number) => value;

/** A movement that needs no more than this share of its time is free. Source: handbook, "Shifts". */
export const FREE_SHARE = 0.6;

/**
 * How pressing a movement is: needed time over the time there is. Up to 60 % it is free, up to 100 % tight,
 * beyond too fast. Source: handbook, "Shifts". Too fast starts with a step and saturates at three times the
 * window.
 */
export function urgency(share: number): number {
  if (share <= FREE_SHARE) return 0;
  if (share <= 1) return (share - FREE_SHARE) / (1 - FREE_SHARE);
  return 2 + 1.5 * (Math.min(share, 3) - 1);
}

/**
 * A table of terms from its rows and its weights.
 * @throws RangeError when a row has no weight that is a finite number of at least 0, or a weight no row
 */
export function termsOf<Id extends string>(
  rows: Readonly<Record<Id, TermRow>>,
  weights: Readonly<Record<NoInfer<Id>, number>>,
): Readonly<Record<Id, CostTerm>> {
  const orphan = Object.keys(weights).find((id) => !(id in rows));
  if (orphan) throw new RangeError(`weight of ${orphan}: there is no such term`);
  const terms: Partial<Record<Id, CostTerm>> = {};
  for (const id of Object.keys(rows) as Id[])
    terms[id] = { ...rows[id], id, weight: checked(id, weights[id]) };
  return terms as Record<Id, CostTerm>;
}

/** What a reader is told of each term. */
export const wordsOf = <Id extends string>(
  terms: Readonly<Record<Id, TermRow>>,
): Readonly<Record<Id, string>> =>
  Object.fromEntries((Object.keys(terms) as Id[]).map((id) => [id, terms[id].words])) as Record<Id, string>;

function checked(id: string, weight: number): number {
  if (!Number.isFinite(weight) || weight < 0) throw new RangeError(`cost term ${id}: bad weight`);
  return weight;
}
