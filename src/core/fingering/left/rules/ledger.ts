/** How an amount of a term is priced and written down. */
import { price } from '../../rules/costTerm';
import { LEFT_TERMS, type LeftTermId } from './terms';
import type { HandSetting } from './rule';
import type { LeftWeights } from './weights';

/** Told of every amount that is charged; how a total is explained. */
export type Ledger = (term: LeftTermId, cost: number) => void;

/** In whole tenths of a point. */
export const priceOf = (weights: LeftWeights, term: LeftTermId, value: number): number =>
  price(LEFT_TERMS[term], value, weights[term]);

/** Adds up charges of one state or step, for one hand on one instrument. */
export class Bill {
  sum = 0;

  constructor(
    readonly setting: HandSetting,
    private readonly ledger: Ledger | undefined,
  ) {}

  charge(term: LeftTermId, value: number): void {
    this.add(term, priceOf(this.setting.weights, term, value));
  }

  add(term: LeftTermId, cost: number): void {
    if (cost === 0) return;
    this.sum += cost;
    this.ledger?.(term, cost);
  }
}
