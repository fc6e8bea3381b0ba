/**
 * A row of derived elements that declares what each of them depends on. An element stays as long as its dependencies
 * are the same objects; so does the whole row. What it is made from is what it has declared: `make` gets nothing else.
 */

/** What an element depends on. */
export interface Dependency<V, T = unknown> {
  valueAt(k: number): V;
  /** Whether it says the same of element k as it did when that was made. */
  isSame(earlier: Dependency<V, T>, k: number, element: T): boolean;
}

type Values<D extends readonly Dependency<unknown, never>[]> = {
  readonly [I in keyof D]: D[I] extends Dependency<infer V, never> ? V : never;
};

/** The element of another row at the same index. */
export function here<V>(row: readonly V[]): Dependency<V> {
  return {
    valueAt: (k) => row[k]!,
    isSame: (earlier, k) => row[k] === earlier.valueAt(k),
  };
}

/** The element of another row before it; null at the start. */
export function before<V>(row: readonly V[]): Dependency<V | null> {
  return {
    valueAt: (k) => row[k - 1] ?? null,
    isSame: (earlier, k) => (row[k - 1] ?? null) === earlier.valueAt(k),
  };
}

/** The element of another row after it; null at the end. */
export function after<V>(row: readonly V[]): Dependency<V | null> {
  return {
    valueAt: (k) => row[k + 1] ?? null,
    isSame: (earlier, k) => (row[k + 1] ?? null) === earlier.valueAt(k),
  };
}

/** One value for all elements. */
export function whole<V>(value: V): Dependency<V> {
  return { valueAt: () => value, isSame: (earlier, k) => value === earlier.valueAt(k) };
}

/** The elements of another row that `spanOf` says, of the element as it was, from the first to the last. */
export function over<V, T>(
  row: readonly V[],
  spanOf: (k: number, element: T) => readonly [number, number],
): Dependency<readonly V[], T> {
  let changes: Int32Array | null = null;
  return {
    valueAt: () => row,
    isSame(earlier, k, element) {
      changes ??= changesBefore(row, earlier.valueAt(k));
      const [first, last] = spanOf(k, element);
      return changes[last + 1] === changes[first];
    },
  };
}

/** By index: how many elements before it are other ones. */
function changesBefore(row: readonly unknown[], earlier: readonly unknown[]): Int32Array {
  const counts = new Int32Array(row.length + 1);
  for (let k = 0; k < row.length; k++) counts[k + 1] = counts[k]! + Number(row[k] !== earlier[k]);
  return counts;
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
      valueAt: (k) => this.made[k - 1] ?? null,
      isSame: (_earlier, k, element) => {
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
    const holds = (k: number) =>
      known !== null && deps.every((dep, n) => dep.isSame(known.deps[n]!, k, known.row[k]!));
    const made: T[] = (this.made = []);
    let anew = known === null;
    for (let k = 0; k < count; k++) {
      const values = () => deps.map((dep) => dep.valueAt(k)) as unknown as Values<D>;
      const element = holds(k) ? known!.row[k]! : this.kept(known?.row[k], make(k, ...values()));
      anew ||= element !== known!.row[k];
      made.push(element);
    }
    this.last = { row: anew ? made : known!.row, deps };
    return this.last.row;
  }

  private kept(earlier: T | undefined, made: T): T {
    return earlier !== undefined && this.equal(earlier, made) ? earlier : made;
  }
}
