/**
 * The exact optimum over a chain of layers. A layer holds states with their own cost and the edges from the
 * layer before; dynamic programming forward and backward gives the best path and, for every state, the cost of
 * the best whole path through it.
 */

/** Above every real cost, and small enough that two of them still add up exactly. */
export const UNREACHABLE = 1_000_000_000;

export interface Layer {
  /** Own cost of each state. */
  readonly stateCost: Int32Array;
  /** Edges into state s are numbered edgeStart[s] to edgeStart[s + 1] − 1; the first layer has none. */
  readonly edgeStart: Int32Array;
  readonly edgeFrom: Int32Array;
  readonly edgeCost: Int32Array;
}

export interface Solution {
  readonly cost: number;
  /** Chosen state of each layer. */
  readonly path: readonly number[];
  /** Least cost from the start through this state, its own cost included. */
  readonly forward: readonly Int32Array[];
  /** Least cost from this state to the end, its own cost excluded. */
  readonly backward: readonly Int32Array[];
}

/** Which states of a layer may be used; null allows all. */
export type Mask = Uint8Array | null;

/**
 * Bellman's recursion in both directions. Among equal costs the lowest state number wins, from the end on.
 * Returns null when no path is left.
 */
export function solveLattice(layers: readonly Layer[], masks: readonly Mask[]): Solution | null {
  if (layers.length === 0) return { cost: 0, path: [], forward: [], backward: [] };
  const forward = forwardCosts(layers, masks);
  const backward = backwardCosts(layers, masks);
  const last = forward.at(-1)!;
  let end = -1;
  for (let s = 0; s < last.length; s++) if (last[s]! < (end < 0 ? UNREACHABLE : last[end]!)) end = s;
  if (end < 0) return null;
  return { cost: last[end]!, path: tracePath(layers, forward, end), forward, backward };
}

/** Cost of the best whole path through state `s` of layer `k`; UNREACHABLE when there is none. */
export function costThrough(solution: Solution, k: number, s: number): number {
  return Math.min(UNREACHABLE, solution.forward[k]![s]! + solution.backward[k]![s]!);
}

const allowed = (mask: Mask | undefined, s: number) => !mask || mask[s] === 1;

function forwardCosts(layers: readonly Layer[], masks: readonly Mask[]): Int32Array[] {
  const forward: Int32Array[] = [];
  for (const [k, layer] of layers.entries()) {
    const before = forward[k - 1];
    const here = new Int32Array(layer.stateCost.length).fill(UNREACHABLE);
    for (let s = 0; s < here.length; s++) {
      if (!allowed(masks[k], s)) continue;
      let least = before ? UNREACHABLE : 0;
      if (before) {
        for (let e = layer.edgeStart[s]!; e < layer.edgeStart[s + 1]!; e++) {
          const cost = before[layer.edgeFrom[e]!]! + layer.edgeCost[e]!;
          if (cost < least) least = cost;
        }
      }
      if (least < UNREACHABLE) here[s] = least + layer.stateCost[s]!;
    }
    forward.push(here);
  }
  return forward;
}

function backwardCosts(layers: readonly Layer[], masks: readonly Mask[]): Int32Array[] {
  const backward = layers.map((layer) => new Int32Array(layer.stateCost.length).fill(UNREACHABLE));
  backward.at(-1)!.fill(0);
  for (let k = layers.length - 1; k > 0; k--) {
    const layer = layers[k]!;
    const here = backward[k]!;
    const before = backward[k - 1]!;
    for (let s = 0; s < here.length; s++) {
      if (!allowed(masks[k], s) || here[s]! >= UNREACHABLE) continue;
      const rest = here[s]! + layer.stateCost[s]!;
      for (let e = layer.edgeStart[s]!; e < layer.edgeStart[s + 1]!; e++) {
        const cost = layer.edgeCost[e]! + rest;
        const from = layer.edgeFrom[e]!;
        if (cost < before[from]!) before[from] = cost;
      }
    }
  }
  return backward;
}

function tracePath(layers: readonly Layer[], forward: readonly Int32Array[], end: number): number[] {
  const path = new Array<number>(layers.length);
  let s = end;
  for (let k = layers.length - 1; k > 0; k--) {
    path[k] = s;
    const layer = layers[k]!;
    const wanted = forward[k]![s]! - layer.stateCost[s]!;
    let best = -1;
    for (let e = layer.edgeStart[s]!; e < layer.edgeStart[s + 1]!; e++) {
      const from = layer.edgeFrom[e]!;
      if (forward[k - 1]![from]! + layer.edgeCost[e]! === wanted && (best < 0 || from < best)) best = from;
    }
    s = best;
  }
  path[0] = s;
  return path;
}
