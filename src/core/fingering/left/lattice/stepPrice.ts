/**
 * The price of a step between two packed states, cuts left out: what the rules in shift, hops, barreCost and
 * connectionCost say. Whatever depends on one finger, one note or one range on either side is worked out once for
 * the values that occur there; a pair of states only adds up entries. The tests compare it with the rules on every
 * pair of states.
 */
import type { Arena } from '../../solver/arena';
import { urgency } from '../../rules/costTerm';
import { FINGER_PAIRS } from '../../../instrument/handProfile';
import { barreCost } from '../rules/barreCost';
import { priceOf } from '../rules/ledger';
import type { HandState } from '../rules/handState';
import { type LeftTermId, WEAK_PAIR_MS } from '../rules/terms';
import { type ConnectionColumn, connectionColumns } from './connectionColumns';
import { FRET_OF, type HandTables, NO_PLACE, STRING_OF } from './handTables';
import { numbered } from './numbering';
import { standingOf, type StateRows } from './packedLayer';
import type { Step } from './step';
import { CARRIED, type ShiftTable } from './shiftTable';
import { fingerFreeMs, type Times, windowsMs } from './stepTimes';

/** Entries of the finger tables: cost in the low bits, then how many fingers stay, slide, slide on wound strings, jump. */
const PIVOT = 1 << 20;
const GUIDE = 1 << 23;
const WOUND_GUIDE = 1 << 26;
const OTHER = 1 << 29;
const COST_BITS = PIVOT - 1;

const PLACES = STRING_OF.length;

/** What one finger costs on its way, by state before (its row) and after (its column). */
interface FingerTable {
  readonly table: Int32Array;
  readonly row: Uint16Array;
  readonly column: Uint16Array;
}

const entryOf = ({ table, row, column }: FingerTable, from: number, to: number) =>
  table[row[from]! + column[to]!]!;

export class StepPrice {
  private readonly index: FingerTable;
  private readonly middle: FingerTable;
  private readonly ring: FingerTable;
  private readonly little: FingerTable;
  /** By state before: which of the shift tables holds for its window. */
  private readonly windowOf: Uint8Array;
  private readonly shiftTables: readonly ShiftTable[];
  private readonly connections: readonly ConnectionColumn[];
  private readonly turnCosts: Int32Array | null;
  private readonly standings = new Map<number, HandState>();
  private readonly once: Readonly<Record<'jump' | 'squeak' | 'hop', number>>;

  constructor(
    private readonly tables: HandTables,
    private readonly arena: Arena,
    private readonly before: StateRows,
    private readonly rows: StateRows,
    step: Step,
    struckColumns: readonly number[],
  ) {
    const { weights } = tables.geometry;
    const one = (term: LeftTermId) => priceOf(weights, term, 1);
    this.once = { jump: one('jump'), squeak: one('squeak'), hop: one('hop') };
    const windows = windowsMs(arena, before, step);
    this.windowOf = windows.of;
    this.shiftTables = windows.values.map((ms) => tables.shiftTable(ms));
    const free = fingerFreeMs(arena, before, step);
    this.index = this.fingerTable(0, free);
    this.middle = this.fingerTable(1, free);
    this.ring = this.fingerTable(2, free);
    this.little = this.fingerTable(3, free);
    this.connections = connectionColumns(tables, arena, before, rows, step, struckColumns);
    this.turnCosts = step.ms < WEAK_PAIR_MS ? this.turns(1 - step.ms / WEAK_PAIR_MS) : null;
  }

  price(from: number, to: number): number {
    const down = this.rows.down[to]!;
    let sum = 0;
    if (down !== 0) {
      const freed = this.before.down[from] === 0;
      const index = entryOf(this.index, from, to);
      const fingers =
        index +
        entryOf(this.middle, from, to) +
        entryOf(this.ring, from, to) +
        entryOf(this.little, from, to);
      sum = this.shift(from, to, fingers, freed);
      if (!freed) {
        sum += fingers & COST_BITS;
        if (this.before.barred.size + this.rows.barred.size > 0) sum -= this.swivelled(from, to, index);
        if (this.turnCosts) {
          const was = this.before.down[from]!;
          sum += this.turnCosts[(was & ~down) * 16 + (down & ~was)]!;
        }
      }
    }
    const { connections } = this;
    for (let n = 0; n < connections.length; n++) {
      const { costs, row, column } = connections[n]!;
      sum += costs[row[from]! + column[to]!]!;
    }
    const barred = this.rows.barred.get(to);
    return barred ? sum + barreCost(this.tables.geometry, this.standing(from), barred) : sum;
  }

  /** What lies there, for the rules. */
  private standing(from: number): HandState {
    let state = this.standings.get(from) ?? this.before.barred.get(from);
    if (!state) this.standings.set(from, (state = standingOf(this.before, from)));
    return state;
  }

  /** At least that much of the price is the hand's way. */
  leastWay(from: number, to: number): number {
    const start = this.before.range[from]!;
    if (start < 0 || this.rows.down[to] === 0) return 0;
    const table = this.shiftTables[this.windowOf[from]!]!;
    return table.least[table.cell(start, this.rows.range[to]!)]!;
  }

  private shift(from: number, to: number, fingers: number, freed: boolean): number {
    const start = this.before.range[from]!;
    if (start < 0) return 0;
    const table = this.shiftTables[this.windowOf[from]!]!;
    const cell = table.cell(start, this.rows.range[to]!);
    const costs = 4 * cell;
    if (table.isShift[cell] === 0) return table.costs[costs]!;
    if (fingers & (7 * PIVOT)) return table.costs[costs + CARRIED.pivot]!;
    const guides = (fingers >>> 23) & 7;
    // An open string or a rest carries the hand at the full way, too.
    if (guides === 0) return table.costs[costs]! + (freed ? 0 : this.once.jump);
    const squeak = ((fingers >>> 26) & 7) === guides ? this.once.squeak : 0;
    const carrier = guides > 1 && fingers >>> 29 === 0 ? CARRIED.shape : CARRIED.guide;
    return table.costs[costs + carrier]! + squeak;
  }

  /** What finger k + 1 costs by its place and free time before, and its place after. */
  private fingerTable(k: number, { of: freeOf, values: freeMs }: Times): FingerTable {
    const { fingers } = this.before;
    const from = numbered(
      this.arena,
      this.before.count,
      (s) => (fingers[4 * s + k]! + 1) * 16 + freeOf[4 * s + k]!,
    );
    const to = numbered(this.arena, this.rows.count, (s) => this.rows.fingers[4 * s + k]! + 1);
    const width = to.values.length;
    const table = this.arena.int32(from.values.length * width);
    for (let a = 0; a < from.values.length; a++) {
      const p = (from.values[a]! >> 4) - 1;
      if (p === NO_PLACE) continue;
      const ms = freeMs[from.values[a]! & 15]!;
      for (let b = 0; b < width; b++) {
        if (to.values[b]! > 0) table[a * width + b] = this.fingerEntry(p, to.values[b]! - 1, ms);
      }
    }
    const rows = this.arena.uint16(from.of.length);
    for (let s = 0; s < rows.length; s++) rows[s] = from.of[s]! * width;
    return { table, row: rows, column: to.of };
  }

  private fingerEntry(p: number, q: number, freeMs: number): number {
    if (p === q) return PIVOT;
    if (STRING_OF[p] === STRING_OF[q]) return STRING_OF[p]! >= 4 ? GUIDE + WOUND_GUIDE : GUIDE;
    const share = this.tables.hopMs(p, q) / freeMs;
    return (OTHER + this.once.hop + Math.round(this.tables.geometry.weights.hopHaste * urgency(share))) | 0;
  }

  /** What must be taken off again: finger 1 goes from a tip to a barre over the same string, or back. */
  private swivelled(from: number, to: number, entry: number): number {
    if (entry >>> 29 === 0) return 0;
    const before = this.before.barred.get(from)?.barre;
    const barre = before ?? this.rows.barred.get(to)?.barre;
    if (!barre) return 0;
    const tip = before ? this.rows.fingers[4 * to]! : this.before.fingers[4 * from]!;
    const string = STRING_OF[tip]!;
    const swivels = FRET_OF[tip] === barre.fret && string >= barre.firstString && string <= barre.lastString;
    return swivels ? entry & COST_BITS : 0;
  }

  /** By the fingers that lift (times 16) and those that go down. */
  private turns(lack: number): Int32Array {
    const { hand, weights } = this.tables.geometry;
    return this.tables.turnsOf(lack, () =>
      Int32Array.from({ length: 256 }, (_, cell) => {
        const [lifted, placed] = [cell >> 4, cell & 15];
        let weakness = 0;
        for (const pair of FINGER_PAIRS) {
          const [low, high] = [1 << (Number(pair[0]) - 1), 1 << (Number(pair[1]) - 1)];
          if ((lifted & low && placed & high) || (lifted & high && placed & low))
            weakness += hand.dependence[pair];
        }
        return priceOf(weights, 'weakPair', weakness * lack);
      }),
    );
  }
}

if (PLACES * 16 + 16 > 16384) throw new Error('places no longer fit the numbering');
