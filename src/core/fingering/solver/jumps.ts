/**
 * Costs between layers that are not neighbours: ways back of a repeat, ways on to another ending. Each is split into a
 * share of the states that it comes from and one of those that it goes to, together never more than it costs; so the
 * chain with the shares is a bound, which the ascent raises. What a path pays less than it should is its rest; where
 * there is one, branch and bound fixes what the state is that a jump goes to.
 */
import {
  bestPath,
  costThrough,
  type Extras,
  type Layer,
  type Mask,
  type Solution,
  solveLattice,
  UNREACHABLE,
} from './lattice';

/** A cost between two layers, by what it looks at of each. */
export interface Jump {
  readonly from: number;
  readonly to: number;
  /** By state of layer `from`: its row of the prices. */
  readonly rowOf: Int32Array;
  /** By state of layer `to`: its column. */
  readonly columnOf: Int32Array;
  readonly prices: JumpPrices;
}

/** Row by row, each as often as the jump is made; with what both sides pay of it. */
export interface JumpPrices {
  readonly rows: number;
  readonly columns: number;
  readonly price: Int32Array;
  readonly rowShare: Int32Array;
  readonly columnShare: Int32Array;
}

/** What is to be solved; `extras` without what jumps cost. */
export interface JumpedChain {
  readonly layers: readonly Layer[];
  readonly masks: readonly Mask[];
  readonly jumps: readonly Jump[];
}

export interface JumpedPath {
  readonly cost: number;
  /** A state for each layer. */
  readonly path: readonly number[];
}

/** Prices whose shares are as good as can be said of them alone: all of the least of a row, then of what is left. */
export function jumpPrices(rows: number, columns: number, price: Int32Array): JumpPrices {
  const bare = { rows, columns, price, columnShare: new Int32Array(columns) };
  const rowShare = leastRest({ ...bare, rowShare: new Int32Array(rows) }, 'rows');
  return { ...bare, rowShare, columnShare: leastRest({ ...bare, rowShare }, 'columns') };
}

/** By row, or by column: the least that is left of its prices when the other side has paid its share. */
function leastRest(
  { rows, columns, price, rowShare, columnShare }: JumpPrices,
  side: 'rows' | 'columns',
): Int32Array {
  const least = new Int32Array(side === 'rows' ? rows : columns).fill(UNREACHABLE);
  for (let r = 0, n = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++, n++) {
      const at = side === 'rows' ? r : c;
      const rest = price[n]! - (side === 'rows' ? columnShare[c]! : rowShare[r]!);
      if (rest < least[at]!) least[at] = rest;
    }
  }
  return least;
}

/** What the states pay for jumps, by layer; null where there are none. `scale`: costs are counted in such parts. */
export function sharesOf(jumps: readonly Jump[], count: number, scale = 1): Extras {
  const paid: (Int32Array | null)[] = Array<null>(count).fill(null);
  for (const { from, to, rowOf, columnOf, prices } of jumps) {
    paid[from] = added(paid[from]!, rowOf, prices.rowShare, scale);
    paid[to] = added(paid[to]!, columnOf, prices.columnShare, scale);
  }
  return paid;
}

const added = (paid: Int32Array | null, classOf: Int32Array, share: Int32Array, scale: number): Int32Array =>
  classOf.map((n, s) => (paid ? paid[s]! : 0) + scale * share[n]!);

/** Once the ascent has gone round so often it hardly raises the bound any more. From memory. */
const MOST_ROUNDS = 8;

/**
 * The same jumps with shares that raise the bound of a chain: in turn each side gives back by how much its states are
 * dearer than the best, and the other takes what can now be taken (Wainwright and Jordan 2008, block coordinate ascent).
 */
export function raisedShares(
  { layers, masks, jumps }: JumpedChain,
  chain: Solution,
  rounds = MOST_ROUNDS,
): RaisedShares {
  let raised = { jumps, chain };
  for (let round = 0; round < rounds; round++) {
    const { cost } = raised.chain;
    for (let n = 0; n < jumps.length; n++) {
      for (const side of ['columns', 'rows'] as const) {
        if (restOn(raised.jumps, bestPath(raised.chain)) === 0) return raised;
        const next = raised.jumps.with(n, withGivenBack(raised.jumps[n]!, raised.chain, side));
        const shares = sharesOf(next, layers.length);
        raised = { jumps: next, chain: solveLattice(layers, masks, raised.chain, shares)! };
      }
    }
    if (raised.chain.cost === cost) break;
  }
  return raised;
}

export interface RaisedShares {
  readonly jumps: readonly Jump[];
  /** The solution with these shares. */
  readonly chain: Solution;
}

/** No state is so much dearer that it could not pay it; unreachable ones would overflow. */
const MOST_GIVEN = 1 << 20;

function withGivenBack(jump: Jump, solution: Solution, side: 'rows' | 'columns'): Jump {
  const { prices, rowOf, columnOf } = jump;
  const ofColumns = side === 'columns';
  const dearer = leastThrough(
    solution,
    ofColumns ? jump.to : jump.from,
    ofColumns ? columnOf : rowOf,
    ofColumns ? prices.columns : prices.rows,
  ).map((cost) => Math.min(MOST_GIVEN, cost - solution.cost));
  if (ofColumns) {
    const columnShare = prices.columnShare.map((share, c) => share - dearer[c]!);
    const rowShare = leastRest({ ...prices, columnShare }, 'rows');
    const filled = leastRest({ ...prices, rowShare }, 'columns');
    return { ...jump, prices: { ...prices, rowShare, columnShare: filled } };
  }
  const rowShare = prices.rowShare.map((share, r) => share - dearer[r]!);
  const columnShare = leastRest({ ...prices, rowShare }, 'columns');
  return {
    ...jump,
    prices: { ...prices, columnShare, rowShare: leastRest({ ...prices, columnShare }, 'rows') },
  };
}

/** By class of the states of a layer: the least cost of a path through it. */
function leastThrough(solution: Solution, k: number, classOf: Int32Array, count: number): Int32Array {
  const least = new Int32Array(count).fill(UNREACHABLE);
  for (let s = 0; s < classOf.length; s++) {
    const cost = costThrough(solution, k, s);
    if (cost < least[classOf[s]!]!) least[classOf[s]!] = cost;
  }
  return least;
}

const restOf = ({ from, to, rowOf, columnOf, prices }: Jump, path: readonly number[]): number => {
  const [r, c] = [rowOf[path[from]!]!, columnOf[path[to]!]!];
  return prices.price[r * prices.columns + c]! - prices.rowShare[r]! - prices.columnShare[c]!;
};

/** What jumps cost on a path besides the shares. */
export const restOn = (jumps: readonly Jump[], path: readonly number[]): number =>
  jumps.reduce((sum, jump) => sum + restOf(jump, path), 0);

/**
 * The best path with what its jumps cost, if it costs less than `limit`; null otherwise.
 * @param chain the solution without the rests: its layers and extras with the shares
 */
export function solveWithJumps(
  { layers, jumps }: JumpedChain,
  chain: Solution,
  limit = UNREACHABLE,
): JumpedPath | null {
  let best: JumpedPath | null = null;
  let most = limit;
  const explore = (solution: Solution, open: readonly Jump[]) => {
    if (solution.cost >= most) return;
    const path = bestPath(solution);
    const rest = restOn(open, path);
    if (solution.cost + rest < most) {
      most = solution.cost + rest;
      best = { cost: most, path };
    }
    if (rest === 0) return;
    // Nothing that is dearer by itself can be part of a cheaper path.
    const allowed = statesBelow(solution, most);
    const jump = open.reduce((a, b) => (restOf(b, path) > restOf(a, path) ? b : a));
    const others = open.filter((one) => one !== jump);
    const least = leastThrough(solution, jump.to, jump.columnOf, jump.prices.columns);
    const columns = [...least.keys()].filter((c) => least[c]! < UNREACHABLE);
    for (const c of columns.sort((a, b) => least[a]! - least[b]! || a - b)) {
      if (least[c]! >= most) break;
      const fixed = allowed.with(jump.to, only(jump.columnOf, c, allowed[jump.to]!));
      const paid = withColumn(solution.extras ?? layers.map(() => null), jump, c);
      const next = solveLattice(layers, fixed, solution, paid);
      if (next) explore(next, others);
    }
  };
  explore(chain, jumps);
  return best;
}

/** By layer: the states through which a path costs less than `most`. */
export const statesBelow = (solution: Solution, most: number): readonly Uint8Array[] =>
  solution.layers.map(({ stateCost }, k) =>
    Uint8Array.from(stateCost, (_cost, s) => (costThrough(solution, k, s) < most ? 1 : 0)),
  );

const only = (columnOf: Int32Array, column: number, mask: Uint8Array): Uint8Array =>
  mask.map((allowed, s) => (columnOf[s] === column ? allowed : 0));

/** Where the column is known, the states that a jump comes from pay all that is left of it. */
function withColumn(extras: Extras, { from, rowOf, prices }: Jump, c: number): Extras {
  const { price, columns, rowShare, columnShare } = prices;
  const before = extras[from];
  const paid = rowOf.map(
    (r, s) => (before ? before[s]! : 0) + price[r * columns + c]! - rowShare[r]! - columnShare[c]!,
  );
  return extras.with(from, paid);
}
