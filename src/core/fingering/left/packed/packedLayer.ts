/** All states that a hand can take at a moment, as numbers in a row for each state. */
import type { Layer, Ways } from '../../lattice';
import type { FingeringProblem, Moment } from '../../problem';
import { codeOf, type HandMemory, handState, type HandState } from '../handState';
import { FINGER_OF, type HandTables, NO_PLACE, PLACEMENTS } from './handTables';

/** A freed hand: which range and fingers it remembers, and since when. */
export interface PackedMemory {
  readonly range: number;
  readonly freedTick: number;
  /** Places that fingers 1 to 4 left, NO_PLACE for none. */
  readonly fingers: readonly number[];
}

/** What the states of a layer are made of, before they are priced. */
export interface StateRows {
  readonly count: number;
  /** Strikes that may sound, held ones first: a column of `places` each. */
  readonly strikes: readonly number[];
  /** By state and column: place or NO_PLACE. */
  readonly places: Int16Array;
  /** By state and finger (1 to 4 at 0 to 3): the first place under it, or what a freed hand remembers. */
  readonly fingers: Int16Array;
  /** By state: a bit for each finger that is down. */
  readonly down: Uint8Array;
  /** By state: the hand's range, or the one a freed hand remembers; −1 where no finger ever lay. */
  readonly range: Int16Array;
  /** By state: index of its memory plus one, 0 while a finger is down or none ever was. */
  readonly memory: Int32Array;
  readonly memories: readonly PackedMemory[];
  /** States with a barre, as records: the rules price them. */
  readonly barred: ReadonlyMap<number, HandState>;
}

export class PackedLayer implements Layer {
  private unpacked: readonly HandState[] | null = null;

  constructor(
    readonly tables: HandTables,
    readonly rows: StateRows,
    /** Struck strikes that are left out because no hand can play them with the rest. */
    readonly omitted: ReadonlySet<number>,
    readonly stateCost: Int32Array,
    readonly ways: Ways | null,
  ) {}

  /** Every state as a record; made when it is asked for. */
  get states(): readonly HandState[] {
    this.unpacked ??= Array.from({ length: this.rows.count }, (_, s) => this.state(s));
    return this.unpacked;
  }

  state(s: number): HandState {
    return this.unpacked?.[s] ?? stateOf(this.rows, this.tables, s);
  }
}

export function stateOf(rows: StateRows, tables: HandTables, s: number): HandState {
  const columns = rows.strikes.length;
  const strikes: number[] = [];
  const placements = [];
  for (let c = 0; c < columns; c++) {
    const place = rows.places[s * columns + c]!;
    if (place === NO_PLACE) continue;
    strikes.push(rows.strikes[c]!);
    placements.push(PLACEMENTS[place]!);
  }
  const memory = rows.memory[s]! > 0 ? memoryOf(rows.memories[rows.memory[s]! - 1]!, tables) : null;
  return handState(strikes, placements, memory);
}

const memoryOf = ({ range, freedTick, fingers }: PackedMemory, tables: HandTables): HandMemory => ({
  range: tables.ranges[range]!,
  freedTick,
  fingers: fingers.map((place) => (place === NO_PLACE ? 0 : codeOf(PLACEMENTS[place]!))),
});

/** Last tick, seen from `next`, at which a stopped strike of the state holds the hand. */
export function releasedTickOf(problem: FingeringProblem, rows: StateRows, s: number, next: Moment): number {
  const columns = rows.strikes.length;
  let tick = 0;
  for (let c = 0; c < columns; c++) {
    const place = rows.places[s * columns + c]!;
    if (place === NO_PLACE || FINGER_OF[place] === 0) continue;
    const end = problem.strikes[rows.strikes[c]!]!.endTicks;
    tick = Math.max(tick, Math.min(next.tick, end));
  }
  return tick;
}
