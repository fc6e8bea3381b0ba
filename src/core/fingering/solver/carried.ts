/**
 * A row by moment that is mostly that of an earlier question: what is the same there is taken from it, the rest is
 * made. Whether it is the same should show in the rows themselves and not in what lies in them: to look into hundreds
 * of moments takes longer than to compare all of their rows.
 * @param isSame whether the earlier element holds at k, when `made` comes before it
 * @returns `earlier` itself where all of it holds
 */
export function carried<T>(
  count: number,
  earlier: readonly T[] | null,
  isSame: (k: number, made: readonly T[]) => boolean,
  make: (k: number, made: readonly T[]) => T,
): readonly T[] {
  const known = earlier?.length === count ? earlier : null;
  const made: T[] = [];
  let anew = known === null;
  for (let k = 0; k < count; k++) {
    const element = known && isSame(k, made) ? known[k]! : make(k, made);
    if (known && element !== known[k]) anew = true;
    made.push(element);
  }
  return anew ? made : known!;
}
