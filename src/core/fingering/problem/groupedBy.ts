/** Items in groups, which keep the order in which they come. */
export function groupedBy<T>(items: readonly T[], keyOf: (item: T) => number): ReadonlyMap<number, T[]> {
  const groups = new Map<number, T[]>();
  for (const item of items) {
    const group = groups.get(keyOf(item));
    if (group) group.push(item);
    else groups.set(keyOf(item), [item]);
  }
  return groups;
}
