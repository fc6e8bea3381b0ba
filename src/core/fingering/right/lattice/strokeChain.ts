/** The lattice of the right hand over a whole piece: a start, then a layer for each moment. */
import { carried } from '../../solver/carried';
import type { Layer } from '../../solver/lattice';
import { type FingeringProblem } from '../../problem/problem';
import { type SharedStrokes, StrokeStore } from './strokeStore';
import type { StrokeGroup } from '../rules/strokes';
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
 * @param isSame whether the groups of a moment are those of then
 * @returns one layer more than there are moments; the first is the start
 */
export function strokeChain(
  problem: FingeringProblem,
  store: StrokeStore,
  groups: (k: number) => readonly StrokeGroup[],
  earlier: readonly StrokeLayer[] = [],
  isSame: (k: number) => boolean = (k) => groups(k) === earlier[k + 1]!.groups,
): readonly StrokeLayer[] {
  const { plays, steps } = problem.passes;
  const count = problem.moments.length;
  const layerAt = (n: number, made: readonly StrokeLayer[]): StrokeLayer => {
    if (n === 0) return { shared: store.start, stateCost: store.start.stateCost, ways: null, groups: [] };
    const k = n - 1;
    const before = made[k]!.shared;
    const shared = store.layer(before, groups(k));
    const known = earlier[n];
    if (known?.shared === shared && earlier[k]!.shared === before) return known;
    return {
      shared,
      groups: groups(k),
      stateCost: shared.stateCost,
      ways: new StrokeWays(before.situationOf, before.situations.count, shared.ways),
      plays: plays[k]!,
      steps: k === 0 ? plays[0]! : steps[k]!,
    };
  };
  const sameAt = (n: number, made: readonly StrokeLayer[]) =>
    n === 0 || (made[n - 1] === earlier[n - 1] && isSame(n - 1));
  return carried(count + 1, earlier, sameAt, layerAt);
}
