/** States of a layer that grew from the same kept hand, and so can be come to in the same ways. */
import type { Crowd, Source } from './keptHands';
import type { StateRows } from './packedLayer';

/** A crowd of states before, with what is cut or handed over on the way from each of them. */
interface Entrance {
  readonly crowd: Crowd;
  readonly cuts: number;
  readonly taker: number;
}

export interface Family {
  readonly states: number[];
  readonly entrances: readonly Entrance[];
}

/** Instead of the number of a memory: something is stopped, and what the hand before leaves need not be remembered. */
const STOPPED = -2;

/** @param sourcesOf by state; states that grew from the same kept hand share one list */
export function familiesOf(rows: StateRows, sourcesOf: readonly (readonly Source[])[]): readonly Family[] {
  const families: Family[] = [];
  const known = new Map<readonly Source[], Map<number, Family>>();
  for (let s = 0; s < rows.count; s++) {
    const sources = sourcesOf[s]!;
    let alike = known.get(sources);
    if (!alike) known.set(sources, (alike = new Map()));
    const memory = rows.down[s]! > 0 ? STOPPED : rows.memory[s]! - 1;
    let family = alike.get(memory);
    if (!family) {
      family = { states: [], entrances: entrancesInto(sources, memory) };
      alike.set(memory, family);
      families.push(family);
    }
    family.states.push(s);
  }
  return families;
}

function entrancesInto(sources: readonly Source[], memory: number): readonly Entrance[] {
  const entrances: Entrance[] = [];
  for (const { group, cuts, taker } of sources) {
    const crowd = memory === STOPPED ? group.all : group.byMemory.get(memory);
    if (crowd) entrances.push({ crowd, cuts, taker });
  }
  return entrances;
}
