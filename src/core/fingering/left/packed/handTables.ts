/**
 * Lookup tables of one hand on one instrument. Everything that the rules say about two placements, or two ranges
 * of the hand, is worked out by the rules once and read from here millions of times.
 */
import { movementMs } from '../../../instrument/handProfile';
import type { FingeringProblem, Strike } from '../../problem';
import { pairPlayable } from '../constraints';
import type { HandRange, Placement } from '../handState';
import { handWayFrets, handWayMm } from '../handWay';
import { hopMs } from '../hops';
import { Bill } from '../ledger';
import { leastShiftCost } from '../shift';
import { chargeShape, chargeStruck } from '../stateCost';
import { SQUEEZE_FRETS } from '../terms';

const FRETS = 25;
const FINGERS = 5;
const SPOTS = 6 * FRETS;
const PLACES = SPOTS * FINGERS;

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

/** Middles of a hand in half frets, from three frets below the nut. */
const MIDDLES = 64;
const middleIndex = (range: HandRange) => range.low + range.high + 6;

const UNKNOWN = 0;
const IMPOSSIBLE = 1;
/** Costs are stored so much higher, to keep the two marks free. */
const STORED = 2;

export const MOST_RANGES = 512;

type Geometry = Pick<FingeringProblem, 'fretboard' | 'hand' | 'weights'>;
type Struck = Pick<Strike, 'role' | 'printed' | 'ornamented'>;

export class HandTables {
  private readonly pairs = new Int32Array(PLACES * PLACES);
  private readonly hops = new Float64Array(SPOTS * SPOTS).fill(-1);
  private readonly rangeIds = new Map<number, number>();
  readonly ranges: HandRange[] = [];
  /** By two ranges: at least that much for the way of the hand; −1 unknown. */
  private readonly leastShifts = new Int32Array(MOST_RANGES * MOST_RANGES).fill(-1);
  private readonly wayMms = new Float64Array(MOST_RANGES * MOST_RANGES).fill(-1);
  private readonly neededMs = new Float64Array(MOST_RANGES * MOST_RANGES);
  private readonly struckTables = new Map<string, Map<number, Int32Array>>();

  private readonly namedPairs = new Map<string, Map<number, number>>();

  constructor(readonly geometry: Geometry) {}

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

  /** The least that the hand's way between two ranges costs; 0 where one is unknown (−1). */
  leastShift(from: number, to: number): number {
    if (from < 0 || to < 0 || from === to) return 0;
    const cell = from * MOST_RANGES + to;
    if (this.leastShifts[cell]! < 0) {
      const { fretboard, hand, weights } = this.geometry;
      this.leastShifts[cell] = leastShiftCost(
        { fretboard, hand, weights },
        this.ranges[from]!,
        this.ranges[to]!,
      );
    }
    return this.leastShifts[cell]!;
  }

  isSqueeze(from: number, to: number): boolean {
    return this.wayMm(from, to) === SQUEEZED;
  }

  /** Way of the hand in mm of a shift. */
  wayMm(from: number, to: number): number {
    const cell = from * MOST_RANGES + to;
    if (this.wayMms[cell] === -1) {
      const [start, end] = [this.ranges[from]!, this.ranges[to]!];
      const mm = handWayMm(start, end, this.geometry.fretboard);
      this.wayMms[cell] = handWayFrets(start, end) <= SQUEEZE_FRETS ? SQUEEZED : mm;
      this.neededMs[cell] = movementMs(mm, this.geometry.hand);
    }
    return this.wayMms[cell]!;
  }

  /** Time in ms of that way; ask for the way first. */
  shiftMs(from: number, to: number): number {
    return this.neededMs[from * MOST_RANGES + to]!;
  }

  /** What striking a note at a place costs, by the middle of the hand (see `middleIndexOf`). */
  struckCosts(strike: Struck, place: number): Int32Array {
    const { role, printed, ornamented } = strike;
    const key = `${role === 'melody'}:${printed.finger}:${printed.string}:${ornamented}`;
    let tables = this.struckTables.get(key);
    if (!tables) this.struckTables.set(key, (tables = new Map()));
    let table = tables.get(place);
    if (!table) {
      table = Int32Array.from({ length: MIDDLES }, (_, index) => {
        const bill = new Bill(this.geometry.weights, undefined);
        chargeStruck(strike, PLACEMENTS[place]!, (index - 6) / 2, bill);
        return bill.sum;
      });
      tables.set(place, table);
    }
    return table;
  }

  /** Costs by two places (the first times 1024), for whoever names what they are of. */
  pairsOf(name: string): Map<number, number> {
    let pairs = this.namedPairs.get(name);
    if (!pairs) this.namedPairs.set(name, (pairs = new Map()));
    return pairs;
  }

  /** −1: never set down. */
  middleIndexOf(range: number): number {
    return range < 0 ? FIRST_POSITION : middleIndex(this.ranges[range]!);
  }
}

const FIRST_POSITION = 8;
/** A way that is no shift. */
const SQUEEZED = -2;
