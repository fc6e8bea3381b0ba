/**
 * One step of a fit: every weight times a factor, so that it stays positive, against what the passages complain of.
 * A pull to the start keeps what no passage speaks about where it was.
 */
export interface StepRules<Id extends string> {
  /** Not fitted. */
  readonly fixed: ReadonlySet<Id>;
  readonly pull: number;
  /** A weight stays within this factor of its start, both ways. */
  readonly farthest: number;
}

export type Gradient<Id extends string> = ReadonlyMap<Id, number>;
type Weights<Id extends string> = Readonly<Record<Id, number>>;

export const normOf = (...gradients: readonly Gradient<string>[]): number =>
  Math.max(1, Math.hypot(...gradients.flatMap((gradient) => [...gradient.values()])));

/** @param rate how far a step goes, already divided by the norm of the whole gradient where that should count */
export function stepped<Id extends string>(
  weights: Weights<Id>,
  start: Weights<Id>,
  gradient: Gradient<Id>,
  { rate, pullRate }: { readonly rate: number; readonly pullRate: number },
  { fixed, pull, farthest }: StepRules<Id>,
): Record<Id, number> {
  const limit = Math.log(farthest);
  const next = (id: Id) => {
    if (start[id] === 0 || fixed.has(id)) return start[id];
    const away = Math.log(weights[id] / start[id]);
    const moved = away - rate * (gradient.get(id) ?? 0) - pullRate * pull * away;
    return start[id] * Math.exp(Math.max(-limit, Math.min(limit, moved)));
  };
  return Object.fromEntries((Object.keys(start) as Id[]).map((id) => [id, next(id)])) as Record<Id, number>;
}

/** The average of the second half of a fit is steadier than its last member. */
export class Average<Id extends string> {
  private count = 0;
  private readonly mean: Record<Id, number>;

  /** @param start what the average is as long as nothing was added */
  constructor(start: Weights<Id>) {
    this.mean = { ...start };
  }

  add(weights: Weights<Id>): void {
    for (const id of Object.keys(this.mean) as Id[])
      this.mean[id] = (this.mean[id] * this.count + weights[id]) / (this.count + 1);
    this.count++;
  }

  /** Three digits are enough to say and to read. */
  get rounded(): Record<Id, number> {
    const entries = (Object.entries(this.mean) as [Id, number][]).map(([id, weight]) => [
      id,
      Number(weight.toPrecision(weight >= 100 ? 3 : 2)),
    ]);
    return Object.fromEntries(entries) as Record<Id, number>;
  }
}
