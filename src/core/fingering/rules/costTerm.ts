/** A row of a cost table: one thing that makes a fingering harder, measured first and weighed second. */
export interface CostTerm {
  readonly unit: 'mm' | 'ms share' | 'quarters' | 'count' | 'fret' | 'finger' | 'strings';
  readonly measures: string;
  /** Effort (in tenths of a point) per unit of `shape`. */
  readonly weight: number;
  readonly source: string;
  /** The measured value as it grows into effort. */
  readonly shape: (value: number) => number;
}

/**
 * Effort in whole tenths of a point: quantised after the formula, so that sums are exact. `weight` stands for the
 * term's own where a school or a hand weighs it otherwise.
 */
export function price(term: CostTerm, value: number, weight = term.weight): number {
  return Math.round(weight * term.shape(value));
}

export const linear = (value: number) => value;

/**
 * How pressing a movement is: needed time over the time there is. Up to 60 % it is free, up to 100 % tight,
 * beyond too fast. Source: handbook, "Shifts". Too fast starts with a step and saturates at three times the
 * window.
 */
export function urgency(share: number): number {
  if (share <= 0.6) return 0;
  if (share <= 1) return (share - 0.6) / 0.4;
  return 2 + 1.5 * (Math.min(share, 3) - 1);
}

/** @throws RangeError when a row has a weight that is not a finite number of at least 0 */
export function checkedTerms<T extends Readonly<Record<string, CostTerm>>>(terms: T): T {
  for (const [id, term] of Object.entries(terms)) {
    if (!Number.isFinite(term.weight) || term.weight < 0) throw new RangeError(`cost term ${id}: bad weight`);
  }
  return terms;
}
