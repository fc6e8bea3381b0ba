/**
 * What fingers or thumb can know, numbered: equal parts have one number. What a sharing makes of a part is worked out
 * once for each number, since the same strokes come up again and again.
 */
import type { HandProfile } from '../../../instrument/handProfile';
import type { Sharing } from '../rules/memory';
import { modeNumber } from '../rules/modes';
import type { StrokeGroup } from '../rules/strokes';

/** What fingers and thumb differ in. */
export interface PartRules<T> {
  readonly keyOf: (part: T) => number;
  readonly after: (part: T, sharing: Sharing) => T;
  readonly cost: (part: T, group: StrokeGroup, sharing: Sharing, hand: HandProfile) => number;
}

export class PartTable<T> {
  readonly values: T[] = [];
  private readonly numbers = new Map<number, number>();
  private readonly afters = new Map<string, Memo>();

  constructor(private readonly rules: PartRules<T>) {}

  get strokesKnown(): number {
    return this.afters.size;
  }

  number(value: T): number {
    const key = this.rules.keyOf(value);
    let number = this.numbers.get(key);
    if (number === undefined) {
      number = this.values.push(value) - 1;
      this.numbers.set(key, number);
    }
    return number;
  }

  steps(group: StrokeGroup, sharing: Sharing, hand: HandProfile): Steps {
    const { rules, values } = this;
    return {
      after: this.afterOf(group, sharing),
      cost: new Memo((number) => rules.cost(values[number]!, group, sharing, hand)),
    };
  }

  /** What is known next depends on the strings and how they are played, and on nothing else of a group. */
  private afterOf({ strokes, effect, forgets }: StrokeGroup, sharing: Sharing): Memo {
    const { letters, mode } = sharing;
    const strings = `${strokes.map(({ string }) => string).join('')}${strokes[0]?.hand === 'thumb' ? 'b' : ''}`;
    const key = `${strings} ${letters.join('')} ${modeNumber(mode)} ${effect ?? ''}${forgets ? '~' : ''}${sharing.quickNext ? 'q' : ''}`;
    let after = this.afters.get(key);
    if (!after) {
      after = new Memo((number) => this.number(this.rules.after(this.values[number]!, sharing)));
      this.afters.set(key, after);
    }
    return after;
  }
}

/** One sharing after each part, by its number: what is known then, and what coming to it costs. */
export interface Steps {
  readonly after: Memo;
  readonly cost: Memo;
}

/** Whole numbers from 0 on by whole numbers from 0 on, each worked out when it is first asked for. */
export class Memo {
  private values = new Int32Array(32).fill(-1);

  constructor(private readonly workOut: (at: number) => number) {}

  of(at: number): number {
    const known = at < this.values.length ? this.values[at]! : -1;
    return known >= 0 ? known : this.set(at, this.workOut(at));
  }

  private set(at: number, value: number): number {
    if (at >= this.values.length) {
      const larger = new Int32Array(2 * at).fill(-1);
      larger.set(this.values);
      this.values = larger;
    }
    return (this.values[at] = value);
  }
}

/** Parts of one kind after a sharing. */
export interface Parted {
  /** By situation before: which of the distinct parts it holds. */
  readonly of: Int32Array;
  /** By distinct part: what coming to the sharing costs it, and which of `numbers` it becomes. */
  readonly cost: Int32Array;
  readonly newOf: Int32Array;
  /** What the parts have become, each once, and how many these are. */
  readonly numbers: Int32Array;
  readonly count: number;
}

/**
 * The parts that the situations before a moment hold, taken through one sharing after the other. The rows are written
 * over each time, since this is done many times a plan.
 */
export class Parting implements Parted {
  of = new Int32Array(64);
  cost = new Int32Array(64);
  newOf = new Int32Array(64);
  numbers = new Int32Array(64);
  count = 0;
  private parts = new Int32Array(64);
  private partsCount = 0;
  private readonly apart = new Apart();

  /** @param parts by situation: the number of its part */
  begin(parts: Int32Array): void {
    const rows = ['of', 'cost', 'newOf', 'numbers', 'parts'] as const;
    if (this.of.length < parts.length) for (const row of rows) this[row] = new Int32Array(2 * parts.length);
    this.partsCount = this.apart.write(parts, parts.length, this.of, this.parts);
  }

  through({ cost, after }: Steps): void {
    const { parts } = this;
    for (let n = 0; n < this.partsCount; n++) {
      this.cost[n] = cost.of(parts[n]!);
      this.newOf[n] = after.of(parts[n]!);
    }
    this.count = this.apart.write(this.newOf, this.partsCount, this.newOf, this.numbers);
  }
}

/** Tells numbers of parts apart, a row after the other; no scratch is cleared in between. */
export class Apart {
  /** By number: its place among the distinct ones, from `base` on; lower entries are of an earlier call. */
  private places = new Int32Array(1024);
  private base = 1;

  /** Writes which of the distinct numbers each is, and these in the order in which they appear; gives how many. */
  write(numbers: ArrayLike<number>, count: number, of: Int32Array, distinct: Int32Array): number {
    const { base } = this;
    let found = 0;
    for (let k = 0; k < count; k++) {
      const number = numbers[k]!;
      if (number >= this.places.length) this.grow(number);
      if (this.places[number]! < base) {
        this.places[number] = base + found;
        distinct[found++] = number;
      }
      of[k] = this.places[number]! - base;
    }
    this.base += found;
    return found;
  }

  private grow(number: number): void {
    const larger = new Int32Array(2 * number);
    larger.set(this.places);
    this.places = larger;
  }
}
