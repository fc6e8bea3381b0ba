/** What ways back and on to other endings cost the left hand, between all states of the moments that they join. */
import type { FingeringProblem } from '../../problem/problem';
import type { Return } from '../../problem/passes';
import { type Jump, type JumpPrices, jumpPrices, raisedShares, sharesOf } from '../../solver/jumps';
import { solveLattice } from '../../solver/lattice';
import { ENTRY, stepRules } from '../rules/rules';
import { columnsOf } from '../rules/recordHand';
import { jumpTo } from '../rules/step';
import type { HandLayer } from './handLayer';
import type { LayerStore } from './layerStore';

export class HandJumps {
  /** By return: of the layers that it was last asked for. */
  private readonly known: (Known | null)[];
  private free: readonly Known[] | null = null;

  constructor(
    private readonly problem: FingeringProblem,
    private readonly store: LayerStore,
  ) {
    this.known = problem.passes.returns.map(() => null);
  }

  /** The layers without ink: what is known of them holds for most questions, so their shares are raised. */
  begin(free: readonly HandLayer[]): void {
    const { returns } = this.problem.passes;
    if (returns.length === 0) return;
    const jumps = returns.map((one) => this.jumpOf(one, free));
    const masks = free.map(() => null);
    const chain = solveLattice(free, masks, null, sharesOf(jumps, free.length));
    const raised = chain ? raisedShares({ layers: free, masks, jumps }, chain) : { jumps };
    this.free = raised.jumps.map((jump, n) => ({
      from: free[returns[n]!.from]!,
      to: free[returns[n]!.to]!,
      jump,
    }));
  }

  of(layers: readonly HandLayer[]): readonly Jump[] {
    return this.problem.passes.returns.map((one, n) => {
      const isOf = (known: Known | null | undefined) =>
        known && known.from === layers[one.from] && known.to === layers[one.to];
      const free = this.free?.[n];
      if (isOf(free)) return free!.jump;
      if (!isOf(this.known[n]))
        this.known[n] = {
          from: layers[one.from]!,
          to: layers[one.to]!,
          jump: this.jumpOf(one, layers),
        };
      return this.known[n]!.jump;
    });
  }

  private jumpOf(one: Return, layers: readonly HandLayer[]): Jump {
    const { problem, store } = this;
    const { from, to, times, tick } = one;
    const last = problem.moments[from]!;
    const step = jumpTo(problem, last, columnsOf(last), { ...problem.moments[to]!, tick });
    const rules = stepRules(step);
    // At the very beginning every play lays its barre anew: its own cost says so.
    const plain = to === 0 ? rules.plain.filter((rule) => !ENTRY.includes(rule)) : rules.plain;
    const costs = store.jumpCosts(layers[from]!.rows, layers[to]!.rows, step, { ...rules, plain });
    const [rows, columns] = [layers[from]!.rows.count, layers[to]!.rows.count];
    const price = new Int32Array(rows * columns);
    for (let a = 0, n = 0; a < rows; a++)
      for (let b = 0; b < columns; b++, n++) price[n] = times * costs.price(a, b);
    return { from, to, ...classed(rows, columns, price) };
  }
}

interface Known {
  readonly from: HandLayer;
  readonly to: HandLayer;
  readonly jump: Jump;
}

/** States to which all ways cost the same are one column, those from which they do one row. */
function classed(
  rows: number,
  columns: number,
  price: Int32Array,
): { readonly rowOf: Int32Array; readonly columnOf: Int32Array; readonly prices: JumpPrices } {
  const row = alike(rows, (r) => price.subarray(r * columns, (r + 1) * columns).join());
  const column = alike(columns, (c) => row.first.map((r) => price[r * columns + c]!).join());
  const few = new Int32Array(row.first.length * column.first.length);
  row.first.forEach((r, y) =>
    column.first.forEach((c, x) => (few[y * column.first.length + x] = price[r * columns + c]!)),
  );
  return {
    rowOf: row.of,
    columnOf: column.of,
    prices: jumpPrices(row.first.length, column.first.length, few),
  };
}

/** Which of the distinct keys each number has, and the first number of each. */
function alike(count: number, keyOf: (n: number) => string) {
  const numbers = new Map<string, number>();
  const first: number[] = [];
  const of = new Int32Array(count);
  for (let n = 0; n < count; n++) {
    const key = keyOf(n);
    let number = numbers.get(key);
    if (number === undefined) {
      numbers.set(key, (number = first.length));
      first.push(n);
    }
    of[n] = number;
  }
  return { of, first };
}
