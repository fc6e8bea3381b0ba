/**
 * Lookup tables of one hand on one instrument. Everything that the rules say about two placements, or two ranges
 * of the hand, is worked out by the rules once and read from here millions of times.
 * They say nothing of a piece, so that the next one finds them.
 */
import type { FingeringProblem } from '../../problem/problem';
import { pairPlayable } from '../rules/constraints';
import type { HandRange, Placement } from '../rules/handState';
import { Arena } from '../../solver/arena';
import { placementsOf } from '../rules/placements';
import { hopMs } from '../rules/hops';
import { Bill } from '../rules/ledger';
import { chargeFingers, chargeShape, chargeSpread, chargeStruck } from '../rules/stateCost';
import type { StruckNote } from './step';
import { MOST_RANGES, ShiftTable } from './shiftTable';

const FRETS = 25;
const FINGERS = 5;
const SPOTS = 6 * FRETS;
export const PLACES = SPOTS * FINGERS;

/** No placement: let go, left out, or a free finger. */
export const NO_PLACE = -1;

/** Places are numbered by string, fret and finger. */
export const placeId = ({ string, fret, finger }: Placement): number =>
  ((string - 1) * FRETS + fret) * FINGERS + finger;

export const PLACEMENTS: readonly Placement[] = Array.from({ length: PLACES }, (_, id) => ({
  string: Math.floor(id / FINGERS / FRETS) + 1,
  fret: Math.floor(id / FINGERS) % FRETS,
  finger: id % FINGERS,
}));
export const STRING_OF = Uint8Array.from(PLACEMENTS, (place) => place.string);
export const FRET_OF = Uint8Array.from(PLACEMENTS, (place) => place.fret);
export const FINGER_OF = Uint8Array.from(PLACEMENTS, (place) => place.finger);
/** Where finger 1 lies or would lie. */
export const BASE_OF = Int8Array.from(PLACEMENTS, ({ fret, finger }) => fret - (finger - 1));

/** Positions from three frets beyond the nut on. */
const POSITIONS = 32;
const BEYOND_NUT = 4;

/** Fingers lie at most so many frets apart. */
const SPREAD_BITS = 4;
const SPREADS = 1 << SPREAD_BITS;

const UNKNOWN = 0;
const IMPOSSIBLE = 1;
/** Costs are stored so much higher, to keep the two marks free. */
const STORED = 2;

/** Where a hand has met more windows of time, or more kinds of pairs, it forgets them and begins anew. */
const MOST_WINDOWS = 64;
const MOST_NAMES = 256;

export type Geometry = Pick<FingeringProblem, 'fretboard' | 'hand' | 'weights' | 'tuning'>;

interface StruckTables {
  readonly note: StruckNote;
  /** By place, then by the hand's position; −1 unknown. */
  readonly costs: Map<number, Int32Array>;
}

/** Costs of two places, a row for each first place that comes up; −1 for what is not known yet. */
export class PairCosts {
  private readonly rows: (Int32Array | undefined)[] = new Array<undefined>(PLACES);

  constructor(private readonly arena: Arena) {}

  rowOf(place: number): Int32Array {
    return (this.rows[place] ??= this.arena.int32(PLACES).fill(-1));
  }
}

export class HandTables {
  private readonly arena = new Arena();
  private readonly pairs = new Int32Array(PLACES * PLACES);
  private readonly hops = new Float64Array(SPOTS * SPOTS).fill(-1);
  private readonly rangeIds = new Map<number, number>();
  readonly ranges: HandRange[] = [];
  private readonly shiftTables = new Map<number, ShiftTable>();
  private readonly struckTablesOf = new Map<string, StruckTables>();
  private readonly placesOfPitch = new Map<number, readonly number[]>();

  private readonly turnTables = new Map<number, Int32Array>();
  private readonly namedPairs = new Map<string, PairCosts>();

  /** By a bit for each finger (0 for open): what these cost when they stop struck notes. */
  readonly fingerCosts: Int32Array;

  /** By two neighbours among the fingers (times 4) and the frets between them. */
  private readonly spread: Int32Array;

  constructor(readonly geometry: Geometry) {
    this.spread = Int32Array.from({ length: 16 * SPREADS }, (_, cell) => {
      const [low, high] = [(cell >> 2) >> SPREAD_BITS, (cell >> SPREAD_BITS) & 3];
      const bill = new Bill(geometry.weights, undefined);
      const frets = [-1, -1, -1, -1];
      frets[low] = 0;
      frets[high] = cell & (SPREADS - 1);
      if (low < high) chargeSpread(frets, bill);
      return bill.sum;
    });
    this.fingerCosts = Int32Array.from({ length: 32 }, (_, fingers) => {
      const bill = new Bill(geometry.weights, undefined);
      chargeFingers(fingers, bill);
      return bill.sum;
    });
  }

  /** Shape cost of two placements under different fingers, or none for one finger; −1 when no hand does it. */
  pairCost(a: number, b: number): number {
    const cell = a * PLACES + b;
    if (this.pairs[cell] === UNKNOWN) this.pairs[cell] = this.pairNow(a, b);
    const stored = this.pairs[cell]!;
    return stored === IMPOSSIBLE ? -1 : stored - STORED;
  }

  private pairNow(a: number, b: number): number {
    const [one, other] = [PLACEMENTS[a]!, PLACEMENTS[b]!];
    const { fretboard, hand, weights } = this.geometry;
    if (!pairPlayable(one, other, fretboard, hand)) return IMPOSSIBLE;
    const bill = new Bill(weights, undefined);
    if (one.finger !== other.finger) chargeShape(this.geometry, [one, other], bill);
    return bill.sum + STORED;
  }

  hopMs(a: number, b: number): number {
    const cell = Math.floor(a / FINGERS) * SPOTS + Math.floor(b / FINGERS);
    if (this.hops[cell]! < 0) this.hops[cell] = hopMs(this.geometry, PLACEMENTS[a]!, PLACEMENTS[b]!);
    return this.hops[cell]!;
  }

  rangeId(low: number, high: number): number {
    const key = (low + 16) * 64 + high + 16;
    let id = this.rangeIds.get(key);
    if (id === undefined) {
      id = this.ranges.length;
      if (id >= MOST_RANGES) throw new Error('more ranges of the hand than a fretboard has');
      this.rangeIds.set(key, id);
      this.ranges.push({ low, high });
    }
    return id;
  }

  shiftTable(windowMs: number): ShiftTable {
    const known = this.shiftTables.get(windowMs);
    if (known) return known;
    const table = new ShiftTable(this.geometry, this.ranges, windowMs);
    // Under a tempo that never stands still there is no end of windows.
    return kept(this.shiftTables, windowMs, table, MOST_WINDOWS);
  }

  /** For `struckCost`. */
  struckTables(note: StruckNote): StruckTables {
    const { role, printed, ornamented } = note;
    const key = `${role === 'melody'}:${printed.finger}:${printed.string}:${ornamented}`;
    let tables = this.struckTablesOf.get(key);
    if (!tables) this.struckTablesOf.set(key, (tables = { note, costs: new Map() }));
    return tables;
  }

  /** What striking a note at a place costs, by the hand's position (see `positionOf`). */
  struckCost({ note, costs }: StruckTables, place: number, position: number): number {
    let table = costs.get(place);
    if (!table) costs.set(place, (table = this.arena.int32(POSITIONS).fill(-1)));
    const cell = position + BEYOND_NUT;
    if (table[cell]! < 0) {
      const bill = new Bill(this.geometry.weights, undefined);
      chargeStruck(note, PLACEMENTS[place]!, position, bill);
      table[cell] = bill.sum;
    }
    return table[cell]!;
  }

  /** See `chargeSpread`; `fingers` from `at` on are the places under fingers 1 to 4. */
  spreadCost(fingers: Int16Array, at: number, down: number): number {
    let sum = 0;
    let last = -1;
    for (let k = 0; k < 4; k++) {
      if (!(down & (1 << k))) continue;
      if (last >= 0)
        sum +=
          this.spread[(4 * last + k) * SPREADS + FRET_OF[fingers[at + k]!]! - FRET_OF[fingers[at + last]!]!]!;
      last = k;
    }
    return sum;
  }

  /** Places of a strike as numbers. */
  placesOf({ midi, touch }: StruckNote): readonly number[] {
    const find = () => placementsOf(this.geometry, { midi, touch }).map(placeId);
    if (touch) return find();
    let places = this.placesOfPitch.get(midi);
    if (!places) this.placesOfPitch.set(midi, (places = find()));
    return places;
  }

  /** Costs by fingers that turn, for a share of the time that is lacking. */
  turnsOf(lack: number, make: () => Int32Array): Int32Array {
    const turns = this.turnTables.get(lack);
    return turns ?? kept(this.turnTables, lack, make(), MOST_NAMES);
  }

  /** Costs by two places, for whoever names what they are of. */
  pairsOf(name: string): PairCosts {
    const pairs = this.namedPairs.get(name);
    return pairs ?? kept(this.namedPairs, name, new PairCosts(this.arena), MOST_NAMES);
  }

  /** See `handPosition`; −1: never set down. */
  positionOf(range: number): number {
    return range < 0 ? 1 : this.ranges[range]!.high;
  }
}

function kept<K, V>(tables: Map<K, V>, key: K, made: V, most: number): V {
  if (tables.size >= most) tables.clear();
  tables.set(key, made);
  return made;
}

/** So many hands keep their tables: a desk has one, a server those of its last pieces. */
const MOST_HANDS = 4;
const hands = new Map<string, HandTables>();

/** Equal hands on equal instruments share their tables, as long as these have room for more. */
export function handTables({ fretboard, hand, weights, tuning }: Geometry): HandTables {
  const geometry = { fretboard, hand, weights, tuning };
  const key = JSON.stringify(geometry);
  const known = hands.get(key);
  const tables = known && known.ranges.length < MOST_RANGES / 2 ? known : new HandTables(geometry);
  // The one that was asked for last comes last.
  hands.delete(key);
  hands.set(key, tables);
  const [oldest] = hands.keys();
  if (hands.size > MOST_HANDS) hands.delete(oldest!);
  return tables;
}
