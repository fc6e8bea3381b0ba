/** Makes the states of a moment: what is held on, joined with every placement of what is struck. */
import type { Arena } from '../../solver/arena';
import { barresPlayable } from '../rules/constraints';
import { FINGER_OF, NO_PLACE, PLACEMENTS, STRING_OF, stringBit } from '../rules/place';
import { NO_RANGE, rangeId, rangeOf } from '../rules/range';
import { alsoOn, fretOfStand, isBarre, NO_STAND, standOn } from '../rules/stand';
import type { CostTables } from './costTables';
import { type Hold, type Holds, isSilenced } from './holds';
import type { StateRows } from './stateRows';

/** The rows, and for each state the arrivals at the hold that it grew from. */
export interface GrownStates {
  readonly rows: StateRows;
  readonly arrivalsOf: readonly (readonly number[])[];
}

/** Depth-first over the struck notes; a placement that clashes with an earlier one is never gone into. */
export function growStates(
  tables: CostTables,
  arena: Arena,
  heldCount: number,
  holds: Holds,
  choices: readonly (readonly number[])[],
): GrownStates {
  const columns = heldCount + choices.length;
  const made = new RowsInTheMaking(columns, holds);
  const chosen = Array.from({ length: columns }, () => NO_PLACE);
  const descend = (column: number, hold: Hold) => {
    if (column === columns) return void made.add(chosen, hold);
    for (const place of choices[column - heldCount]!) {
      if (!fitsBefore(tables, chosen, column, place)) continue;
      chosen[column] = place;
      descend(column + 1, hold);
      chosen[column] = NO_PLACE;
    }
  };
  for (const hold of holds.all) {
    hold.places.forEach((place, h) => (chosen[h] = place));
    descend(heldCount, hold);
  }
  return made.finished(arena);
}

function fitsBefore(tables: CostTables, chosen: readonly number[], column: number, place: number): boolean {
  for (let c = 0; c < column; c++) {
    if (chosen[c] !== NO_PLACE && !tables.fit(chosen[c]!, place)) return false;
  }
  return true;
}

/** A row of numbers besides the places; see `StateRows`. */
interface Lying {
  readonly stands: readonly number[];
  readonly down: number;
  readonly range: number;
  readonly memory: number;
}

class RowsInTheMaking {
  private readonly places: number[] = [];
  private readonly stands: number[] = [];
  private readonly down: number[] = [];
  private readonly range: number[] = [];
  private readonly memory: number[] = [];
  private readonly arrivalsOf: (readonly number[])[] = [];
  /** By arrivals and what is silenced, and by arrivals: lists are made once, since equal ones are told by being one. */
  private readonly silenced = new Map<readonly number[], Map<number, readonly number[]>>();
  private readonly remembered = new Map<readonly number[], readonly number[]>();

  constructor(
    private readonly columns: number,
    private readonly holds: Holds,
  ) {}

  add(chosen: readonly number[], hold: Hold): void {
    const stands = [NO_STAND, NO_STAND, NO_STAND, NO_STAND];
    let down = 0;
    let strings = 0;
    let doubled = false;
    for (const place of chosen) {
      if (place === NO_PLACE) continue;
      strings |= stringBit(STRING_OF[place]!);
      const k = FINGER_OF[place]! - 1;
      if (k < 0) continue;
      doubled ||= (down & (1 << k)) !== 0;
      stands[k] = down & (1 << k) ? alsoOn(stands[k]!, place) : standOn(place);
      down |= 1 << k;
    }
    if (doubled && !barresPlayable(placementsAmong(chosen))) return;
    const arrivals = this.withSilence(hold.arrivals, strings, stands[0]!);
    if (arrivals.length === 0 && hold.arrivals.length > 0) return;
    if (down > 0)
      this.push(chosen, arrivals, { stands, down, range: rangeWith(chosen, stands[0]!), memory: 0 });
    else this.addFree(chosen, arrivals);
  }

  /** Those whose open strings, let go, have something lying on them now: one list for all states that silence the same. */
  private withSilence(arrivals: readonly number[], strings: number, index: number): readonly number[] {
    const { freedOpen } = this.holds.arrivals;
    let freed = 0;
    for (const arrival of arrivals) freed |= freedOpen[arrival]!;
    if (isSilenced(freed, strings, index)) return arrivals;
    const key = strings & freed;
    let bySilence = this.silenced.get(arrivals);
    if (!bySilence) this.silenced.set(arrivals, (bySilence = new Map()));
    let rest = bySilence.get(key);
    if (!rest) {
      rest = arrivals.filter((arrival) => isSilenced(freedOpen[arrival]!, strings, NO_STAND));
      bySilence.set(key, rest);
    }
    return rest;
  }

  /** One state for each thing that the freed hand may remember. */
  private addFree(chosen: readonly number[], arrivals: readonly number[]): void {
    let remembered = this.remembered.get(arrivals);
    if (!remembered) this.remembered.set(arrivals, (remembered = this.rememberedBy(arrivals)));
    for (const index of remembered) {
      const memory = this.holds.memories[index];
      const { stands, range } = memory ?? NOWHERE;
      this.push(chosen, arrivals, { stands, down: 0, range, memory: memory ? index + 1 : 0 });
    }
  }

  /** Indices of memories in their order, −1 for none. */
  private rememberedBy(arrivals: readonly number[]): readonly number[] {
    if (arrivals.length === 0) return [-1];
    const remembered = new Set<number>();
    for (const arrival of arrivals)
      for (const index of this.holds.arrivals.groups[arrival]!.byMemory.keys()) remembered.add(index);
    return [...remembered].sort((a, b) => a - b);
  }

  private push(
    chosen: readonly number[],
    arrivals: readonly number[],
    { stands, down, range, memory }: Lying,
  ): void {
    for (const place of chosen) this.places.push(place);
    for (const stand of stands) this.stands.push(stand);
    this.down.push(down);
    this.range.push(range);
    this.memory.push(memory);
    this.arrivalsOf.push(arrivals);
  }

  finished(arena: Arena): GrownStates {
    const count = this.arrivalsOf.length;
    const rows: StateRows = {
      count,
      columns: this.columns,
      places: filled(arena.int16(this.places.length), this.places),
      stands: filled(arena.int16(this.stands.length), this.stands),
      down: filled(arena.uint8(count), this.down),
      range: filled(arena.int16(count), this.range),
      memory: filled(arena.int32(count), this.memory),
      memories: this.holds.memories,
    };
    return { rows, arrivalsOf: this.arrivalsOf };
  }
}

/** No finger ever lay. */
const NOWHERE = { stands: [NO_STAND, NO_STAND, NO_STAND, NO_STAND], range: NO_RANGE } as const;

const placementsAmong = (chosen: readonly number[]) =>
  chosen.filter((place) => place !== NO_PLACE).map((place) => PLACEMENTS[place]!);

/** A barre of finger 1 lets the hand stand nowhere else. */
function rangeWith(chosen: readonly number[], index: number): number {
  const fret = fretOfStand(index);
  return rangeId(isBarre(index) ? { low: fret, high: fret } : rangeOf(chosen)!);
}

function filled<T extends Int16Array | Int32Array | Uint8Array>(array: T, values: readonly number[]): T {
  array.set(values);
  return array;
}
