/**
 * What fingers or thumb can know, numbered: equal parts have one number. What time and a sharing make of a part is
 * worked out once for each number, since the same strokes come up again and again.
 */
import type { HandProfile } from '../../instrument/handProfile';
import type { Sharing } from './memory';
import type { StrokeGroup } from './strokes';

/** What fingers and thumb differ in. */
export interface PartRules<T> {
  readonly keyOf: (part: T) => string;
  readonly agedBy: (part: T, ms: number) => T;
  readonly after: (part: T, sharing: Sharing) => T;
  readonly cost: (part: T, group: StrokeGroup, sharing: Sharing, hand: HandProfile) => number;
}

export class PartTable<T> {
  readonly values: T[] = [];
  private readonly numbers = new Map<string, number>();
  private readonly ageing = new Map<number, Memo>();

  constructor(private readonly rules: PartRules<T>) {}

  number(value: T): number {
    const key = this.rules.keyOf(value);
    let number = this.numbers.get(key);
    if (number === undefined) {
      number = this.values.push(value) - 1;
      this.numbers.set(key, number);
    }
    return number;
  }

  /** The number of the same part so many ms later. */
  aged(number: number, ms: number): number {
    let ages = this.ageing.get(ms);
    if (!ages) this.ageing.set(ms, (ages = new Memo()));
    const known = ages.get(number);
    return known >= 0 ? known : ages.set(number, this.number(this.rules.agedBy(this.values[number]!, ms)));
  }

  steps(group: StrokeGroup, sharing: Sharing, hand: HandProfile): Steps {
    const { rules, values } = this;
    const after = new Memo();
    const cost = new Memo();
    return {
      after: (number) => {
        const known = after.get(number);
        return known >= 0 ? known : after.set(number, this.number(rules.after(values[number]!, sharing)));
      },
      cost: (number) => {
        const known = cost.get(number);
        return known >= 0 ? known : cost.set(number, rules.cost(values[number]!, group, sharing, hand));
      },
    };
  }
}

/** One sharing after each part, by its number: what is known then, and what coming to it costs. */
export interface Steps {
  readonly after: (number: number) => number;
  readonly cost: (number: number) => number;
}

/** Whole numbers from 0 on by whole numbers from 0 on; −1 for what is not known yet. */
export class Memo {
  private values = new Int32Array(32).fill(-1);

  get(at: number): number {
    return at < this.values.length ? this.values[at]! : -1;
  }

  set(at: number, value: number): number {
    if (at >= this.values.length) {
      const larger = new Int32Array(2 * at).fill(-1);
      larger.set(this.values);
      this.values = larger;
    }
    return (this.values[at] = value);
  }
}

/** Tells numbers apart: by position which of the distinct ones it is, in the order in which they appear. */
export class Distinct {
  private seen = new Int32Array(1024);
  /** Entries below it are of an earlier call. */
  private base = 1;

  among(numbers: ArrayLike<number>): { readonly indexOf: Int32Array; readonly numbers: readonly number[] } {
    const distinct: number[] = [];
    const indexOf = new Int32Array(numbers.length);
    const { base } = this;
    for (let k = 0; k < numbers.length; k++) {
      const number = numbers[k]!;
      if (number >= this.seen.length) this.grow(number);
      if (this.seen[number]! < base) this.seen[number] = base + distinct.push(number) - 1;
      indexOf[k] = this.seen[number]! - base;
    }
    this.base += distinct.length;
    return { indexOf, numbers: distinct };
  }

  private grow(number: number): void {
    const larger = new Int32Array(2 * number);
    larger.set(this.seen);
    this.seen = larger;
  }
}
