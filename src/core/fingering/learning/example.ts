/** What is learnt from: music with a fingering that somebody accepts, beside others that nobody asked for. */

/** What each term adds to a fingering's cost at the weights that learning starts from: the measure times that weight. */
export type TermCosts = ReadonlyMap<string, number>;

/** A fingering that should cost more than the accepted one. */
export interface Rival {
  /** Its costs less those of the accepted fingering, term by term. */
  readonly above: TermCosts;
  /** By how much more it should cost. */
  readonly margin: number;
}

export interface Example {
  readonly id: string;
  /** Families weigh equally, however many examples they have. */
  readonly family: string;
  readonly rivals: readonly Rival[];
}

/** Each family's share is divided among its examples; all shares together are 1. By example. */
export function sharesOf(examples: readonly Pick<Example, 'family'>[]): readonly number[] {
  const counts = new Map<string, number>();
  for (const { family } of examples) counts.set(family, (counts.get(family) ?? 0) + 1);
  return examples.map(({ family }) => 1 / counts.size / counts.get(family)!);
}

/** A fingering's costs less another's. */
export function differenceOf(a: TermCosts, b: TermCosts): TermCosts {
  const terms = new Set([...a.keys(), ...b.keys()]);
  return new Map([...terms].map((term) => [term, (a.get(term) ?? 0) - (b.get(term) ?? 0)]));
}
