/** What hands remember that a step frees. */
import { LONG_FREE } from '../rules/hand';
import { standsLeft, waitedAfter } from '../rules/follows';
import { ANCHORS, NO_ANCHOR } from '../rules/anchor';
import { STANDS } from '../rules/stand';
import type { HandStep } from '../rules/step';
import type { RowHand, RowMemory, StateRows } from './stateRows';

export interface Memories {
  readonly all: readonly RowMemory[];
  /** By state of the layer before: index of what it leaves in memory, −1 for nothing. */
  readonly of: Int32Array;
}

export function memoriesAfter(rows: StateRows, hand: RowHand, step: HandStep): Memories {
  const all: RowMemory[] = [];
  const indexOf = new Map<number, Map<number, Map<number, number>>>();
  const of = new Int32Array(rows.count).fill(-1);
  for (let s = 0; s < rows.count; s++) {
    const { anchor } = hand.at(s);
    if (anchor === NO_ANCHOR) continue;
    const waitedTicks = waitedAfter(hand, step);
    const stands = standsLeft(hand, waitedTicks);
    const alike = within(within(indexOf, waitedTicks), stands[0]! * ANCHORS + anchor);
    const key = (stands[1]! * STANDS + stands[2]!) * STANDS + stands[3]!;
    let index = alike.get(key);
    if (index === undefined) {
      index = all.push({ anchor, waitedTicks, stands }) - 1;
      alike.set(key, index);
    }
    of[s] = index;
  }
  return inOrder(all, of);
}

function within<V>(maps: Map<number, Map<number, V>>, key: number): Map<number, V> {
  let map = maps.get(key);
  if (!map) maps.set(key, (map = new Map()));
  return map;
}

/**
 * Part of the tie rule: by how long the hand has been free (longest first), where it was, from the first position up,
 * and what its fingers left.
 */
function inOrder(all: readonly RowMemory[], of: Int32Array): Memories {
  const keys = all.map(({ waitedTicks, anchor, stands }) => [
    waitedTicks === LONG_FREE ? -1 : waitedTicks,
    anchor,
    ...stands,
  ]);
  const order = all.map((_memory, index) => index);
  order.sort((a, b) => {
    const k = keys[a]!.findIndex((part, n) => part !== keys[b]![n]);
    return k < 0 ? 0 : keys[a]![k]! - keys[b]![k]!;
  });
  const rankOf = new Int32Array(all.length);
  order.forEach((index, rank) => (rankOf[index] = rank));
  for (let s = 0; s < of.length; s++) if (of[s]! >= 0) of[s] = rankOf[of[s]!]!;
  return { all: order.map((index) => all[index]!), of };
}
