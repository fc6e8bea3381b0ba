/** Whether two layers have the same states in the same order. Everything else in the rows follows from these. */
import { HASH_START, hashOf, sameNumbers } from '../../solver/numberRows';
import type { StateRows } from './stateRows';

export function sameRows(a: StateRows, b: StateRows): boolean {
  return (
    a.count === b.count &&
    a.columns === b.columns &&
    sameNumbers(a.places, b.places) &&
    sameNumbers(a.anchor, b.anchor) &&
    sameNumbers(a.lying, b.lying) &&
    sameNumbers(a.memory, b.memory) &&
    a.memories.length === b.memories.length &&
    a.memories.every((one, k) => {
      const other = b.memories[k]!;
      return (
        one.anchor === other.anchor &&
        one.waitedTicks === other.waitedTicks &&
        sameNumbers(one.stands, other.stands)
      );
    })
  );
}

/** Equal for equal rows. */
export const rowsHash = ({ columns, places, anchor, lying, memory }: StateRows): number =>
  hashOf(memory, hashOf(lying, hashOf(anchor, hashOf(places, HASH_START ^ columns))));
