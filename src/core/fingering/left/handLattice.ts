/** The lattice of the left hand: a layer of states for each moment and the priced ways between them. */
import type { FingeringProblem, Moment } from '../problem';
import { entryCost } from './barreCost';
import { FINGER_OF, type HandTables } from './packed/handTables';
import { keptHands, type KeptHands, stringBit } from './packed/keptHands';
import { PackedLayer } from './packed/packedLayer';
import { PackedWays } from './packed/packedWays';
import { rowCosts } from './packed/rowCosts';
import { growStates, type GrownStates } from './packed/stateRows';
import { StepPrice } from './packed/stepPrice';

const NONE: ReadonlySet<number> = new Set();

/** Builds the layer of a moment on top of the one before; strikes are left out only where nothing else helps. */
export function handLayer(
  problem: FingeringProblem,
  tables: HandTables,
  moment: Moment,
  before: PackedLayer | null,
  omitted: ReadonlySet<number> = NONE,
): PackedLayer {
  const choices = moment.struck.map((strike) => tables.placesOf(problem.strikes[strike]!, problem.tuning));
  const grow = (left: ReadonlySet<number>): GrownStates & { readonly kept: KeptHands } => {
    const played = moment.struck.map((strike, k) => ({ strike, places: choices[k]! }));
    const here = played.filter(({ strike }) => !left.has(strike));
    const kept = keptHands(problem, tables, before?.rows ?? null, moment, {
      mayBeFree: here.every(({ places }) => places.some((place) => FINGER_OF[place] === 0)),
      count: here.length,
      strings: here.reduce((bits, one) => one.places.reduce((sum, place) => sum | stringBit(place), bits), 0),
    });
    const strikes = here.map(({ strike }) => strike);
    const places = here.map((one) => one.places);
    return { kept, ...growStates(tables, moment, kept, strikes, places) };
  };
  let left = omitted;
  let grown = grow(left);
  for (const more of subsetsBySize(moment.struck.filter((strike) => !omitted.has(strike)))) {
    if (grown.rows.count > 0) break;
    left = new Set([...omitted, ...more]);
    grown = grow(left);
  }
  const { rows, sourcesOf, kept } = grown;
  const costs = rowCosts(problem, tables, moment, rows);
  if (!before) {
    for (const [s, state] of rows.barred) costs[s]! += entryCost(problem, state);
    return new PackedLayer(tables, rows, left, costs, null);
  }
  const previous = problem.moments[moment.index - 1]!;
  const step = new StepPrice(problem, tables, before, previous, rows, moment);
  return new PackedLayer(
    tables,
    rows,
    left,
    costs,
    new PackedWays(tables.arena, before.rows, rows, sourcesOf, kept.crowds, step),
  );
}

/** Non-empty subsets, the smallest first. */
export function subsetsBySize(items: readonly number[]): readonly (readonly number[])[] {
  const subsets = Array.from({ length: (1 << items.length) - 1 }, (_, k) =>
    items.filter((_item, bit) => (k + 1) & (1 << bit)),
  );
  return subsets.sort((a, b) => a.length - b.length);
}
