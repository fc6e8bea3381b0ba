/** The layer of a moment: what it shares with equal steps elsewhere, and its place in the piece. */
import type { FingeringProblem, Moment } from '../../problem/problem';
import { columnsOf } from '../rules/recordHand';
import { stepTo } from '../rules/step';
import { HandLayer } from './handLayer';
import type { LayerStore } from './layerStore';

const NONE: ReadonlySet<number> = new Set();

/** On top of the layer before; strikes are left out only where nothing else helps. */
export function layerAt(
  problem: FingeringProblem,
  store: LayerStore,
  moment: Moment,
  before: HandLayer | null,
  omitted: ReadonlySet<number> = NONE,
): HandLayer {
  const step = stepTo(problem, before?.strikes ?? [], moment);
  const leftOut = new Set(moment.struck.flatMap((strike, k) => (omitted.has(strike) ? [k] : [])));
  const shared = store.layer(before?.rows ?? null, step, leftOut);
  const left = new Set([...shared.omitted].map((k) => moment.struck[k]!));
  return new HandLayer(shared, {
    strikes: columnsOf(before ? moment : { ...moment, held: [], taken: [] }).filter(
      (strike) => !left.has(strike),
    ),
    tick: moment.tick,
    omitted: left,
    plays: problem.passes.plays[moment.index]!,
    steps: problem.passes.steps[moment.index]!,
  });
}
