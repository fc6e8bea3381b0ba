/** The lattice of the left hand: a layer of states for each moment and the priced ways between them. */
import type { Layer } from '../lattice';
import type { FingeringProblem, Moment } from '../problem';
import type { HandState } from './handState';
import { HandWays } from './handWays';
import { stateCost } from './stateCost';
import { statesAt } from './states';
import { entryCost } from './transition';

export interface HandLayer extends Layer {
  readonly states: readonly HandState[];
  /** Struck strikes that are left out because no hand can play them with the rest. */
  readonly omitted: ReadonlySet<number>;
}

const NONE: ReadonlySet<number> = new Set();

/** Builds the layer of a moment on top of the one before; strikes are left out only where nothing else helps. */
export function handLayer(
  problem: FingeringProblem,
  moment: Moment,
  before: HandLayer | null,
  omitted: ReadonlySet<number> = NONE,
): HandLayer {
  let left = omitted;
  let states = statesAt(problem, moment, before?.states ?? null, left);
  for (const more of subsetsBySize(moment.struck.filter((strike) => !omitted.has(strike)))) {
    if (states.length > 0) break;
    left = new Set([...omitted, ...more]);
    states = statesAt(problem, moment, before?.states ?? null, left);
  }
  const costs = Int32Array.from(
    states,
    (state) => stateCost(problem, moment, state) + (before ? 0 : entryCost(state)),
  );
  const previous = before ? problem.moments[moment.index - 1]! : null;
  const ways = before && previous ? new HandWays(problem, previous, before.states, moment, states) : null;
  return { states, omitted: left, stateCost: costs, ways };
}

/** Non-empty subsets, the smallest first. */
export function subsetsBySize(items: readonly number[]): readonly (readonly number[])[] {
  const subsets = Array.from({ length: (1 << items.length) - 1 }, (_, k) =>
    items.filter((_item, bit) => (k + 1) & (1 << bit)),
  );
  return subsets.sort((a, b) => a.length - b.length);
}
