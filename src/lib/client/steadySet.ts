/** A set that stays the same object while it holds the same: what is drawn from it is not drawn again. */
export function steadySet<T>(): (next: ReadonlySet<T>) => ReadonlySet<T> {
  let last: ReadonlySet<T> = new Set();
  return (next) => {
    const isSame = next.size === last.size && [...next].every((one) => last.has(one));
    if (!isSame) last = next;
    return last;
  };
}
