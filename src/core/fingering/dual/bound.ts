/** What no plan of both hands can be cheaper than, under multipliers on the strings; and where one could still be. */
import { after, Column, here } from '../solver/column';
import { sameNumbers } from '../solver/numberRows';
import { costThrough, type Layer, type Solution, UNREACHABLE } from '../solver/lattice';
import type { StrokeLayer } from '../right/lattice/strokeChain';
import type { CoreMoment } from './core';
import { stringsAt } from './strings';

/** Multipliers are counted in parts of a tenth of a point: rounded to whole ones they would lose half of one a moment. */
export const PARTS = 512;

/** By moment and variant: what the left hand pays for it, and the right hand is given. In parts. */
export type Multipliers = readonly Int32Array[];

/** By the strings of a state in one number: which variants have them. */
type VariantsByStrings = ReadonlyMap<number, readonly number[]>;

/** The same layer with every cost counted in parts. */
export const inParts = ({ stateCost, ways, plays = 1, steps = 1 }: Layer): Layer => ({
  stateCost,
  ways,
  plays: PARTS * plays,
  steps: PARTS * steps,
});

/** Which variants the states of a moment can be, those that are no nodes included. */
export function variantsByStrings(moment: CoreMoment): VariantsByStrings {
  let variants = ofStrings.get(moment);
  if (!variants) ofStrings.set(moment, (variants = readVariants(moment)));
  return variants;
}

const ofStrings = new WeakMap<CoreMoment, VariantsByStrings>();

function readVariants(moment: CoreMoment): VariantsByStrings {
  const variants = new Map<number, number[]>();
  const strings = stringsAt(moment.layer, moment.struckColumns);
  const add = (state: number, variant: number) => {
    const key = strings.keys[strings.of[state]!]!;
    const list = variants.get(key);
    if (!list) variants.set(key, [variant]);
    else if (!list.includes(variant)) list.push(variant);
  };
  for (const { state, variant } of moment.nodes) add(state, variant);
  for (const [state, list] of moment.outside) for (const variant of list) add(state, variant);
  return variants;
}

/**
 * Variants that some state can both be, slurred and plucked, must have one price, since the left hand's own lattice does
 * not tell them apart: by variant the first of those alike.
 */
export function alikeOf(moment: CoreMoment, variants: VariantsByStrings): readonly number[] {
  const alike = moment.variants.map((_group, v) => v);
  for (let changed = true; changed;) {
    changed = false;
    for (const list of variants.values()) {
      const first = Math.min(...list.map((v) => alike[v]!));
      for (const v of list) {
        if (alike[v] === first) continue;
        alike[v] = first;
        changed = true;
      }
    }
  }
  return alike;
}

interface Paid {
  readonly multipliers: Int32Array;
  readonly byState: Int32Array;
}
const paidAt = new WeakMap<CoreMoment, Paid>();

/** The least price of each state of the left hand's layer; those on other strings get that of all others. */
export function pricesOfStates(moment: CoreMoment, multipliers: Int32Array): Int32Array {
  const known = paidAt.get(moment);
  if (known && sameRow(known.multipliers, multipliers)) return known.byState;
  const { of } = stringsAt(moment.layer, moment.struckColumns);
  const least = leastByStrings(moment, multipliers);
  const byState = new Int32Array(of.length);
  for (let s = 0; s < of.length; s++) byState[s] = least[of[s]!]!;
  paidAt.set(moment, { multipliers, byState });
  return byState;
}

/** By the strings that states of the moment lie on: the least of their variants, or that of all others. */
function leastByStrings(moment: CoreMoment, ofVariants: ArrayLike<number>): readonly number[] {
  const variants = variantsByStrings(moment);
  const other = ofVariants[ofVariants.length - 1]!;
  return stringsAt(moment.layer, moment.struckColumns).keys.map((key) => {
    const list = variants.get(key);
    return list ? Math.min(...list.map((v) => ofVariants[v]!)) : other;
  });
}

const givenAt = new WeakMap<StrokeLayer, Paid>();

/** What each state of a layer of strokes is given. */
export function pricesOfStrokes(layer: StrokeLayer, multipliers: Int32Array): Int32Array {
  const known = givenAt.get(layer);
  if (known && sameRow(known.multipliers, multipliers)) return known.byState;
  const { variantOf } = layer.shared;
  const byState = new Int32Array(variantOf.length);
  for (let r = 0; r < variantOf.length; r++) byState[r] = 0 - multipliers[variantOf[r]!]!;
  givenAt.set(layer, { multipliers, byState });
  return byState;
}

const sameRow = (a: Int32Array, b: Int32Array) =>
  a === b || (a.length === b.length && a.every((value, k) => value === b[k]));

/** By moment the states below a limit; lists that say the same stay the same objects. */
export const belowColumn = () => new Column<readonly number[]>(sameNumbers);

/** Both hands' solutions under the multipliers, and a limit on what both may cost together, in parts. */
export interface Limit {
  readonly left: Solution;
  readonly right: Solution;
  readonly most: number;
}

/** By moment: the states of the left hand through which both hands together could cost less than the limit. */
export function statesBelow(
  core: readonly CoreMoment[],
  strokes: readonly StrokeLayer[],
  { left, right, most }: Limit,
  column: Column<readonly number[]>,
): readonly (readonly number[])[] {
  // Above what the messages of a moment count from.
  const above = core.map((_moment, k) => most - offsetsAt(left, k) - offsetsAt(right, k + 1));
  const messages = [
    here(left.forward.cost),
    here(left.backward.cost),
    after(right.forward.cost),
    after(right.backward.cost),
  ] as const;
  return column.of(core.length, [here(core), here(above), ...messages], (k, moment) => {
    const through = throughStates(moment, strokes[k + 1]!, k, left, right);
    const some: number[] = [];
    for (let s = 0; s < through.length; s++) if (through[s]! < most) some.push(s);
    return some;
  });
}

const offsetsAt = ({ forward, backward }: Solution, k: number) => forward.offset[k]! + backward.offset[k]!;

/** By state of the left hand at moment k: what both hands cost at least when it is taken, in parts. */
export function throughStates(
  moment: CoreMoment,
  strokes: StrokeLayer,
  k: number,
  left: Solution,
  right: Solution,
): Float64Array {
  const rest = leastByStrings(moment, leastByVariant(right, strokes, k + 1, moment.variants.length));
  const { of } = stringsAt(moment.layer, moment.struckColumns);
  const through = new Float64Array(of.length);
  for (let s = 0; s < of.length; s++) {
    const there = costThrough(left, k, s);
    through[s] = there >= UNREACHABLE ? UNREACHABLE : there + rest[of[s]!]!;
  }
  return through;
}

function leastByVariant(solution: Solution, layer: StrokeLayer, k: number, count: number): readonly number[] {
  const least = Array<number>(count).fill(UNREACHABLE);
  const { variantOf } = layer.shared;
  for (let r = 0; r < variantOf.length; r++) {
    const cost = costThrough(solution, k, r);
    if (cost < least[variantOf[r]!]!) least[variantOf[r]!] = cost;
  }
  return least;
}
