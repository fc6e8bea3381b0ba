/** The lattice of the left hand: a layer of states for each moment and the priced ways between them. */
import type { FingeringProblem, Moment } from '../../problem/problem';
import type { LayerStore } from './layerStore';
import { PackedLayer } from './packedLayer';
import { stepTo } from './step';

const NONE: ReadonlySet<number> = new Set();

/** The layer of a moment on top of the one before; strikes are left out only where nothing else helps. */
export function handLayer(
  problem: FingeringProblem,
  store: LayerStore,
  moment: Moment,
  before: PackedLayer | null,
  omitted: ReadonlySet<number> = NONE,
): PackedLayer {
  const step = stepTo(problem, before?.strikes ?? [], moment);
  const leftOut = new Set(moment.struck.flatMap((strike, k) => (omitted.has(strike) ? [k] : [])));
  const shared = store.layer(before?.rows ?? null, step, leftOut);
  const struck = moment.struck.filter((_strike, k) => !shared.omitted.has(k));
  return new PackedLayer(
    store.tables,
    shared.rows,
    before ? [...moment.held, ...struck] : struck,
    moment.tick,
    new Set([...shared.omitted].map((k) => moment.struck[k]!)),
    shared.stateCost,
    shared.ways,
    problem.passes.plays[moment.index]!,
    problem.passes.steps[moment.index]!,
  );
}
