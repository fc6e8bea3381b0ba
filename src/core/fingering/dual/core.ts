/**
 * The part of the left hand's lattice on which both hands are planned together: states that are not much dearer than
 * the best, with the strings that each gives the right hand.
 */
import { placeAt } from '../left/lattice/stateRows';
import { sameNumbers } from '../solver/numberRows';
import { Column, here } from '../solver/column';
import type { Solution } from '../solver/lattice';
import { slurPlayable } from '../left/rules/connections';
import { NO_PLACE, PLACEMENTS, spotOf } from '../left/rules/place';
import type { HandLayer } from '../left/lattice/handLayer';
import type { LeftSolved } from '../left/lattice/leftLattice';
import type { FingeringProblem } from '../problem/problem';
import type { InkedLetters } from '../right/lattice/inkedLetters';
import type { RightSetting } from '../right/rules/setting';
import {
  forgetting,
  type PlacedStrike,
  type StrokeGroup,
  strokeGroup,
  restGroup,
} from '../right/rules/strokes';
import { stringsAt } from './strings';

/**
 * Each stroke that is left out because inked letters contradict each other, in tenths of a point: dearer than anything
 * that its moment could cost otherwise, and still whole when it is counted in parts.
 */
export const LEFT_OUT_COST = 100_000;

/** A state of the left hand, with which of its notes are played by a slur from the state before. */
export interface CoreNode {
  readonly state: number;
  /** A bit for each struck note of the moment that can be slurred. */
  readonly slurs: number;
  readonly variant: number;
}

export interface CoreMoment extends Asked {
  readonly layer: HandLayer;
  readonly nodes: readonly CoreNode[];
  /** What the right hand may have to play; the last stands for all other strings: it bounds all that is not in the core. */
  readonly variants: readonly StrokeGroup[];
  /** By variant: how many strokes are left out because their inked letters contradict each other. */
  readonly leftOut: readonly number[];
  /** The slurs that a state of the moment before and one of this make; null where there are none. */
  readonly slursFrom: ((before: number, here: number) => number) | null;
  /** Columns of the layer's rows that hold the struck notes. */
  readonly struckColumns: readonly number[];
  /** The variants of states that are no nodes. */
  readonly outside: ReadonlyMap<number, readonly number[]>;
}

/** How much dearer than the best of the left hand, in tenths of a point: nodes, strings, and strings that are far. */
export interface HowNear {
  readonly nodes: number;
  readonly strings: number;
  readonly far: number;
}

/** Moments at which nothing else is near than before stay the same objects. */
export const nearColumn = (): Column<Asked> => new Column(sameAsked);

/** What of the left hand's solved lattice is near to its best, by moment. */
export function nearStates(
  { layers, chain, path }: Pick<LeftSolved, 'layers' | 'chain' | 'path'>,
  struck: readonly (readonly number[])[],
  most: HowNear,
  column: Column<Asked>,
): readonly Asked[] {
  const { forward, backward } = chain;
  const offsets = layers.map((_layer, k) => offsetOf(chain, k));
  return column.of(
    layers.length,
    [here(layers), here(forward.cost), here(backward.cost), here(offsets), here(path)],
    (k, layer) => nearAt(layer, chain, { k, best: path[k]! }, struckColumnsOf(layer, struck[k]!), most),
  );
}

/** What messages at a moment count from, above the best of all. */
const offsetOf = ({ forward, backward, cost }: Solution, k: number) =>
  forward.offset[k]! + backward.offset[k]! - cost;

function nearAt(
  layer: HandLayer,
  solution: Solution,
  { k, best }: { readonly k: number; readonly best: number },
  columns: readonly number[],
  most: HowNear,
): Asked {
  const above = offsetOf(solution, k);
  const [there, rest] = [solution.forward.cost[k]!, solution.backward.cost[k]!];
  const strings = stringsAt(layer, columns);
  const close: Dearness[] = [];
  // By strings: the cheapest state on them.
  const cheapest: (Dearness | undefined)[] = strings.keys.map(() => undefined);
  for (let s = 0; s < there.length; s++) {
    const extra = there[s]! + rest[s]! + above;
    if (extra > most.strings && s !== best) continue;
    // Where jumps are paid in part only, the best may look dearer than others.
    if (s === best) close.push({ s, extra: -1 });
    else if (extra <= most.nodes) close.push({ s, extra });
    const known = cheapest[strings.of[s]!];
    if (!known || extra < known.extra) cheapest[strings.of[s]!] = { s, extra };
  }
  const kept = cheapest
    .filter((one) => one !== undefined)
    .sort(byDearness)
    .slice(0, MOST_VARIANTS)
    .sort((a, b) => a.s - b.s);
  const nodes = close
    .sort(byDearness)
    .slice(0, MOST_NODES)
    .map(({ s }) => s)
    .sort((a, b) => a - b);
  const far = kept.filter(({ extra }) => extra > most.far).map(({ s }) => s);
  return { states: nodes, others: kept.map(({ s }) => s), far };
}

/** A state, and how much dearer than the best the best path through it is. */
interface Dearness {
  readonly s: number;
  readonly extra: number;
}

const byDearness = (a: Dearness, b: Dearness) => a.extra - b.extra || a.s - b.s;

/** More ways to put one moment on strings than these are bounded together. */
const MOST_VARIANTS = 16;
/** And more states than these take no part in the ascent; they are bounded as all others are. */
const MOST_NODES = 32;

const struckColumnsOf = (layer: HandLayer, struck: readonly number[]): readonly number[] =>
  struck.map((strike) => layer.strikes.indexOf(strike)).filter((c) => c >= 0);

/** What the core of a moment is made of. */
export interface Asked {
  /** The nodes. */
  readonly states: readonly number[];
  /** States whose strings are variants, too, but that are no nodes. */
  readonly others: readonly number[];
  /** Those of them after which the right hand may forget: they are too dear to be bounded exactly. */
  readonly far: readonly number[];
}

/** Moments that are asked for alike stay the same objects. */
export class CoreColumns {
  readonly asked = new Column<Asked>(sameAsked);
  readonly moments = new Column<CoreMoment>();
}

/** What is asked about each moment. */
export function coreOf(
  context: CoreContext,
  asked: readonly Asked[],
  columns: CoreColumns,
): readonly CoreMoment[] {
  const { problem, layers, inked } = context;
  // What is asked for in other objects, but alike, is the same.
  const wanted = columns.asked.of(layers.length, [here(asked)], (_k, one) => one);
  const keys = layers.map((_layer, k) => inked.keyOf(k));
  // Only slurs look at the moment before.
  const slurred = layers.map((_layer, k) => k > 0 && hasSlurs(problem, k));
  const statesBefore = wanted.map((_one, k) => (slurred[k] ? wanted[k - 1]!.states : null));
  const layersBefore = layers.map((_layer, k) => (slurred[k] ? layers[k - 1]! : null));
  return columns.moments.of(
    layers.length,
    [here(layers), here(wanted), here(keys), here(statesBefore), here(layersBefore)],
    (k, _layer, one, _key, states) => momentOf(context, k, one, states),
  );
}

const sameAsked = (a: Asked, b: Asked) =>
  sameNumbers(a.states, b.states) && sameNumbers(a.others, b.others) && sameNumbers(a.far, b.far);

const hasSlurs = (problem: FingeringProblem, k: number) =>
  problem.moments[k]!.struck.some((strike) => problem.strikes[strike]!.slurredFrom !== null);

/** A group's key does not say which strike lies where. */
const groupId = (group: StrokeGroup) => `${group.key}#${group.strokes.map(({ strike }) => strike).join()}`;

/** The hands, and what is inked. */
export interface CoreContext {
  readonly problem: FingeringProblem;
  readonly setting: RightSetting;
  readonly layers: readonly HandLayer[];
  readonly inked: InkedLetters;
}

function momentOf(
  { problem, setting, layers, inked }: CoreContext,
  k: number,
  { states, others, far }: Asked,
  before: readonly number[] | null,
): CoreMoment {
  const layer = layers[k]!;
  const struck = struckIn(layer, problem.moments[k]!.struck);
  const slurs = before ? slurPairs(problem, struck, layers[k - 1]!) : null;
  const slursFrom = slurs && ((a: number, b: number) => slurBits(slurs, layers[k - 1]!, a, layer, b));
  const variants: StrokeGroup[] = [];
  const leftOut: number[] = [];
  const numbers = new Map<string, number>();
  // By spots and slurs, since most states differ in fingers only.
  const known = new Map<number, number[]>();
  const numberOf = (state: number, bits: number, forgets: boolean): number => {
    const asked = strokeGroup(problem, setting, k, placedIn(layer, struck, state, bits));
    const kept = inked.adapt(asked);
    const left = asked.strokes.length - kept.strokes.length;
    const id = `${groupId(kept)} ${left}`;
    let variant = numbers.get(id);
    if (variant === undefined) {
      variant = variants.push(forgets ? forgetting(kept) : kept) - 1;
      leftOut.push(left);
      numbers.set(id, variant);
    }
    return variant;
  };
  const variantsOf = (state: number, bits: readonly number[], forgets: boolean): readonly number[] => {
    const spots = spotsOf(layer, struck, state);
    let row = known.get(spots);
    if (!row) known.set(spots, (row = []));
    return bits.map((some) => (row[some] ??= numberOf(state, some, forgets)));
  };
  const madeSlurs = (state: number) =>
    slursFrom ? [...new Set(before!.map((a) => slursFrom(a, state)))].sort((a, b) => a - b) : [0];
  const nodes = states.flatMap((state) => {
    const bits = madeSlurs(state);
    return variantsOf(state, bits, false).map((variant, n): CoreNode => ({
      state,
      slurs: bits[n]!,
      variant,
    }));
  });
  // Of a state that is no node it is not known what comes before: each of its slurs may be one or not.
  const thinkable = subsetsOf(
    struck.strikes.reduce(
      (bits, strike, n) => bits | (slurs && problem.strikes[strike]!.slurredFrom !== null ? 1 << n : 0),
      0,
    ),
  );
  const isFar = new Set(far);
  const outside = new Map<number, readonly number[]>();
  for (const state of slursFrom ? new Set([...states, ...others]) : others)
    outside.set(state, [...new Set(variantsOf(state, thinkable, isFar.has(state)))]);
  // On strings that nobody has looked at, at least as much is left out as on those where it is least.
  const leastLeftOut = () => {
    const { keys, of } = stringsAt(layer, struck.columns);
    const onStrings = keys.flatMap((_key, n) => variantsOf(of.indexOf(n), thinkable, false));
    return Math.min(...onStrings.map((variant) => leftOut[variant]!));
  };
  const real = variants.length;
  const other = leftOut.some((count) => count > 0) ? leastLeftOut() : 0;
  return {
    layer,
    nodes,
    variants: [...variants.slice(0, real), restGroup(setting, k)],
    leftOut: [...leftOut.slice(0, real), other],
    slursFrom,
    struckColumns: struck.columns,
    outside,
    states,
    others,
    far,
  };
}

const subsetsOf = (bits: number): readonly number[] =>
  Array.from({ length: bits + 1 }, (_, subset) => subset).filter((subset) => (subset & ~bits) === 0);

/** The struck notes that are not left out, with their columns in the rows of the layer. */
interface Struck {
  readonly strikes: readonly number[];
  readonly columns: readonly number[];
}

function struckIn(layer: HandLayer, struck: readonly number[]): Struck {
  const strikes = struck.filter((strike) => layer.strikes.includes(strike));
  return { strikes, columns: struckColumnsOf(layer, strikes) };
}

const SPOTS = 256;

/** Strings and frets of the struck notes in one number; at most six of them sound at once. */
const spotsOf = ({ rows }: HandLayer, { columns }: Struck, state: number): number =>
  columns.reduce((key, column) => {
    const place = placeAt(rows, state, column);
    return key * SPOTS + (place === NO_PLACE ? 0 : spotOf(place) + 1);
  }, 0);

function placedIn(
  { rows }: HandLayer,
  { strikes, columns }: Struck,
  state: number,
  slurs: number,
): readonly PlacedStrike[] {
  return strikes.flatMap((strike, n) => {
    const place = placeAt(rows, state, columns[n]!);
    if (place === NO_PLACE) return [];
    return [{ strike, place: PLACEMENTS[place]!, slurred: (slurs & (1 << n)) !== 0 }];
  });
}

/** A note that may be slurred, and the one before that it is slurred from. */
interface SlurPair {
  readonly bit: number;
  readonly column: number;
  readonly columnBefore: number;
}

const slurPairs = (
  problem: FingeringProblem,
  { strikes, columns }: Struck,
  before: HandLayer,
): readonly SlurPair[] =>
  strikes
    .map((strike, n) => {
      const source = problem.strikes[strike]!.slurredFrom;
      const columnBefore = source === null ? -1 : before.strikes.indexOf(source);
      return { bit: 1 << n, column: columns[n]!, columnBefore };
    })
    .filter(({ columnBefore }) => columnBefore >= 0);

function slurBits(
  pairs: readonly SlurPair[],
  { rows: rowsBefore }: HandLayer,
  before: number,
  { rows }: HandLayer,
  state: number,
): number {
  let bits = 0;
  for (const { bit, column, columnBefore } of pairs) {
    const from = placeAt(rowsBefore, before, columnBefore);
    const to = placeAt(rows, state, column);
    if (from === NO_PLACE || to === NO_PLACE) continue;
    if (slurPlayable(PLACEMENTS[from]!, PLACEMENTS[to]!)) bits |= bit;
  }
  return bits;
}
