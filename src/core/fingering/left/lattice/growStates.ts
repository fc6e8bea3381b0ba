/** Makes the states of a moment: what is held on, joined with every placement of what is struck. */
import type { Arena } from '../../solver/arena';
import { barresPlayable } from '../rules/constraints';
import { FINGER_OF, NO_PLACE, PLACEMENTS, STRING_OF, stringBit } from '../rules/place';
import { anchorsFor, NO_ANCHOR } from '../rules/anchor';
import { type HandRange, NO_RANGE, rangeId, rangeOf } from '../rules/range';
import { alsoOn, fretOfStand, isBarre, NO_STAND, standOn } from '../rules/stand';
import type { CostTables } from './costTables';
import { type Hold, type Holds, isSilenced } from './holds';
import { LyingBarres } from './lyingBarres';
import type { StateRows } from './stateRows';

/** The rows, and for each state the arrivals at the hold that it grew from. */
export interface GrownStates {
  readonly rows: StateRows;
  readonly arrivalsOf: readonly (readonly number[])[];
}

/** What is placed besides what is held, a column each, in this order: where its note may lie. */
export interface Choices {
  /** Notes that are struck where they lie, or anywhere where their grip is let go. */
  readonly taken: readonly (readonly number[])[];
  readonly struck: readonly (readonly number[])[];
  /** Parts of a grip that are struck later: taken together, or none of them. */
  readonly laid: readonly (readonly number[])[];
}

/** Depth-first over the notes to be placed; a placement that clashes with another one is never gone into. */
export function growStates(
  tables: CostTables,
  arena: Arena,
  holds: Holds,
  { taken, struck, laid }: Choices,
): GrownStates {
  const heldCount = holds.all[0]?.places.length ?? 0;
  const columns = heldCount + taken.length + struck.length + laid.length;
  const made = new RowsInTheMaking(columns, holds, heldCount, taken.length);
  const chosen = Array.from({ length: columns }, () => NO_PLACE);
  const firstLaid = laid.length > 0 ? columns - laid.length : -1;
  const descend = (column: number, hold: Hold, choices: readonly (readonly number[])[]) => {
    if (column === columns) return void made.add(chosen, hold);
    for (const place of choices[column - heldCount]!) {
      if (!fitsBefore(tables, chosen, column, place)) continue;
      chosen[column] = place;
      descend(column + 1, hold, choices);
      chosen[column] = NO_PLACE;
    }
    // What is laid comes last in a row, and none of it may.
    if (column === firstLaid) made.add(chosen, hold);
  };
  for (const hold of holds.all) {
    hold.places.forEach((place, h) => (chosen[h] = place));
    const bound = taken.map((places, k) => boundPlaces(places, hold, holds.arrivals.bound, k));
    descend(heldCount, hold, [...bound, ...struck, ...laid]);
  }
  return made.finished(arena);
}

/** Where the k-th of the notes that lie already may lie, as far as all arrivals at a hold bind it. */
function boundPlaces(
  places: readonly number[],
  { arrivals }: Hold,
  bound: readonly (readonly number[])[],
  k: number,
): readonly number[] {
  const left = new Set<number>();
  for (const arrival of arrivals) {
    const place = bound[arrival]![k]!;
    if (place === NO_PLACE) return places;
    left.add(place);
  }
  return places.filter((place) => left.has(place));
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
  readonly anchor: number;
  readonly memory: number;
}

class RowsInTheMaking {
  private readonly places: number[] = [];
  private readonly stands: number[] = [];
  private readonly down: number[] = [];
  private readonly range: number[] = [];
  private readonly anchor: number[] = [];
  private readonly memory: number[] = [];
  private readonly barre: number[] = [];
  private readonly arrivalsOf: (readonly number[])[] = [];
  /** By arrivals and what is silenced, and by arrivals: lists are made once, since equal ones are told by being one. */
  private readonly silenced = new Map<readonly number[], Map<number, readonly number[]>>();
  private readonly byTaken = new Map<readonly number[], Map<string, readonly number[]>>();
  private readonly lying: LyingBarres;
  private readonly remembered = new Map<readonly number[], readonly number[]>();

  constructor(
    private readonly columns: number,
    private readonly holds: Holds,
    private readonly firstTaken: number,
    private readonly takenCount: number,
  ) {
    this.lying = new LyingBarres(holds.arrivals);
  }

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
    const arrivals = this.bound(this.withSilence(hold.arrivals, strings, stands[0]!), chosen);
    if (arrivals.length === 0 && hold.arrivals.length > 0) return;
    if (down === 0) {
      this.addFree(chosen, arrivals);
      return;
    }
    const range = rangeWith(chosen, stands[0]!);
    for (const anchor of anchorsFor(range, bitCount(down), isBarre(stands[0]!)))
      this.push(chosen, arrivals, { stands, down, range: rangeId(range), anchor, memory: 0 });
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

  /** Those whose grips leave the notes that are struck in them where they lie now. */
  private bound(arrivals: readonly number[], chosen: readonly number[]): readonly number[] {
    const { bound } = this.holds.arrivals;
    const { firstTaken, takenCount } = this;
    if (takenCount === 0 || arrivals.length === 0) return arrivals;
    const taken = chosen.slice(firstTaken, firstTaken + takenCount);
    const agrees = (arrival: number) =>
      bound[arrival]!.every((place, k) => place === NO_PLACE || place === taken[k]);
    let byTaken = this.byTaken.get(arrivals);
    if (!byTaken) this.byTaken.set(arrivals, (byTaken = new Map()));
    const key = taken.join();
    let rest = byTaken.get(key);
    if (!rest) byTaken.set(key, (rest = arrivals.every(agrees) ? arrivals : arrivals.filter(agrees)));
    return rest;
  }

  /** One state for each thing that the freed hand may remember. */
  private addFree(chosen: readonly number[], arrivals: readonly number[]): void {
    let remembered = this.remembered.get(arrivals);
    if (!remembered) this.remembered.set(arrivals, (remembered = this.rememberedBy(arrivals)));
    for (const index of remembered) {
      const memory = this.holds.memories[index];
      const { stands, anchor } = memory ?? NOWHERE;
      this.push(chosen, arrivals, {
        stands,
        down: 0,
        range: NO_RANGE,
        anchor,
        memory: memory ? index + 1 : 0,
      });
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
    { stands, down, range, anchor, memory }: Lying,
  ): void {
    const index = down & 1 ? stands[0]! : NO_STAND;
    for (const [lying, some] of this.lying.after(arrivals, { index, anchor, places: chosen }))
      this.pushUnder(chosen, some, { stands, down, range, anchor, memory, lying });
  }

  private pushUnder(
    chosen: readonly number[],
    arrivals: readonly number[],
    { stands, down, range, anchor, memory, lying }: Lying & { readonly lying: number },
  ): void {
    for (const place of chosen) this.places.push(place);
    for (const stand of stands) this.stands.push(stand);
    this.down.push(down);
    this.range.push(range);
    this.anchor.push(anchor);
    this.memory.push(memory);
    this.barre.push(lying);
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
      anchor: filled(arena.uint8(count), this.anchor),
      lying: filled(arena.int16(count), this.barre),
      memory: filled(arena.int32(count), this.memory),
      memories: this.holds.memories,
    };
    return { rows, arrivalsOf: this.arrivalsOf };
  }
}

/** No finger ever lay. */
const NOWHERE = { stands: [NO_STAND, NO_STAND, NO_STAND, NO_STAND], anchor: NO_ANCHOR } as const;

const placementsAmong = (chosen: readonly number[]) =>
  chosen.filter((place) => place !== NO_PLACE).map((place) => PLACEMENTS[place]!);

const bitCount = (bits: number) => (bits & 1) + ((bits >> 1) & 1) + ((bits >> 2) & 1) + ((bits >> 3) & 1);

/** A barre of finger 1 lets the hand stand nowhere else. */
function rangeWith(chosen: readonly number[], index: number): HandRange {
  const fret = fretOfStand(index);
  return isBarre(index) ? { low: fret, high: fret } : rangeOf(chosen)!;
}

function filled<T extends Int16Array | Int32Array | Uint8Array>(array: T, values: readonly number[]): T {
  array.set(values);
  return array;
}
