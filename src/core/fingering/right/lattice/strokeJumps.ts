/** What ways back and on to other endings cost the right hand: what it knows there, and how it plays on. */
import type { FingeringProblem } from '../../problem/problem';
import { type Jump, type JumpPrices, jumpPrices } from '../../solver/jumps';
import type { StrokeLayer } from './strokeChain';
import type { SharedStrokes, StrokeStore } from './strokeStore';

/** @param strokes one layer more than there are moments; the first is the start */
export const strokeJumps = (
  { passes }: FingeringProblem,
  store: StrokeStore,
  strokes: readonly StrokeLayer[],
): readonly Jump[] =>
  passes.returns.map(({ from, to, times }) => {
    const [before, here] = [strokes[from + 1]!, strokes[to + 1]!];
    const { columnOf, prices } = known(store, before.shared, here, times);
    return { from: from + 1, to: to + 1, rowOf: before.shared.situationOf, columnOf, prices };
  });

interface Known {
  readonly columnOf: Int32Array;
  readonly prices: JumpPrices;
}

const knownAfter = new WeakMap<SharedStrokes, WeakMap<SharedStrokes, Map<number, Known>>>();

function known(store: StrokeStore, before: SharedStrokes, here: StrokeLayer, times: number): Known {
  let ofLayer = knownAfter.get(before);
  if (!ofLayer) knownAfter.set(before, (ofLayer = new WeakMap()));
  let ofTimes = ofLayer.get(here.shared);
  if (!ofTimes) ofLayer.set(here.shared, (ofTimes = new Map()));
  let found = ofTimes.get(times);
  if (!found) ofTimes.set(times, (found = jumpInto(store, before, here, times)));
  return found;
}

function jumpInto(store: StrokeStore, before: SharedStrokes, here: StrokeLayer, times: number): Known {
  // The same groups after the jump: both layers go through the same sharings in the same order.
  const after = store.layer(before, here.groups);
  const landed = sharingOf(after);
  const columns = 1 + landed.at(-1)!;
  const rows = before.situations.count;
  const price = new Int32Array(rows * columns);
  const { start, from, price: way } = after.ways;
  for (let s = 0; s < landed.length; s++)
    for (let e = start[s]!; e < start[s + 1]!; e++) price[from[e]! * columns + landed[s]!] = times * way[e]!;
  return { columnOf: sharingOf(here.shared), prices: jumpPrices(rows, columns, price) };
}

/** By state: which sharing it is, in their order. */
function sharingOf({ states }: SharedStrokes): Int32Array {
  let number = 0;
  return Int32Array.from(states, ({ variant, played }, s) => {
    const last = states[s - 1];
    if (last && (last.played !== played || last.variant !== variant)) number++;
    return number;
  });
}
