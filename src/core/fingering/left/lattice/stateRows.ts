/** Makes the states of a moment: what is kept, joined with every placement of what is struck. */
import type { Arena } from '../../solver/arena';
import { barresPlayable } from '../rules/constraints';
import { type HandState, handState } from '../rules/handState';
import { FINGER_OF, type HandTables, NO_PLACE, PLACEMENTS } from './handTables';
import { type KeptHand, type KeptHands, type Source, spanOf, stringBit } from './keptHands';
import type { StateRows } from './packedLayer';

/** The rows, and for each state the ways to the kept hand that it grew from. */
export interface GrownStates {
  readonly rows: StateRows;
  readonly sourcesOf: readonly (readonly Source[])[];
}

/** Depth-first over the struck notes; a placement that clashes with an earlier one is never gone into. */
export function growStates(
  tables: HandTables,
  arena: Arena,
  heldCount: number,
  kept: KeptHands,
  choices: readonly (readonly number[])[],
): GrownStates {
  const columns = heldCount + choices.length;
  const made = new RowsInTheMaking(tables, columns, kept);
  const chosen = Array.from({ length: columns }, () => NO_PLACE);
  const descend = (column: number, hand: KeptHand) => {
    if (column === columns) return void made.add(chosen, hand);
    for (const place of choices[column - heldCount]!) {
      if (!fitsBefore(tables, chosen, column, place)) continue;
      chosen[column] = place;
      descend(column + 1, hand);
      chosen[column] = NO_PLACE;
    }
  };
  for (const hand of kept.kept) {
    hand.held.forEach((place, h) => (chosen[h] = place));
    descend(heldCount, hand);
  }
  return made.finished(arena);
}

function fitsBefore(tables: HandTables, chosen: readonly number[], column: number, place: number): boolean {
  for (let c = 0; c < column; c++) {
    if (chosen[c] !== NO_PLACE && tables.pairCost(chosen[c]!, place) < 0) return false;
  }
  return true;
}

class RowsInTheMaking {
  private readonly places: number[] = [];
  private readonly fingers: number[] = [];
  private readonly down: number[] = [];
  private readonly range: number[] = [];
  private readonly memory: number[] = [];
  private readonly barred = new Map<number, HandState>();
  private readonly sourcesOf: (readonly Source[])[] = [];
  private readonly silenced = new Map<readonly Source[], Map<number, readonly Source[]>>();

  private readonly remembered = new Map<readonly Source[], readonly number[]>();

  constructor(
    private readonly tables: HandTables,
    private readonly columns: number,
    private readonly kept: KeptHands,
  ) {}

  add(chosen: readonly number[], hand: KeptHand) {
    const fingers = [NO_PLACE, NO_PLACE, NO_PLACE, NO_PLACE];
    let down = 0;
    let used = 0;
    let doubled = false;
    for (const place of chosen) {
      if (place !== NO_PLACE) used |= stringBit(place);
      const finger = place === NO_PLACE ? 0 : FINGER_OF[place]!;
      if (finger === 0) continue;
      if (down & (1 << (finger - 1))) doubled = true;
      else {
        down |= 1 << (finger - 1);
        fingers[finger - 1] = place;
      }
    }
    const barred = doubled ? this.maybeBarred(chosen) : null;
    if (doubled && !barred) return;
    const sources = barred?.barre ? hand.sources : this.withSilence(hand.sources, used);
    if (sources.length === 0 && hand.sources.length > 0) return;
    if (barred) this.barred.set(this.sourcesOf.length, barred);
    if (down > 0) {
      const { low, high } = barred?.range ?? spanOf(chosen);
      this.push(chosen, sources, fingers, down, this.tables.rangeId(low, high), 0);
    } else this.addFree(chosen, sources);
  }

  /** Those whose open strings, let go, have something lying on them now: one list for all states that silence the same. */
  private withSilence(sources: readonly Source[], used: number): readonly Source[] {
    let freed = 0;
    for (const { freedOpen } of sources) freed |= freedOpen;
    if ((freed & ~used) === 0) return sources;
    const key = used & freed;
    let bySilence = this.silenced.get(sources);
    if (!bySilence) this.silenced.set(sources, (bySilence = new Map()));
    let rest = bySilence.get(key);
    if (!rest) bySilence.set(key, (rest = sources.filter(({ freedOpen }) => (freedOpen & ~used) === 0)));
    return rest;
  }

  private maybeBarred(chosen: readonly number[]): HandState | null {
    const sounding = chosen.flatMap((place, c) => (place === NO_PLACE ? [] : [c]));
    const placements = sounding.map((c) => PLACEMENTS[chosen[c]!]!);
    if (!barresPlayable(placements)) return null;
    return handState(sounding, placements, null);
  }

  /** One state for each thing that the freed hand may remember. */
  private addFree(chosen: readonly number[], sources: readonly Source[]) {
    let remembered = this.remembered.get(sources);
    if (!remembered) this.remembered.set(sources, (remembered = rememberedBy(sources)));
    for (const index of remembered) {
      const memory = this.kept.memories[index];
      if (memory) this.push(chosen, sources, memory.fingers, 0, memory.range, index + 1);
      else this.push(chosen, sources, [NO_PLACE, NO_PLACE, NO_PLACE, NO_PLACE], 0, -1, 0);
    }
  }

  private push(
    chosen: readonly number[],
    sources: readonly Source[],
    fingers: readonly number[],
    down: number,
    range: number,
    memory: number,
  ) {
    for (const place of chosen) this.places.push(place);
    for (const place of fingers) this.fingers.push(place);
    this.down.push(down);
    this.range.push(range);
    this.memory.push(memory);
    this.sourcesOf.push(sources);
  }

  finished(arena: Arena): GrownStates {
    const count = this.sourcesOf.length;
    const rows: StateRows = {
      count,
      columns: this.columns,
      places: filled(arena.int16(this.places.length), this.places),
      fingers: filled(arena.int16(this.fingers.length), this.fingers),
      down: filled(arena.uint8(count), this.down),
      range: filled(arena.int16(count), this.range),
      memory: filled(arena.int32(count), this.memory),
      memories: this.kept.memories,
      barred: this.barred,
    };
    return { rows, sourcesOf: this.sourcesOf };
  }
}

/** Indices of memories in their order, −1 for none. */
function rememberedBy(sources: readonly Source[]): readonly number[] {
  const remembered = new Set<number>();
  for (const source of sources) for (const index of source.crowd.byMemory.keys()) remembered.add(index);
  if (sources.length === 0) remembered.add(-1);
  return [...remembered].sort((a, b) => a - b);
}

function filled<T extends Int16Array | Int32Array | Uint8Array>(array: T, values: readonly number[]): T {
  array.set(values);
  return array;
}
