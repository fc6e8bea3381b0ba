/** States of a layer that can be come to in the same ways: a class of predecessors for each kind of them. */
import type { Arrivals, HeldGroup } from './holds';
import type { StateRows } from './stateRows';

/** States before, and what it costs to come from each of them. */
export interface Predecessors {
  readonly states: readonly number[];
  /** What is cut or handed over on the way, in tenths of a point. */
  readonly cuts: number;
  /** Bit of the finger that takes a held note over and must have been free; 0 for none. */
  readonly taker: number;
}

export interface PredecessorClass {
  /** States of the layer. */
  readonly members: number[];
  readonly predecessors: readonly Predecessors[];
}

/** Instead of the number of a memory: something is stopped, and what the hand before leaves need not be remembered. */
const STOPPED = -2;

/** @param arrivalsOf by state; states that grew from the same hold share one list */
export function predecessorClasses(
  rows: StateRows,
  arrivals: Arrivals,
  arrivalsOf: readonly (readonly number[])[],
): readonly PredecessorClass[] {
  const classes: PredecessorClass[] = [];
  const known = new Map<readonly number[], Map<number, PredecessorClass>>();
  for (let s = 0; s < rows.count; s++) {
    const list = arrivalsOf[s]!;
    let alike = known.get(list);
    if (!alike) known.set(list, (alike = new Map()));
    const memory = rows.down[s]! > 0 ? STOPPED : rows.memory[s]! - 1;
    let one = alike.get(memory);
    if (!one) {
      one = { members: [], predecessors: predecessorsBy(arrivals, list, memory) };
      alike.set(memory, one);
      classes.push(one);
    }
    one.members.push(s);
  }
  return classes;
}

const NO_STATES: readonly number[] = [];

function predecessorsBy(
  arrivals: Arrivals,
  list: readonly number[],
  memory: number,
): readonly Predecessors[] {
  const statesOf = ({ states, byMemory }: HeldGroup) =>
    memory === STOPPED ? states : (byMemory.get(memory) ?? NO_STATES);
  const all: Predecessors[] = [];
  for (const arrival of list) {
    const states = statesOf(arrivals.groups[arrival]!);
    if (states.length > 0)
      all.push({ states, cuts: arrivals.cuts[arrival]!, taker: arrivals.takers[arrival]! });
  }
  return all;
}
