/**
 * A bound for both hands. Each hand is planned by itself, and a price on every choice of strings, paid by one hand to
 * the other, makes them agree: Lagrangian decomposition. Whatever the prices, the two optima together are at most the
 * joint one; sequential averaging of both hands' least costs through each choice (tree-reweighted message passing,
 * Kolmogorov 2006) never lowers that bound.
 */
import { UNREACHABLE } from '../lattice';
import type { CoreMoment } from './core';
import { kinOf, PARTS, type Prices, variantsByStrings } from './bound';
import type { StrokeLayer } from '../right/strokeChain';

const SWEEPS = 4;

interface Chain {
  /** By moment and state: its own cost, the prices in it. */
  readonly own: readonly Float64Array[];
  /** Least costs from the start, own cost counted, and to the end, own cost not counted. */
  readonly entry: Float64Array;
  readonly forward: Float64Array[];
  readonly backward: Float64Array[];
  readonly variantOf: readonly Int32Array[];
  readonly stepForward: (k: number, before: Float64Array, into: Float64Array) => void;
  readonly stepBackward: (k: number, rest: Float64Array, into: Float64Array) => void;
}

/** What lies around a part of a piece: least costs of coming to its first moment, and of going on from its last. */
export interface Ends {
  readonly left: { readonly entry: Float64Array; readonly exit: Float64Array };
  readonly right: { readonly entry: Float64Array; readonly exit: Float64Array };
}

/**
 * @param lefts prices between the core's nodes, by moment; the first is not looked at
 * @param above by moment and variant: how much dearer than its best the left hand is with it, where no node has it
 * @param strangeness the same at least for all other strings
 * @param ends null for a whole piece; `strokes` has one layer more, before the first moment, in any case
 * @param slackGiven what is no node is dearer for the left hand: this part of the difference goes to the right hand, so
 *   that a row of such strings does not look as good as the core to it; more, and it does so to the left hand
 */
export function agreedPrices(
  core: readonly CoreMoment[],
  lefts: readonly Int32Array[],
  above: readonly (readonly (number | null)[])[],
  strokes: readonly StrokeLayer[],
  steps: readonly number[],
  start: Prices,
  strangeness: number,
  slackGiven: number,
  ends: Ends | null = null,
): Prices {
  const kin = core.map((moment) => kinOf(moment, variantsByStrings(moment)));
  const prices = core.map(({ variants }, k) =>
    start[k]?.length === variants.length
      ? Float64Array.from(start[k], (price) => price / PARTS)
      : new Float64Array(variants.length),
  );
  const left = withEnds(leftChain(core, lefts, steps, prices), ends?.left);
  const right = withEnds(rightChain(strokes, steps, prices, ends !== null), ends?.right);
  const last = core.length - 1;
  for (let k = last; k > 0; k--) {
    backwardInto(left, k);
    backwardInto(right, k);
  }
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    for (let k = 0; k <= last; k++) {
      forwardInto(left, k);
      forwardInto(right, k);
      agree(core[k]!, above[k]!, kin[k]!, strangeness, slackGiven, k, left, right, prices[k]!);
    }
    for (let k = last; k >= 0; k--) {
      agree(core[k]!, above[k]!, kin[k]!, strangeness, slackGiven, k, left, right, prices[k]!);
      if (k === 0) break;
      backwardInto(left, k);
      backwardInto(right, k);
    }
  }
  return prices.map((row) => Int32Array.from(row, (price) => Math.round(PARTS * price)));
}

function withEnds(chain: Chain, ends: Ends['left'] | undefined): Chain {
  if (!ends) return chain;
  chain.backward.at(-1)?.set(ends.exit);
  return { ...chain, entry: ends.entry };
}

function forwardInto({ own, forward, entry, stepForward }: Chain, k: number) {
  const into = forward[k]!;
  if (k === 0) into.set(entry);
  else stepForward(k, forward[k - 1]!, into.fill(UNREACHABLE));
  for (let s = 0; s < into.length; s++) into[s]! += own[k]![s]!;
}

/** From moment k to the one before it. */
function backwardInto({ own, backward, stepBackward }: Chain, k: number) {
  const rest = backward[k]!.map((cost, s) => cost + own[k]![s]!);
  stepBackward(k, rest, backward[k - 1]!.fill(UNREACHABLE));
}

/** Both hands get the same least cost through each variant; the wild one is made no better than the best. */
function agree(
  { variants }: CoreMoment,
  above: readonly (number | null)[],
  kin: readonly number[],
  strangeness: number,
  slackGiven: number,
  k: number,
  left: Chain,
  right: Chain,
  prices: Float64Array,
) {
  const wild = variants.length - 1;
  const a = amongKin(leastThrough(left, k, variants.length), kin);
  // What the left hand costs without the prices of this moment.
  const bare = a.reduce((least, cost, v) => Math.min(least, cost - prices[v]!), UNREACHABLE);
  const b = amongKin(leastThrough(right, k, variants.length), kin);
  let least = UNREACHABLE;
  const change = new Float64Array(variants.length);
  for (let v = 0; v < wild; v++) {
    if (a[v]! >= UNREACHABLE || b[v]! >= UNREACHABLE) continue;
    change[v] = (b[v]! - a[v]!) / 2;
    least = Math.min(least, (a[v]! + b[v]!) / 2);
  }
  if (least >= UNREACHABLE) return;
  // What is no node pays little more than keeps it from being better than the best for the right hand.
  for (let v = 0; v <= wild; v++) {
    const own = above[v] ?? null;
    if (a[v]! < UNREACHABLE || b[v]! >= UNREACHABLE || (own === null && v !== wild)) continue;
    const there = bare + (own ?? strangeness) + prices[v]!;
    const slack = (b[v]! + there) / 2 - least;
    change[v] = slack <= 0 ? (b[v]! - there) / 2 : b[v]! - least - slack * slackGiven;
  }
  for (let v = 0; v <= wild; v++) prices[v]! += change[v]!;
  shift(left, k, change, 1);
  shift(right, k, change, -1);
}

function amongKin(costs: Float64Array, kin: readonly number[]): Float64Array {
  const least = costs.slice();
  for (let v = 0; v < kin.length; v++) least[kin[v]!] = Math.min(least[kin[v]!]!, costs[v]!);
  return least.map((_cost, v) => least[kin[v]!]!);
}

function shift({ own, forward, variantOf }: Chain, k: number, change: Float64Array, sign: 1 | -1) {
  const variants = variantOf[k]!;
  for (let s = 0; s < variants.length; s++) {
    own[k]![s]! += sign * change[variants[s]!]!;
    forward[k]![s]! += sign * change[variants[s]!]!;
  }
}

function leastThrough({ forward, backward, variantOf }: Chain, k: number, count: number): Float64Array {
  const least = new Float64Array(count).fill(UNREACHABLE);
  const variants = variantOf[k]!;
  for (let s = 0; s < variants.length; s++) {
    const cost = forward[k]![s]! + backward[k]![s]!;
    if (cost < least[variants[s]!]!) least[variants[s]!] = cost;
  }
  return least;
}

function leftChain(
  core: readonly CoreMoment[],
  lefts: readonly Int32Array[],
  steps: readonly number[],
  prices: readonly Float64Array[],
): Chain {
  const own = core.map(({ nodes, layer }, k) =>
    Float64Array.from(
      nodes,
      ({ state, variant }) => layer.plays * layer.stateCost[state]! + prices[k]![variant]!,
    ),
  );
  const empty = () => own.map((row) => new Float64Array(row.length));
  return {
    own,
    entry: new Float64Array(own[0]?.length ?? 0),
    forward: empty(),
    backward: empty(),
    variantOf: core.map(({ nodes }) => Int32Array.from(nodes, ({ variant }) => variant)),
    stepForward: (k, before, into) => {
      const ways = lefts[k]!;
      for (let a = 0, n = 0; a < before.length; a++) {
        for (let b = 0; b < into.length; b++, n++) {
          const sum = before[a]! + steps[k]! * ways[n]!;
          if (sum < into[b]!) into[b] = sum;
        }
      }
    },
    stepBackward: (k, rest, into) => {
      const ways = lefts[k]!;
      for (let a = 0, n = 0; a < into.length; a++) {
        for (let b = 0; b < rest.length; b++, n++) {
          const sum = rest[b]! + steps[k]! * ways[n]!;
          if (sum < into[a]!) into[a] = sum;
        }
      }
    },
  };
}

/** The first layer of strokes is the start; its ways belong to the first moment's own cost. */
function rightChain(
  strokes: readonly StrokeLayer[],
  steps: readonly number[],
  prices: readonly Float64Array[],
  goesOn: boolean,
): Chain {
  const layers = strokes.slice(1);
  const own = layers.map(({ stateCost, shared, plays = 1 }, k) =>
    Float64Array.from(stateCost, (cost, r) => plays * cost - prices[k]![shared.states[r]!.variant]!),
  );
  const first = layers[0]?.shared.ways;
  if (first && !goesOn)
    own[0]!.forEach((_cost, r) => {
      own[0]![r]! += (layers[0]!.steps ?? 1) * first.price[first.start[r]!]!;
    });
  const empty = () => own.map((row) => new Float64Array(row.length));
  return {
    own,
    entry: new Float64Array(own[0]?.length ?? 0),
    forward: empty(),
    backward: empty(),
    variantOf: layers.map(({ shared }) => Int32Array.from(shared.states, ({ variant }) => variant)),
    stepForward: (k, before, into) => {
      const { situationOf, situations } = layers[k - 1]!.shared;
      const least = new Float64Array(situations.count).fill(UNREACHABLE);
      for (let s = 0; s < before.length; s++)
        if (before[s]! < least[situationOf[s]!]!) least[situationOf[s]!] = before[s]!;
      const { start, from, price } = layers[k]!.shared.ways;
      for (let s = 0; s < into.length; s++) {
        for (let e = start[s]!; e < start[s + 1]!; e++) {
          const sum = least[from[e]!]! + steps[k]! * price[e]!;
          if (sum < into[s]!) into[s] = sum;
        }
      }
    },
    stepBackward: (k, rest, into) => {
      const { situationOf, situations } = layers[k - 1]!.shared;
      const least = new Float64Array(situations.count).fill(UNREACHABLE);
      const { start, from, price } = layers[k]!.shared.ways;
      for (let s = 0; s < rest.length; s++) {
        for (let e = start[s]!; e < start[s + 1]!; e++) {
          const sum = rest[s]! + steps[k]! * price[e]!;
          if (sum < least[from[e]!]!) least[from[e]!] = sum;
        }
      }
      for (let s = 0; s < into.length; s++) into[s] = least[situationOf[s]!]!;
    },
  };
}
