/** Whether two layers have the same states in the same order. Everything else in the rows follows from these. */
import type { StateRows } from './packedLayer';

export function sameRows(a: StateRows, b: StateRows): boolean {
  return (
    a.count === b.count &&
    a.columns === b.columns &&
    sameNumbers(a.places, b.places) &&
    sameNumbers(a.memory, b.memory) &&
    a.memories.length === b.memories.length &&
    a.memories.every((one, k) => {
      const other = b.memories[k]!;
      return (
        one.range === other.range &&
        one.waitedTicks === other.waitedTicks &&
        sameNumbers(one.fingers, other.fingers)
      );
    })
  );
}

function sameNumbers(a: ArrayLike<number>, b: ArrayLike<number>): boolean {
  if (a.length !== b.length) return false;
  for (let k = 0; k < a.length; k++) if (a[k] !== b[k]) return false;
  return true;
}

/** FNV-1a over the places and memories; equal for equal rows. */
export function rowsHash({ columns, places, memory }: StateRows): number {
  let hash = 0x811c9dc5 ^ columns;
  for (let k = 0; k < places.length; k++) hash = Math.imul(hash ^ places[k]!, 0x01000193);
  for (let k = 0; k < memory.length; k++) hash = Math.imul(hash ^ memory[k]!, 0x01000193);
  return hash;
}
