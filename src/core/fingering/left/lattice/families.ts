/** States of a layer that grew from the same kept hand, and so can be come to in the same ways. */
import type { Entrance, Source } from './keptHands';
import type { StateRows } from './packedLayer';

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
  const entrancesInto = entrancesOf();
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

/** A list of sources is gone through once for all memories that a free hand may bring along. */
function entrancesOf() {
  const free = new Map<readonly Source[], ReadonlyMap<number, readonly Entrance[]>>();
  return (sources: readonly Source[], memory: number): readonly Entrance[] => {
    if (memory === STOPPED) return sources;
    let known = free.get(sources);
    if (!known) free.set(sources, (known = freeEntrances(sources)));
    return known.get(memory) ?? [];
  };
}

function freeEntrances(sources: readonly Source[]): ReadonlyMap<number, readonly Entrance[]> {
  const all = new Map<number, Entrance[]>();
  for (const source of sources) {
    for (const [memory, crowd] of source.crowd.byMemory) {
      const entrance = { crowd, cuts: source.cuts, taker: source.taker };
      const alike = all.get(memory);
      if (alike) alike.push(entrance);
      else all.set(memory, [entrance]);
    }
  }
  return all;
}
