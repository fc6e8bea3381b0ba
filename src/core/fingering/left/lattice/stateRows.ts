/** The states of a layer as numbers in a row for each, and how rules and records read them. */
import { type Hand, LONG_FREE } from '../rules/hand';
import { type HandMemory, handState, type HandState } from '../rules/handState';
import { NO_PLACE, PLACEMENTS } from '../rules/place';

/** A freed hand: where it stayed, which fingers it remembers, and for how long it has been free at the moment. */
export interface RowMemory {
  readonly anchor: number;
  /** LONG_FREE: as long as it can use. */
  readonly waitedTicks: number;
  /** What fingers 1 to 4 left, NO_STAND for nothing. */
  readonly stands: readonly number[];
}

/** What the states of a layer are made of, before they are priced. Free of their place in the piece. */
export interface StateRows {
  readonly count: number;
  /** Strikes that may sound, held ones first: a column of `places` each. */
  readonly columns: number;
  /** By state and column: number of a place, or NO_PLACE. */
  readonly places: Int16Array;
  /** By state and finger (1 to 4 at 0 to 3): what lies under it, or what a freed hand remembers. */
  readonly stands: Int16Array;
  /** By state: a bit for each finger that is down. */
  readonly down: Uint8Array;
  /** By state: the hand's range; NO_RANGE where no finger is down. */
  readonly range: Int16Array;
  /** By state: where the hand stays, or stayed before it was freed. See `anchor.ts`. */
  readonly anchor: Uint8Array;
  /** By state: the barre that lies, whether what it stops sounds or not; NO_STAND for none. */
  readonly lying: Int16Array;
  /** By state: index of its memory plus one, 0 while a finger is down or none ever was. */
  readonly memory: Int32Array;
  readonly memories: readonly RowMemory[];
}

export const placeAt = ({ places, columns }: StateRows, state: number, column: number): number =>
  places[state * columns + column]!;

/** What a freed hand remembers in a state; null where a finger is down or none ever was. */
export const memoryAt = ({ memory, memories }: StateRows, state: number): RowMemory | null =>
  memory[state] === 0 ? null : memories[memory[state]! - 1]!;

/** Some of the rows, in their order. */
export function pickedRows(rows: StateRows, states: readonly number[]): StateRows {
  const { columns, places, stands } = rows;
  const perState = <T extends Int16Array | Int32Array | Uint8Array>(from: T, into: T, width: number): T => {
    states.forEach((s, n) => {
      for (let c = 0; c < width; c++) into[n * width + c] = from[s * width + c]!;
    });
    return into;
  };
  const count = states.length;
  return {
    count,
    columns,
    places: perState(places, new Int16Array(count * columns), columns),
    stands: perState(stands, new Int16Array(4 * count), 4),
    down: perState(rows.down, new Uint8Array(count), 1),
    range: perState(rows.range, new Int16Array(count), 1),
    anchor: perState(rows.anchor, new Uint8Array(count), 1),
    lying: perState(rows.lying, new Int16Array(count), 1),
    memory: perState(rows.memory, new Int32Array(count), 1),
    memories: rows.memories,
  };
}

/** One row as rules see it; another after `at`. */
export class RowHand implements Hand {
  private state = 0;

  /** @param struckColumns by note that is struck at the moment: its column, −1 where it is left out */
  constructor(
    private readonly rows: StateRows,
    private readonly struckColumns: readonly number[],
  ) {}

  at(state: number): this {
    this.state = state;
    return this;
  }

  get columns(): number {
    return this.rows.columns;
  }

  placeOn(column: number): number {
    return placeAt(this.rows, this.state, column);
  }

  placeOfStruck(k: number): number {
    const column = this.struckColumns[k]!;
    return column < 0 ? NO_PLACE : this.placeOn(column);
  }

  standUnder(finger: number): number {
    return this.rows.stands[4 * this.state + finger - 1]!;
  }

  get lying(): number {
    return this.rows.lying[this.state]!;
  }

  get down(): number {
    return this.rows.down[this.state]!;
  }

  get range(): number {
    return this.rows.range[this.state]!;
  }

  get anchor(): number {
    return this.rows.anchor[this.state]!;
  }

  get waitedTicks(): number | null {
    return memoryAt(this.rows, this.state)?.waitedTicks ?? null;
  }
}

/** A row as a record. */
export function recordAt(
  rows: StateRows,
  strikes: readonly number[],
  tick: number,
  state: number,
): HandState {
  const sounding = strikes.map((_strike, c) => c).filter((c) => placeAt(rows, state, c) !== NO_PLACE);
  const memory = memoryAt(rows, state);
  return handState(
    sounding.map((c) => strikes[c]!),
    sounding.map((c) => PLACEMENTS[placeAt(rows, state, c)]!),
    memory && recordOf(memory, tick),
    rows.anchor[state]!,
    rows.lying[state]!,
  );
}

const recordOf = ({ anchor, waitedTicks, stands }: RowMemory, tick: number): HandMemory => ({
  anchor,
  freedTick: waitedTicks === LONG_FREE ? LONG_FREE : tick - waitedTicks,
  stands,
});
