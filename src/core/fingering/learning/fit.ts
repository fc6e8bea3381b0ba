/**
 * Fits factors on weights so that accepted fingerings cost less than their rivals: a hinge with one slack for an
 * example, a quadratic pull to where the weights were, signs and orders kept. Source: structured large-margin learning
 * (Taskar et al. 2005, ICML; Joachims et al. 2009, Machine Learning 77), solved by projected subgradient steps.
 */
import { type Example, type Rival, sharesOf } from './example';

export interface FitRules {
  /** Terms whose weights are free; all others keep theirs. */
  readonly terms: readonly string[];
  /** Weights before, above 0 for every free term. */
  readonly weights: Readonly<Record<string, number>>;
  /** Strength of the pull to factor 1. */
  readonly pull: number;
  /** Loss of an example counts up to this, so that one that contradicts the others does not lead. */
  readonly mostLoss: number;
  /** A factor stays between 1/this and this. */
  readonly farthest: number;
  /** The first of each pair never weighs less than the second. */
  readonly orders: readonly (readonly [more: string, less: string])[];
}

export interface Fitted {
  /** By free term: new weight over the old one. */
  readonly factors: ReadonlyMap<string, number>;
  /** What is left of the loss, each family counting equally. */
  readonly loss: number;
}

const STEPS = 4000;
const FIRST_STEP = 0.5;

/** @throws Error when a free term weighs nothing: there is nothing to multiply */
export function fitFactors(examples: readonly Example[], rules: FitRules): Fitted {
  const { terms, weights, pull } = rules;
  const idle = terms.find((term) => !(weights[term]! > 0));
  if (idle !== undefined) throw new Error(`${idle} weighs nothing: only what weighs something can be fitted`);
  const rows = rowsOf(examples, terms);
  const factors = terms.map(() => 1);
  const best = { factors: [...factors], value: Infinity };
  for (let step = 0; step < STEPS; step++) {
    const { value, gradient } = lossAt(rows, factors, rules.mostLoss);
    const pulled = value + (pull / 2) * factors.reduce((sum, factor) => sum + (factor - 1) ** 2, 0);
    if (pulled < best.value) Object.assign(best, { factors: [...factors], value: pulled });
    const slope = gradient.map((one, k) => one + pull * (factors[k]! - 1));
    const norm = Math.hypot(...slope);
    if (norm < 1e-9) break;
    const size = FIRST_STEP / Math.sqrt(1 + step);
    slope.forEach((one, k) => (factors[k] = factors[k]! - (size * one) / Math.max(1, norm)));
    project(factors, rules);
  }
  return {
    factors: new Map(terms.map((term, k) => [term, best.factors[k]!])),
    loss: lossAt(rows, best.factors, rules.mostLoss).value,
  };
}

/** A rival as numbers: what of its distance is fixed, and what hangs on each free term. */
interface Row {
  readonly fixed: number;
  readonly free: readonly number[];
  readonly margin: number;
}

interface ExampleRows {
  readonly share: number;
  readonly rows: readonly Row[];
}

function rowsOf(examples: readonly Example[], terms: readonly string[]): readonly ExampleRows[] {
  const shares = sharesOf(examples);
  return examples.map(({ rivals }, k) => ({
    share: shares[k]!,
    rows: rivals.map((rival) => rowOf(rival, terms)),
  }));
}

function rowOf({ above, margin }: Rival, terms: readonly string[]): Row {
  let fixed = 0;
  for (const [term, cost] of above) if (!terms.includes(term)) fixed += cost;
  return { fixed, free: terms.map((term) => above.get(term) ?? 0), margin };
}

/** How much dearer a rival is, at these factors. */
const distanceOf = ({ fixed, free }: Row, factors: readonly number[]): number =>
  free.reduce((sum, cost, k) => sum + cost * factors[k]!, fixed);

function lossAt(examples: readonly ExampleRows[], factors: readonly number[], mostLoss: number) {
  let value = 0;
  const gradient = factors.map(() => 0);
  for (const { share, rows } of examples) {
    let [slack, worst]: [number, Row | null] = [0, null];
    for (const row of rows) {
      const lack = row.margin - distanceOf(row, factors);
      if (lack > slack) [slack, worst] = [lack, row];
    }
    value += share * Math.min(slack, mostLoss);
    if (worst && slack < mostLoss)
      worst.free.forEach((cost, k) => (gradient[k] = gradient[k]! - share * cost));
  }
  return { value, gradient };
}

/** Puts factors back to where they may be: near enough, and in their order. */
function project(factors: number[], { terms, weights, farthest, orders }: FitRules): void {
  for (const [more, less] of orders) {
    const [a, b] = [terms.indexOf(more), terms.indexOf(less)];
    if (a < 0 || b < 0) continue;
    const [x, y] = [factors[a]! * weights[more]!, factors[b]! * weights[less]!];
    if (x >= y) continue;
    factors[a] = (x + y) / 2 / weights[more]!;
    factors[b] = (x + y) / 2 / weights[less]!;
  }
  factors.forEach((factor, k) => (factors[k] = Math.min(farthest, Math.max(1 / farthest, factor))));
}
