/** Divides examples for cross-validation: what is the same music lies in one fold. */

/**
 * @param musicOf equal for examples with the same music
 * @returns as many folds as asked for, as even as the groups allow; the same for the same examples
 */
export function foldsOf<T>(
  examples: readonly T[],
  count: number,
  musicOf: (example: T) => string,
): readonly T[][] {
  const groups = new Map<string, T[]>();
  for (const example of examples) {
    const music = musicOf(example);
    const group = groups.get(music);
    if (group) group.push(example);
    else groups.set(music, [example]);
  }
  const folds: T[][] = Array.from({ length: count }, () => []);
  // The largest first, each into the emptiest fold; ties go to the first.
  const inOrder = [...groups.values()].sort((a, b) => b.length - a.length);
  for (const group of inOrder) folds.reduce((a, b) => (b.length < a.length ? b : a)).push(...group);
  return folds;
}
