/**
 * Prices of states and steps from the rules by way of tables: what a rule looks at is read once for each state; a pair
 * of states only adds up entries. It knows no rule: a new one, or a new column of the states, changes nothing here.
 */
import type { Arena } from '../../solver/arena';
import { type Numbered, numbered } from '../../solver/numbering';
import type { StateColumn, OwnRule, StepRules, TimedColumn, WayRule } from '../rules/rule';
import type { HandStep } from '../rules/step';
import type { CostTables } from './costTables';
import { type CarriedTable, COST_BITS, type PairTable, UNKNOWN } from './pairTable';
import type { RowHand } from './stateRows';

/** Rows of a layer, and how rules read them. */
export interface ReadRows {
  readonly count: number;
  readonly hand: RowHand;
}

/** The rows of two layers and the step between them. */
export interface ReadStep {
  readonly before: ReadRows;
  readonly after: ReadRows;
  readonly step: HandStep;
}

export function ownCosts(
  tables: CostTables,
  arena: Arena,
  { count, hand }: ReadRows,
  rules: readonly OwnRule[],
): Int32Array {
  const costs = arena.int32(count);
  for (const rule of rules) {
    const known = tables.ownCosts(rule);
    for (let s = 0; s < count; s++) {
      const code = rule.code(hand.at(s));
      let cost = known.get(code);
      if (cost === undefined) known.set(code, (cost = tables.ownCost(rule, code)));
      costs[s]! += cost;
    }
  }
  return costs;
}

/** A table, with the row of each state before and the column of each state after. */
interface Placed<T> {
  readonly table: T;
  readonly rows: Uint16Array;
  readonly columns: Uint16Array;
}

const COST_MASK = (1 << COST_BITS) - 1;

export class StepCosts {
  private readonly plain: readonly Placed<PairTable>[];
  private readonly carried: Placed<CarriedTable>;
  private readonly carrierOf: Uint8Array;

  constructor(
    tables: CostTables,
    private readonly arena: Arena,
    private readonly way: ReadStep,
    { plain, carried }: StepRules,
  ) {
    this.plain = byColumns(plain).map((rules) => this.placed(tables.plainTable(rules), rules[0]!));
    this.carried = this.placed(tables.carriedTable(carried), carried);
    this.carrierOf = this.carried.table.carrierOf;
  }

  /** What the step from one state to another costs, what is held left out. */
  price(from: number, to: number): number {
    const { plain, carried } = this;
    let sum = 0;
    let counts = 0;
    for (let n = 0; n < plain.length; n++) {
      const { table, rows, columns } = plain[n]!;
      let entry = table.entries[(rows[from]! << table.shift) + columns[to]!]!;
      if (entry === UNKNOWN) entry = table.fill(rows[from]!, columns[to]!);
      sum += entry & COST_MASK;
      counts += entry >>> COST_BITS;
    }
    const cell = carried.table.cell(carried.rows[from]!, carried.columns[to]!);
    return sum + carried.table.entries[cell + 1 + this.carrierOf[counts]!]!;
  }

  /** At least that much of the price is what carries the hand. */
  least(from: number, to: number): number {
    const { table, rows, columns } = this.carried;
    return table.entries[table.cell(rows[from]!, columns[to]!)]!;
  }

  private placed<T extends PairTable | CarriedTable>(
    table: T,
    { from, to }: { readonly from: TimedColumn; readonly to: StateColumn },
  ): Placed<T> {
    const { arena } = this;
    const { before, after, step } = this.way;
    const times: number[] = [];
    const seen = numbered(arena, before.count, (s) => {
      const hand = before.hand.at(s);
      return from.code(hand) * TIMES + timeIndex(times, from.ms(hand, step));
    });
    const rowOf = ({ values }: Numbered) =>
      values.map((value) => table.rowOf(Math.floor(value / TIMES), times[value % TIMES]!));
    const codes = numbered(arena, after.count, (s) => to.code(after.hand.at(s)));
    return {
      table,
      rows: renamed(seen, rowOf(seen)),
      columns: renamed(
        codes,
        codes.values.map((code) => table.columnOf(code)),
      ),
    };
  }
}

/** Notes that sound at once end at no more times than this. */
const TIMES = 16;

/** @throws RangeError for more distinct times than notes can sound at once */
function timeIndex(times: number[], ms: number): number {
  const known = times.indexOf(ms);
  if (known >= 0) return known;
  if (times.length === TIMES) throw new RangeError(`a step with more than ${TIMES} distinct times`);
  return times.push(ms) - 1;
}

/** The numbers of a layer become those of a table. */
function renamed({ of }: Numbered, names: readonly number[]): Uint16Array {
  for (let s = 0; s < of.length; s++) of[s] = names[of[s]!]!;
  return of;
}

/** Rules that look at the same of both states share a table. */
function byColumns(rules: readonly WayRule[]): readonly (readonly WayRule[])[] {
  const groups: WayRule[][] = [];
  for (const rule of rules) {
    const group = groups.find(([first]) => first!.from === rule.from && first!.to === rule.to);
    if (group) group.push(rule);
    else groups.push([rule]);
  }
  return groups;
}
