/** The lattice of the right hand over a whole piece: a start, then a layer for each moment. */
import type { Layer } from '../lattice';
import { type FingeringProblem } from '../problem';
import { type SharedStrokes, StrokeStore } from './strokeStore';
import { type StrokeGroup, stepMs } from './strokes';
import { StrokeWays } from './strokeWays';

export interface StrokeLayer extends Layer {
  readonly shared: SharedStrokes;
  readonly ways: StrokeWays | null;
  /** The groups it was made for. */
  readonly groups: readonly StrokeGroup[];
}

/**
 * @param groups by moment: one group for each way to put its notes on strings
 * @param earlier the chain of an earlier call: layers that are the same stay the same objects
 * @returns one layer more than there are moments; the first is the start
 */
export function strokeChain(
  problem: FingeringProblem,
  store: StrokeStore,
  groups: readonly (readonly StrokeGroup[])[],
  earlier: readonly StrokeLayer[] = [],
): readonly StrokeLayer[] {
  const { plays, steps } = problem.passes;
  const first: StrokeLayer = earlier[0] ?? {
    shared: store.start,
    stateCost: store.start.stateCost,
    ways: null,
    groups: [],
  };
  const layers = [first];
  const last = groups.length - 1;
  groups.forEach((variants, k) => {
    const before = layers.at(-1)!;
    const known = earlier[k + 1];
    const alike = known && earlier[k]!.shared === before.shared;
    if (alike && known.groups === variants) {
      layers.push(known);
      return;
    }
    const shared = store.layer(before.shared, variants, k < last ? stepMs(problem, k + 1) : 0);
    if (alike && known.shared === shared) {
      layers.push(known);
      return;
    }
    layers.push({
      shared,
      groups: variants,
      stateCost: shared.stateCost,
      ways: new StrokeWays(before.shared.situationOf, before.shared.situations.count, shared.ways),
      plays: plays[k]!,
      steps: k === 0 ? plays[0]! : steps[k]!,
    });
  });
  return layers;
}
