/** Rows of numbers as keys: whatever was made of one is found again by its hash and by comparing. */

export function sameNumbers(a: ArrayLike<number>, b: ArrayLike<number>): boolean {
  if (a.length !== b.length) return false;
  for (let k = 0; k < a.length; k++) if (a[k] !== b[k]) return false;
  return true;
}

/** Where a hash begins, before its first row. */
export const HASH_START = 0x811c9dc5;

/** FNV-1a, going on from `start`; equal for equal rows. */
export function hashOf(row: ArrayLike<number>, start: number): number {
  let hash = start;
  for (let k = 0; k < row.length; k++) hash = Math.imul(hash ^ row[k]!, 0x01000193);
  return hash;
}
