/** Which barre lies on in a state, by the arrivals that it comes from. */
import { lyingAfter } from '../rules/lyingBarre';
import { NO_STAND } from '../rules/stand';
import type { Arrivals } from './holds';

type Sorted = readonly (readonly [lying: number, arrivals: readonly number[]])[];

export class LyingBarres {
  /** By list of arrivals: lists are made once, since equal ones are told by being one. */
  private readonly known = new Map<readonly number[], Map<string, Sorted>>();
  private readonly barresOf = new Map<readonly number[], readonly number[]>();

  constructor(private readonly arrivals: Arrivals) {}

  /** The barres that may lie after them, in the order of their numbers, and the arrivals that leave each. */
  after(arrivals: readonly number[], beside: Parameters<typeof lyingAfter>[1]): Sorted {
    const before = this.barresBefore(arrivals);
    if (before.length === 0) return [[lyingAfter(NO_STAND, beside), arrivals]];
    const after = before.map((barre) => lyingAfter(barre, beside));
    if (after.every((barre) => barre === after[0])) return [[after[0]!, arrivals]];
    let sorted = this.known.get(arrivals);
    if (!sorted) this.known.set(arrivals, (sorted = new Map()));
    const key = after.join();
    let parts = sorted.get(key);
    if (!parts) sorted.set(key, (parts = this.sort(arrivals, before, after)));
    return parts;
  }

  /** NO_STAND among them where none lies. */
  private barresBefore(arrivals: readonly number[]): readonly number[] {
    let barres = this.barresOf.get(arrivals);
    if (!barres) {
      barres = [...new Set(arrivals.map((arrival) => this.arrivals.groups[arrival]!.lying))];
      this.barresOf.set(arrivals, barres);
    }
    return barres;
  }

  private sort(arrivals: readonly number[], before: readonly number[], after: readonly number[]): Sorted {
    const afterOf = (arrival: number) => after[before.indexOf(this.arrivals.groups[arrival]!.lying)]!;
    return [...new Set(after)]
      .sort((a, b) => a - b)
      .map((lying) => [lying, arrivals.filter((arrival) => afterOf(arrival) === lying)] as const);
  }
}
