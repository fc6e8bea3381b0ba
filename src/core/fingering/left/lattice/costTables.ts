/**
 * Lookup tables of one hand on one instrument: what the rules say about codes and pairs of codes, worked out once and
 * read from here millions of times. They say nothing of a piece, so that the next one finds them.
 */
import { NumberMap } from '../../solver/numberMap';
import { pairPlayable } from '../rules/constraints';
import { Bill } from '../rules/ledger';
import { PLACEMENTS, PLACES, placeId } from '../rules/place';
import { placementsOf } from '../rules/placements';
import { type CarriedRule, COUNTS, type HandSetting, type OwnRule, type WayRule } from '../rules/rule';
import type { StruckNote } from '../rules/step';
import { CarriedTable, PairTable } from './pairTable';

const UNKNOWN = 0;
const PLAYABLE = 1;
const IMPOSSIBLE = 2;

/** Tables with so many numbers are begun anew for the next piece: they would only grow. */
const MOST_NUMBERS = 1 << 23;

export class CostTables {
  private readonly pairs = new Uint8Array(PLACES * PLACES);
  private readonly placesOfPitch = new Map<number, readonly number[]>();
  private readonly own = new Map<string, NumberMap>();
  private readonly plain = new Map<string, PairTable>();
  private readonly carried = new Map<string, CarriedTable>();

  constructor(readonly setting: HandSetting) {}

  /** Whether one hand can hold two places at once, leaving aside what lies under a barre. */
  fit(a: number, b: number): boolean {
    const cell = a * PLACES + b;
    if (this.pairs[cell] === UNKNOWN) {
      const { fretboard, hand } = this.setting;
      const can = pairPlayable(PLACEMENTS[a]!, PLACEMENTS[b]!, fretboard, hand);
      this.pairs[cell] = can ? PLAYABLE : IMPOSSIBLE;
    }
    return this.pairs[cell] === PLAYABLE;
  }

  /** Places of a note as numbers, in their order. */
  placesOf({ midi, touch }: StruckNote): readonly number[] {
    const find = () =>
      placementsOf(this.setting, { midi, touch })
        .map(placeId)
        .sort((a, b) => a - b);
    if (touch) return find();
    let places = this.placesOfPitch.get(midi);
    if (!places) this.placesOfPitch.set(midi, (places = find()));
    return places;
  }

  /** What a rule charges for a code. */
  ownCosts({ id }: OwnRule): NumberMap {
    let costs = this.own.get(id);
    if (!costs) this.own.set(id, (costs = new NumberMap()));
    return costs;
  }

  ownCost({ charge }: OwnRule, code: number): number {
    const bill = new Bill(this.setting, undefined);
    charge(code, bill);
    return bill.sum;
  }

  /** @param rules that look at the same of both states */
  plainTable(rules: readonly WayRule[]): PairTable {
    const key = rules.map(({ id }) => id).join('+');
    let table = this.plain.get(key);
    if (!table) this.plain.set(key, (table = new PairTable(rules, this.setting)));
    return table;
  }

  carriedTable(rule: CarriedRule): CarriedTable {
    let table = this.carried.get(rule.id);
    if (!table) this.carried.set(rule.id, (table = new CarriedTable(rule, this.setting, COUNTS)));
    return table;
  }

  get isFull(): boolean {
    let numbers = 0;
    for (const { size } of [...this.plain.values(), ...this.carried.values()]) numbers += size;
    return numbers > MOST_NUMBERS;
  }
}

/** So many hands keep their tables: a desk has one, a server those of its last pieces. */
const MOST_HANDS = 4;
const hands = new Map<string, CostTables>();

/** Equal hands on equal instruments share their tables, as long as these are not too large. */
export function costTables({ fretboard, hand, weights, tuning }: HandSetting): CostTables {
  const setting = { fretboard, hand, weights, tuning };
  const key = JSON.stringify(setting);
  const known = hands.get(key);
  const tables = known && !known.isFull ? known : new CostTables(setting);
  // The one that was asked for last comes last.
  hands.delete(key);
  hands.set(key, tables);
  const [oldest] = hands.keys();
  if (hands.size > MOST_HANDS) hands.delete(oldest!);
  return tables;
}
