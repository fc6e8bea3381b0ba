/** What the hand's way between two states costs at least, whatever carries it and however long it may take. */
import type { FingeringProblem } from '../problem';
import type { HandRange, HandState } from './handState';
import { leastShiftCost } from './transition';

/** Ranges in half frets fit into one number. */
const keyOf = ({ low, high }: HandRange): number => (low + 16) * 64 + high + 16;

const known = new WeakMap<FingeringProblem, Map<number, number>>();

export class ShiftBounds {
  private readonly from: readonly (HandRange | null)[];
  private readonly fromKey: Int32Array;
  private readonly toKey: Int32Array;
  private readonly table: Map<number, number>;

  constructor(
    private readonly problem: FingeringProblem,
    before: readonly HandState[],
    private readonly states: readonly HandState[],
  ) {
    this.from = before.map((state) => state.range ?? state.memory?.range ?? null);
    this.fromKey = Int32Array.from(this.from, (range) => (range ? keyOf(range) : -1));
    this.toKey = Int32Array.from(states, (state) => (state.range ? keyOf(state.range) : -1));
    let table = known.get(problem);
    if (!table) known.set(problem, (table = new Map()));
    this.table = table;
  }

  /** Between state `from` of the layer before and state `to` of this one. */
  least(from: number, to: number): number {
    const a = this.fromKey[from]!;
    const b = this.toKey[to]!;
    if (a < 0 || b < 0 || a === b) return 0;
    const key = a * 4096 + b;
    let bound = this.table.get(key);
    if (bound === undefined) {
      bound = leastShiftCost(this.problem, this.from[from]!, this.states[to]!.range!);
      this.table.set(key, bound);
    }
    return bound;
  }
}
