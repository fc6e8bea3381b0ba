/** The lattice of the right hand over a whole piece: a start, then a layer for each moment. */
import { before, Column } from '../../solver/column';
import type { Layer } from '../../solver/lattice';
import { beginnings } from '../../problem/passes';
import { type FingeringProblem } from '../../problem/problem';
import { type SharedStrokes, StrokeStore } from './strokeStore';
import type { StrokeGroup } from '../rules/strokes';
import { StrokeWays } from './strokeWays';

export interface StrokeLayer extends Layer {
  readonly shared: SharedStrokes;
  /** What it comes from; null at the start. */
  readonly before: SharedStrokes | null;
  readonly ways: StrokeWays | null;
  /** The groups it was made for. */
  readonly groups: readonly StrokeGroup[];
}

/** Layers of earlier calls: what is the same stays the same objects. */
export const strokeColumn = (): Column<StrokeLayer> =>
  new Column((a, b) => a.shared === b.shared && a.before === b.before);

/**
 * @param groups by moment: one group for each way to put its notes on strings; the same row where nothing has changed
 * @returns one layer more than there are moments; the first is the start
 */
export function strokeChain(
  problem: FingeringProblem,
  store: StrokeStore,
  groups: readonly (readonly StrokeGroup[])[],
  column: Column<StrokeLayer> = strokeColumn(),
): readonly StrokeLayer[] {
  const { passes } = problem;
  const { plays, steps } = passes;
  return column.of(groups.length + 1, [before(groups), column.own()], (n, variants, last): StrokeLayer => {
    if (!variants || !last)
      return { shared: store.start, before: null, stateCost: store.start.stateCost, ways: null, groups: [] };
    const k = n - 1;
    const shared = store.layer(last.shared, variants);
    return {
      shared,
      before: last.shared,
      groups: variants,
      stateCost: shared.stateCost,
      ways: new StrokeWays(last.shared.situationOf, last.shared.situations.count, shared.ways),
      plays: plays[k]!,
      steps: k === 0 ? beginnings(passes) : steps[k]!,
    };
  });
}
