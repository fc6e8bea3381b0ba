/**
 * A row of derived elements that declares what each of them depends on. An element stays as long as its dependencies
 * are the same objects; so does the whole row. What it is made from is what it has declared: `make` gets nothing else.
 */

/** What an element depends on. */
export interface Dependency<V, T = unknown> {
  /** What it reads: where that is the same object as earlier, nothing has changed. */
  readonly source: unknown;
  valueAt(k: number): V;
  /** Marks the elements of which it says something else than it did when they were made. */
  mark(earlier: Dependency<V, T>, changed: Uint8Array, elements: readonly T[]): void;
  /** For what is only known as the row grows: whether element k holds after those before it. */
  readonly holds?: (k: number, element: T) => boolean;
}

type Values<D extends readonly Dependency<unknown, never>[]> = {
  readonly [I in keyof D]: D[I] extends Dependency<infer V, never> ? V : never;
};

/** The element of another row so many places away; null beyond its ends. */
class At<V> implements Dependency<V | null> {
  constructor(
    readonly source: readonly V[],
    private readonly away: number,
  ) {}

  valueAt(k: number): V | null {
    return this.source[k + this.away] ?? null;
  }

  mark(earlier: At<V>, changed: Uint8Array): void {
    const { source, away } = this;
    const before = earlier.source;
    const [first, end] = [Math.max(0, -away), Math.min(changed.length, source.length - away)];
    for (let k = first; k < end; k++) if (source[k + away] !== before[k + away]) changed[k] = 1;
  }
}

/** The element of another row at the same index. */
export const here = <V>(row: readonly V[]) => new At(row, 0) as Dependency<unknown> as Dependency<V>;

/** The element of another row before it; null at the start. */
export const before = <V>(row: readonly V[]): Dependency<V | null> => new At(row, -1);

/** The element of another row after it; null at the end. */
export const after = <V>(row: readonly V[]): Dependency<V | null> => new At(row, 1);

/** One value for all elements. */
export const whole = <V>(value: V): Dependency<V> => ({
  source: value,
  valueAt: () => value,
  mark: (earlier, changed) => void (value !== earlier.source && changed.fill(1)),
});

/** The elements of another row that `spanOf` says, of the element as it was, from the first to the last. */
export const over = <V, T>(
  row: readonly V[],
  spanOf: (k: number, element: T) => readonly [number, number],
): Dependency<readonly V[], T> => ({
  source: row,
  valueAt: () => row,
  mark(earlier, changed, elements) {
    const changes = changesBefore(row, earlier.valueAt(0));
    for (let k = 0; k < changed.length; k++) {
      const [first, last] = spanOf(k, elements[k]!);
      if (changes[last + 1] !== changes[first]) changed[k] = 1;
    }
  },
});

/** By index: how many elements before it are other ones. */
function changesBefore(row: readonly unknown[], earlier: readonly unknown[]): Int32Array {
  const counts = new Int32Array(row.length + 1);
  for (let k = 0; k < row.length; k++) counts[k + 1] = counts[k]! + Number(row[k] !== earlier[k]);
  return counts;
}

/** The row of the last time, and what it was made from. */
interface Last<T> {
  readonly row: readonly T[];
  readonly deps: readonly Dependency<unknown, T>[];
}

export class Column<T> {
  private last: { readonly row: readonly T[]; readonly deps: readonly Dependency<unknown, T>[] } | null =
    null;
  private made: T[] = [];

  /** @param equal whether an element that has been made anew is what it was: then the earlier one stays */
  constructor(private readonly equal: (earlier: T, made: T) => boolean = () => false) {}

  /**
   * The column's own element before.
   * @param alike whether an element is the same after another one than `was`, too
   */
  own(
    alike: (element: T, before: T | null, k: number, was: T | null) => boolean = () => false,
  ): Dependency<T | null, T> {
    return {
      source: this,
      valueAt: (k) => this.made[k - 1] ?? null,
      mark: () => {},
      holds: (k, element) => {
        const [is, was] = [this.made[k - 1] ?? null, this.last!.row[k - 1] ?? null];
        return is === was || alike(element, is, k, was);
      },
    };
  }

  /** The elements, the earlier ones as far as they hold; the earlier row itself where all of it does. */
  of<const D extends readonly Dependency<unknown, T>[]>(
    count: number,
    deps: D,
    make: (k: number, ...values: Values<D>) => T,
  ): readonly T[] {
    const known = this.last?.row.length === count ? this.last : null;
    const changed = new Uint8Array(count);
    if (known) deps.forEach((dep, n) => markIn(dep, known.deps[n]!, changed, known.row));
    else changed.fill(1);
    const row = known && !changed.includes(1) ? known.row : this.grown(known, changed, deps, make);
    this.last = { row, deps };
    return row;
  }

  private grown<const D extends readonly Dependency<unknown, T>[]>(
    known: Last<T> | null,
    changed: Uint8Array,
    deps: D,
    make: (k: number, ...values: Values<D>) => T,
  ): readonly T[] {
    const growing = deps.filter(({ holds }) => holds !== undefined);
    const made: T[] = (this.made = known ? known.row.slice() : []);
    const holds = (k: number) =>
      growing.length === 0 ||
      made[k - 1] === known!.row[k - 1] ||
      growing.every((dep) => dep.holds!(k, made[k]!));
    let anew = known === null;
    for (let k = 0; k < changed.length; k++) {
      if (changed[k] === 0 && holds(k)) continue;
      const values = deps.map((dep) => dep.valueAt(k)) as unknown as Values<D>;
      made[k] = this.kept(known?.row[k], make(k, ...values));
      anew ||= made[k] !== known!.row[k];
    }
    return anew ? made : known!.row;
  }

  private kept(earlier: T | undefined, made: T): T {
    return earlier !== undefined && this.equal(earlier, made) ? earlier : made;
  }
}

function markIn<T>(
  dep: Dependency<unknown, T>,
  earlier: Dependency<unknown, T>,
  changed: Uint8Array,
  elements: readonly T[],
): void {
  if (dep.source !== earlier.source) dep.mark(earlier, changed, elements);
}
