/** All states that a hand can take at a moment, as numbers in a row for each state. */
import type { Layer } from '../../solver/lattice';
import type { PackedWays } from './packedWays';
import { codeOf, type HandMemory, handState, type HandState } from '../rules/handState';
import { LONG_FREE } from '../rules/memory';
import { FINGER_OF, type HandTables, NO_PLACE, PLACEMENTS } from './handTables';
import type { Step } from './step';

/** A freed hand: which range and fingers it remembers, and for how long it has been free at the moment. */
export interface PackedMemory {
  readonly range: number;
  /** LONG_FREE: as long as it can use. */
  readonly waitedTicks: number;
  /** Places that fingers 1 to 4 left, NO_PLACE for none. */
  readonly fingers: readonly number[];
}

/** What the states of a layer are made of, before they are priced. Free of their place in the piece. */
export interface StateRows {
  readonly count: number;
  /** Strikes that may sound, held ones first: a column of `places` each. */
  readonly columns: number;
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
  /** States with a barre as records, since the rules price them. Their strikes are numbers of columns. */
  readonly barred: ReadonlyMap<number, HandState>;
}

export class PackedLayer implements Layer {
  private unpacked: readonly HandState[] | null = null;
  private readonly asked = new Map<number, HandState>();

  constructor(
    readonly tables: HandTables,
    readonly rows: StateRows,
    /** Which strike each column is. */
    readonly strikes: readonly number[],
    private readonly tick: number,
    /** Struck strikes that are left out because no hand can play them with the rest. */
    readonly omitted: ReadonlySet<number>,
    readonly stateCost: Int32Array,
    readonly ways: PackedWays | null,
    /** How often the moment is played, and how often right after the one before it. */
    readonly plays: number,
    readonly steps: number,
  ) {}

  /** Every state as a record; made when it is asked for. */
  get states(): readonly HandState[] {
    this.unpacked ??= Array.from({ length: this.rows.count }, (_, s) => this.state(s));
    return this.unpacked;
  }

  state(s: number): HandState {
    let state = this.unpacked?.[s] ?? this.asked.get(s);
    if (!state) this.asked.set(s, (state = stateOf(this.rows, this.strikes, this.tick, this.tables, s)));
    return state;
  }
}

function stateOf(
  rows: StateRows,
  strikes: readonly number[],
  tick: number,
  tables: HandTables,
  s: number,
): HandState {
  const columns = soundingColumns(rows, s);
  const memory = rows.memory[s]! > 0 ? memoryOf(rows.memories[rows.memory[s]! - 1]!, tick, tables) : null;
  return handState(
    columns.map((c) => strikes[c]!),
    placementsAt(rows, s, columns),
    memory,
  );
}

/** What lies in a state, whatever it remembers. Its strikes are numbers of columns. */
export function standingOf(rows: StateRows, s: number): HandState {
  const columns = soundingColumns(rows, s);
  return handState(columns, placementsAt(rows, s, columns), null);
}

function soundingColumns(rows: StateRows, s: number): readonly number[] {
  const sounding: number[] = [];
  for (let c = 0; c < rows.columns; c++) if (rows.places[s * rows.columns + c] !== NO_PLACE) sounding.push(c);
  return sounding;
}

const placementsAt = (rows: StateRows, s: number, columns: readonly number[]) =>
  columns.map((c) => PLACEMENTS[rows.places[s * rows.columns + c]!]!);

const memoryOf = (
  { range, waitedTicks, fingers }: PackedMemory,
  tick: number,
  tables: HandTables,
): HandMemory => ({
  range: tables.ranges[range]!,
  freedTick: waitedTicks === LONG_FREE ? LONG_FREE : tick - waitedTicks,
  fingers: fingers.map((place) => (place === NO_PLACE ? 0 : codeOf(PLACEMENTS[place]!))),
});

/** How many ticks before the new moment the last stopped strike of the state frees the hand. */
export function releasedTicks(rows: StateRows, s: number, step: Step): number {
  let ticks = Infinity;
  for (let c = 0; c < rows.columns; c++) {
    const place = rows.places[s * rows.columns + c]!;
    if (place !== NO_PLACE && FINGER_OF[place]! > 0) ticks = Math.min(ticks, step.endedTicks[c]!);
  }
  return ticks;
}

/** How many ticks before the new moment the hand was freed; LONG_FREE for a memory that is that old. */
export function freedTicks(rows: StateRows, s: number, step: Step): number {
  const memory = rows.memory[s]!;
  if (memory === 0) return releasedTicks(rows, s, step);
  const { waitedTicks } = rows.memories[memory - 1]!;
  return waitedTicks === LONG_FREE ? LONG_FREE : waitedTicks + step.ticks;
}
