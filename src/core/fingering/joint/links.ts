/** The ways of the right hand between two moments as bare rows, which can be made narrower. */
import { Arena } from '../arena';

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

/** Ways between states that are kept, which come in the order of their old numbers. */
export function narrowLinks(links: readonly Links[], kept: readonly Int32Array[]): readonly Links[] {
  const arena = new Arena();
  // By situation before: its number among those that are left, −1 for none.
  let before = new Int32Array(1);
  return links.map(({ situationOf, situations, start, from, price }, k) => {
    const states = kept[k]!;
    // Room for all of them, of which those are written whose situation is left.
    let room = 0;
    for (const s of states) room += start[s + 1]! - start[s]!;
    const into = new Int32Array(states.length + 1);
    const froms = arena.int32(room);
    const prices = arena.int32(room);
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
    const newOf = new Int32Array(situations).fill(-1);
    const leaves = new Int32Array(states.length);
    let left = 0;
    for (let n = 0; n < states.length; n++) {
      const old = situationOf[states[n]!]!;
      if (newOf[old]! < 0) newOf[old] = left++;
      leaves[n] = newOf[old]!;
    }
    before = newOf;
    return { situationOf: leaves, situations: left, start: into, from: froms, price: prices };
  });
}
