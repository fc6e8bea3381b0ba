/** The ways of the right hand between two moments as bare rows, which can be made narrower. */
import { Arena } from '../solver/arena';

/** How states of the right hand are come to: from the situations that those of the moment before leave. */
export interface Links {
  /** By state: the situation that it leaves. */
  readonly situationOf: Int32Array;
  readonly situations: number;
  /** Ways into state s are numbered `start[s]` to `start[s + 1]` − 1. */
  readonly start: Int32Array;
  readonly from: Int32Array;
  readonly price: Int32Array;
}

/**
 * Ways between states that are kept, which come in the order of their old numbers. Those into the first moment are left
 * out: what comes before it is told otherwise.
 */
export function narrowLinks(links: readonly Links[], kept: readonly Int32Array[]): readonly Links[] {
  const arena = new Arena();
  // By situation before: its number among those that are left, −1 for none.
  let before = new Int32Array(0);
  return links.map((link, k) => {
    const ways = k === 0 ? noWays(kept[0]!.length) : narrowWays(arena, link, kept[k]!, before);
    const left = leftSituations(link, kept[k]!);
    before = left.newOf;
    return { ...ways, situationOf: left.situationOf, situations: left.count };
  });
}

const noWays = (states: number) => ({
  start: new Int32Array(states + 1),
  from: new Int32Array(0),
  price: new Int32Array(0),
});

function narrowWays(arena: Arena, { start, from, price }: Links, states: Int32Array, before: Int32Array) {
  // Region for all of them, of which those are written whose situation is left.
  let size = 0;
  for (const s of states) size += start[s + 1]! - start[s]!;
  const into = new Int32Array(states.length + 1);
  const froms = arena.int32(size);
  const prices = arena.int32(size);
  let count = 0;
  for (let n = 0; n < states.length; n++) {
    for (let e = start[states[n]!]!, end = start[states[n]! + 1]!; e < end; e++) {
      const here = before[from[e]!]!;
      if (here < 0) continue;
      froms[count] = here;
      prices[count++] = price[e]!;
    }
    into[n + 1] = count;
  }
  return { start: into, from: froms, price: prices };
}

/** Situations that kept states leave, numbered in the order in which these come. */
function leftSituations({ situationOf, situations }: Links, states: Int32Array) {
  const newOf = new Int32Array(situations).fill(-1);
  const leaves = new Int32Array(states.length);
  let count = 0;
  for (let n = 0; n < states.length; n++) {
    const old = situationOf[states[n]!]!;
    if (newOf[old]! < 0) newOf[old] = count++;
    leaves[n] = newOf[old]!;
  }
  return { situationOf: leaves, count, newOf };
}
