/** Makes the states of a moment: what is kept, joined with every placement of what is struck. */
import { STRINGS, openMidi } from '../../../instrument/tuning';
import type { FingeringProblem, Moment, Strike } from '../../problem';
import { barresPlayable } from '../constraints';
import { type HandState, handState, type Placement } from '../handState';
import { FINGER_OF, type HandTables, NO_PLACE, placeId, PLACEMENTS } from './handTables';
import { type KeptHand, type KeptHands, spanOf } from './keptHands';
import type { StateRows } from './packedLayer';

/** Strings, frets and fingers that could sound one pitch: open first, then by string and finger. */
export function placementsOf(
  problem: Pick<FingeringProblem, 'tuning' | 'hand'>,
  { midi, touch }: Pick<Strike, 'midi' | 'touch'>,
): readonly Placement[] {
  if (touch) return touch.flatMap((place) => [1, 2, 3, 4].map((finger) => ({ ...place, finger })));
  const all: Placement[] = [];
  for (const string of STRINGS) {
    const fret = midi - openMidi(problem.tuning, string);
    if (fret === 0) all.push({ string, fret, finger: 0 });
    if (fret < 1 || fret > problem.hand.highestFret) continue;
    for (let finger = 1; finger <= 4; finger++) all.push({ string, fret, finger });
  }
  return all;
}

/** The rows, and for each state the kept hand that it grew from. */
export interface GrownStates {
  readonly rows: StateRows;
  readonly keptOf: readonly KeptHand[];
}

/** Depth-first over the struck strikes; a placement that clashes with an earlier one is never gone into. */
export function growStates(
  tables: HandTables,
  moment: Moment,
  kept: KeptHands,
  struck: readonly number[],
  choices: readonly (readonly number[])[],
): GrownStates {
  const strikes = [...moment.held, ...struck];
  const made = new RowsInTheMaking(tables, strikes, kept);
  const chosen = strikes.map(() => NO_PLACE);
  const heldCount = moment.held.length;
  const descend = (depth: number, hand: KeptHand) => {
    if (depth === struck.length) return void made.add(chosen, hand);
    const column = heldCount + depth;
    for (const place of choices[depth]!) {
      if (!fitsBefore(tables, chosen, column, place)) continue;
      chosen[column] = place;
      descend(depth + 1, hand);
      chosen[column] = NO_PLACE;
    }
  };
  for (const hand of kept.kept) {
    hand.held.forEach((place, h) => (chosen[h] = place));
    descend(0, hand);
  }
  return made.finished();
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
  private readonly keptOf: KeptHand[] = [];

  constructor(
    private readonly tables: HandTables,
    private readonly strikes: readonly number[],
    private readonly kept: KeptHands,
  ) {}

  add(chosen: readonly number[], hand: KeptHand) {
    const fingers = [NO_PLACE, NO_PLACE, NO_PLACE, NO_PLACE];
    let down = 0;
    let doubled = false;
    for (const place of chosen) {
      const finger = place === NO_PLACE ? 0 : FINGER_OF[place]!;
      if (finger === 0) continue;
      if (down & (1 << (finger - 1))) doubled = true;
      else {
        down |= 1 << (finger - 1);
        fingers[finger - 1] = place;
      }
    }
    if (doubled && !this.addBarred(chosen)) return;
    if (down > 0) {
      const { low, high } = spanOf(chosen);
      this.push(chosen, hand, fingers, down, this.tables.rangeId(low, high), 0);
    } else this.addFree(chosen, hand);
  }

  private addBarred(chosen: readonly number[]): boolean {
    const sounding = chosen.flatMap((place, c) => (place === NO_PLACE ? [] : [c]));
    const placements = sounding.map((c) => PLACEMENTS[chosen[c]!]!);
    if (!barresPlayable(placements)) return false;
    this.barred.set(
      this.keptOf.length,
      handState(
        sounding.map((c) => this.strikes[c]!),
        placements,
        null,
      ),
    );
    return true;
  }

  /** One state for each thing that the freed hand may remember. */
  private addFree(chosen: readonly number[], hand: KeptHand) {
    const remembered = new Set<number>();
    for (const source of hand.sources)
      for (const index of source.group.byMemory.keys()) remembered.add(index);
    if (hand.sources.length === 0) remembered.add(-1);
    for (const index of remembered) {
      const memory = this.kept.memories[index];
      if (memory) this.push(chosen, hand, memory.fingers, 0, memory.range, index + 1);
      else this.push(chosen, hand, [NO_PLACE, NO_PLACE, NO_PLACE, NO_PLACE], 0, -1, 0);
    }
  }

  private push(
    chosen: readonly number[],
    hand: KeptHand,
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
    this.keptOf.push(hand);
  }

  finished(): GrownStates {
    const rows: StateRows = {
      count: this.keptOf.length,
      strikes: this.strikes,
      places: Int16Array.from(this.places),
      fingers: Int16Array.from(this.fingers),
      down: Uint8Array.from(this.down),
      range: Int16Array.from(this.range),
      memory: Int32Array.from(this.memory),
      memories: this.kept.memories,
      barred: this.barred,
    };
    return { rows, keptOf: this.keptOf };
  }
}

/** Places of a strike as numbers. */
export const placesOf = (problem: FingeringProblem, strike: number): readonly number[] =>
  placementsOf(problem, problem.strikes[strike]!).map(placeId);
