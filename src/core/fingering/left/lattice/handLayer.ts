/** All states that a hand can take at a moment of the piece. */
import type { Layer, Ways } from '../../solver/lattice';
import type { HandState } from '../rules/handState';
import type { SharedLayer } from './layerStore';
import { recordAt, type StateRows } from './stateRows';

/** Ways whose single prices can be asked for; UNREACHABLE where there is none. */
export interface StepWays extends Ways {
  priceOf(from: number, to: number): number;
  /** Between some states of both layers, row by row of those before. */
  pricesBetween(before: readonly number[], here: readonly number[]): Int32Array;
}

/** Where a layer stands in the piece. */
export interface LayerPlace {
  /** Which strike each column is. */
  readonly strikes: readonly number[];
  readonly tick: number;
  /** Struck strikes that are left out because no hand can play them with the rest. */
  readonly omitted: ReadonlySet<number>;
  /** How often the moment is played, and how often right after the one before it. */
  readonly plays: number;
  readonly steps: number;
}

export class HandLayer implements Layer {
  readonly rows: StateRows;
  readonly stateCost: Int32Array;
  readonly ways: StepWays | null;
  readonly strikes: readonly number[];
  readonly omitted: ReadonlySet<number>;
  readonly plays: number;
  readonly steps: number;
  private unpacked: readonly HandState[] | null = null;
  private readonly asked = new Map<number, HandState>();

  constructor(
    { rows, stateCost, ways }: SharedLayer,
    readonly place: LayerPlace,
  ) {
    const { strikes, omitted, plays, steps } = place;
    this.rows = rows;
    this.stateCost = stateCost;
    this.ways = ways;
    this.strikes = strikes;
    this.omitted = omitted;
    this.plays = plays;
    this.steps = steps;
  }

  /** Every state as a record; made when it is asked for. */
  get states(): readonly HandState[] {
    this.unpacked ??= Array.from({ length: this.rows.count }, (_, s) => this.state(s));
    return this.unpacked;
  }

  state(s: number): HandState {
    let state = this.unpacked?.[s] ?? this.asked.get(s);
    if (!state) this.asked.set(s, (state = recordAt(this.rows, this.strikes, this.place.tick, s)));
    return state;
  }
}
