/**
 * The price of a step between two packed states, cuts left out: what the rules in shift, hops, barreCost and
 * connectionCost say, read from tables. The tests compare the two on every pair of states.
 */
import { urgency } from '../../costTerm';
import type { FingeringProblem, Moment } from '../../problem';
import { FINGER_PAIRS } from '../../../instrument/handProfile';
import { barreCost } from '../barreCost';
import { chargeLine, chargeSlur } from '../connectionCost';
import { Bill, priceOf } from '../ledger';
import { LONG_FREE } from '../memory';
import { CARRIER_SHARE, LONGEST_WINDOW_MS, RELEASE_SHARE, WEAK_PAIR_MS } from '../terms';
import { FINGER_OF, FRET_OF, type HandTables, NO_PLACE, PLACEMENTS, STRING_OF } from './handTables';
import { type PackedLayer, releasedTickOf, type StateRows } from './packedLayer';

const IS_STOPPED = Uint8Array.from(FINGER_OF, (finger) => (finger > 0 ? 1 : 0));

interface Connection {
  readonly kind: 'slur' | 'slide' | 'line';
  readonly fromColumn: number;
  readonly toColumn: number;
  readonly semitones: number;
  /** Costs by the two places, once asked for. */
  readonly known: Map<number, number>;
}

/** A pitch struck again while it sounds, or as it ends: it had better stay in its place. */
interface Again {
  readonly fromColumn: number;
  readonly toColumn: number;
}

export class StepPrice {
  private readonly windowMs: Float64Array;
  private readonly freeMs: Float64Array;
  private readonly connections: readonly Connection[];
  private readonly again: readonly Again[];
  private readonly stepMs: number;
  private readonly turnCosts: Int32Array | null;
  private readonly once: Readonly<Record<'shift' | 'jump' | 'squeak' | 'hop' | 'placeChanged', number>>;

  constructor(
    private readonly problem: FingeringProblem,
    private readonly tables: HandTables,
    private readonly before: PackedLayer,
    moment: Moment,
    private readonly rows: StateRows,
    next: Moment,
  ) {
    const one = (term: Parameters<typeof priceOf>[1]) => priceOf(problem.weights, term, 1);
    this.once = {
      shift: one('shift'),
      jump: one('jump'),
      squeak: one('squeak'),
      hop: one('hop'),
      placeChanged: one('placeChanged'),
    };
    this.stepMs = next.timeMs - moment.timeMs;
    this.windowMs = this.windows(next);
    this.freeMs = this.freeTimes(next);
    this.connections = this.connectionsInto(next);
    this.again = this.struckAgain(next);
    this.turnCosts = this.stepMs < WEAK_PAIR_MS ? this.turns() : null;
  }

  price(from: number, to: number): number {
    return (
      (this.rows.down[to] === 0 ? 0 : this.movement(from, to)) +
      this.barre(from, to) +
      this.sounding(from, to)
    );
  }

  private movement(from: number, to: number): number {
    const start = this.before.rows.range[from]!;
    const shift = start < 0 ? 0 : this.shift(from, to, start, this.rows.range[to]!);
    return this.before.rows.down[from] === 0 ? shift : shift + this.hops(from, to);
  }

  private shift(from: number, to: number, start: number, end: number): number {
    const { tables, problem, once } = this;
    // No way at all or a squeeze costs just its bound.
    if (start === end || tables.isSqueeze(start, end)) return tables.leastShift(start, end);
    const mm = tables.wayMm(start, end);
    const needed = tables.shiftMs(start, end);
    const { weights } = problem;
    let sum =
      once.shift + Math.round(weights.shiftHaste * urgency(needed / Math.max(1, this.windowMs[from]!)));
    const a = this.before.rows.fingers;
    const b = this.rows.fingers;
    let guides = 0;
    let others = 0;
    let guide = -1;
    for (let k = 0; k < 4; k++) {
      const [p, q] = [a[4 * from + k]!, b[4 * to + k]!];
      if (p === NO_PLACE || q === NO_PLACE) continue;
      if (p === q) return sum + Math.round(weights.shiftDistance * (mm * CARRIER_SHARE.pivot));
      if (STRING_OF[p] !== STRING_OF[q]) others++;
      else {
        guides++;
        if (guide < 0) guide = p;
      }
    }
    if (guides === 0) {
      // An open string or a rest carries the hand at the full way, too.
      if (this.before.rows.down[from] !== 0) sum += once.jump;
      return sum + Math.round(weights.shiftDistance * mm);
    }
    const share = guides > 1 && others === 0 ? CARRIER_SHARE.shape : CARRIER_SHARE.guide;
    if (STRING_OF[guide]! >= 4) sum += once.squeak;
    return sum + Math.round(weights.shiftDistance * (mm * share));
  }

  private hops(from: number, to: number): number {
    const a = this.before.rows.fingers;
    const b = this.rows.fingers;
    const weight = this.problem.weights.hopHaste;
    let sum = 0;
    for (let k = 0; k < 4; k++) {
      const [p, q] = [a[4 * from + k]!, b[4 * to + k]!];
      if (p === NO_PLACE || q === NO_PLACE || STRING_OF[p] === STRING_OF[q]) continue;
      if (k === 0 && this.swivels(from, p, to, q)) continue;
      const share = this.tables.hopMs(p, q) / this.freeMs[4 * from + k]!;
      sum += this.once.hop + Math.round(weight * urgency(share));
    }
    if (!this.turnCosts) return sum;
    const before = this.before.rows.down[from]!;
    const after = this.rows.down[to]!;
    return sum + this.turnCosts[(before & ~after) * 16 + (after & ~before)]!;
  }

  private swivels(from: number, p: number, to: number, q: number): boolean {
    const before = this.before.rows.barred.get(from)?.barre;
    const barre = before ?? this.rows.barred.get(to)?.barre;
    if (!barre) return false;
    const tip = before ? q : p;
    const string = STRING_OF[tip]!;
    return FRET_OF[tip] === barre.fret && string >= barre.firstString && string <= barre.lastString;
  }

  private barre(from: number, to: number): number {
    const barred = this.rows.barred.get(to);
    return barred ? barreCost(this.problem, this.before.state(from), barred) : 0;
  }

  /** What depends on where notes lie that lead to each other. */
  private sounding(from: number, to: number): number {
    let sum = 0;
    const before = this.before.rows;
    const [width, columns] = [before.strikes.length, this.rows.strikes.length];
    for (const { fromColumn, toColumn } of this.again) {
      const p = before.places[from * width + fromColumn]!;
      if (p !== NO_PLACE && p !== this.rows.places[to * columns + toColumn]) sum += this.once.placeChanged;
    }
    for (const connection of this.connections) {
      const p = before.places[from * width + connection.fromColumn]!;
      const q = this.rows.places[to * columns + connection.toColumn]!;
      if (p === NO_PLACE || q === NO_PLACE) continue;
      const key = p * 1024 + q;
      let cost = connection.known.get(key);
      if (cost === undefined) connection.known.set(key, (cost = this.connectionCost(connection, p, q)));
      sum += cost;
    }
    return sum;
  }

  private connectionCost({ kind, semitones }: Connection, p: number, q: number): number {
    const bill = new Bill(this.problem.weights, undefined);
    const [a, b] = [PLACEMENTS[p]!, PLACEMENTS[q]!];
    if (kind === 'slur') chargeSlur(a, b, bill);
    else if (kind === 'line') chargeLine(a, b, semitones, bill);
    else bill.charge('slideBroken', a.string === b.string && a.finger === b.finger ? 0 : 1);
    return bill.sum;
  }

  private windows(next: Moment): Float64Array {
    const { rows } = this.before;
    const least = RELEASE_SHARE * this.stepMs;
    return Float64Array.from({ length: rows.count }, (_, s) => {
      const memory = rows.memory[s]! > 0 ? rows.memories[rows.memory[s]! - 1]! : null;
      if (memory?.freedTick === LONG_FREE) return LONGEST_WINDOW_MS;
      const freed = memory ? memory.freedTick : releasedTickOf(this.problem, rows, s, next, IS_STOPPED);
      return Math.min(LONGEST_WINDOW_MS, Math.max(next.timeMs - this.problem.clock(freed), least));
    });
  }

  private freeTimes(next: Moment): Float64Array {
    const { rows } = this.before;
    const columns = rows.strikes.length;
    const least = RELEASE_SHARE * this.stepMs;
    const restMs = rows.strikes.map((strike) => {
      const end = this.problem.strikes[strike]!.endTicks;
      return Math.max(1, end < next.tick ? next.timeMs - this.problem.clock(end) : 0, least);
    });
    const free = new Float64Array(4 * rows.count);
    for (let s = 0; s < rows.count; s++) {
      // From the last column to the first, so that the first note under a finger counts.
      for (let c = columns - 1; c >= 0; c--) {
        const place = rows.places[s * columns + c]!;
        if (place !== NO_PLACE && FINGER_OF[place]! > 0) free[4 * s + FINGER_OF[place]! - 1] = restMs[c]!;
      }
    }
    return free;
  }

  private connectionsInto(next: Moment): readonly Connection[] {
    const found: Connection[] = [];
    const { strikes } = this.problem;
    for (const index of next.struck) {
      const strike = strikes[index]!;
      const toColumn = this.rows.strikes.indexOf(index);
      const add = (kind: Connection['kind'], source: number | null) => {
        const fromColumn = source === null ? -1 : this.before.rows.strikes.indexOf(source);
        if (fromColumn < 0 || toColumn < 0) return;
        const semitones = strike.midi - strikes[source!]!.midi;
        found.push({
          kind,
          fromColumn,
          toColumn,
          semitones,
          known: this.tables.pairsOf(`${kind}${semitones}`),
        });
      };
      add('slur', strike.slurredFrom);
      add('slide', strike.slidFrom);
      add('line', strike.lineFrom);
    }
    return found;
  }

  private struckAgain(next: Moment): readonly Again[] {
    const { strikes } = this.problem;
    return this.before.rows.strikes.flatMap((index, fromColumn) => {
      const strike = strikes[index]!;
      if (strike.endTicks < next.tick) return [];
      const again = next.struck.find((other) => strikes[other]!.midi === strike.midi);
      const toColumn = again === undefined ? -1 : this.rows.strikes.indexOf(again);
      return toColumn < 0 ? [] : [{ fromColumn, toColumn }];
    });
  }

  /** By the fingers that lift (times 16) and those that go down. */
  private turns(): Int32Array {
    const { hand, weights } = this.problem;
    const lack = 1 - this.stepMs / WEAK_PAIR_MS;
    return Int32Array.from({ length: 256 }, (_, cell) => {
      const [lifted, placed] = [cell >> 4, cell & 15];
      let weakness = 0;
      for (const pair of FINGER_PAIRS) {
        const [low, high] = [1 << (Number(pair[0]) - 1), 1 << (Number(pair[1]) - 1)];
        if ((lifted & low && placed & high) || (lifted & high && placed & low))
          weakness += hand.dependence[pair];
      }
      return priceOf(weights, 'weakPair', weakness * lack);
    });
  }
}
