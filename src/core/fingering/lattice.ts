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

/** Which states of a layer may be used; null allows all. */
export type Mask = Uint8Array | null;

/** One direction of the recursion: least costs and the neighbours that give them, by layer and state. */
export interface Messages {
  readonly masks: readonly Mask[];
  readonly cost: readonly Int32Array[];
  /** State of the neighbouring layer on the best way, −1 where there is none. */
  readonly via: readonly Int32Array[];
}

/** Both directions; `forward` counts a state's own cost, `backward` does not. */
export interface Solution {
  readonly layers: readonly Layer[];
  readonly forward: Messages;
  readonly backward: Messages;
  readonly cost: number;
}

/**
 * Bellman's recursion in both directions. Messages of an earlier solution of the same layers are used again as
 * far as the masks agree: forward up to the first difference, backward from the last one. Among equal costs the
 * lowest state number wins. Returns null when no path is left.
 */
export function solveLattice(
  layers: readonly Layer[],
  masks: readonly Mask[],
  earlier: Solution | null = null,
): Solution | null {
  const known = earlier && earlier.layers === layers ? earlier : null;
  const forward = forwardMessages(layers, masks, known?.forward ?? null);
  const last = forward.cost.at(-1);
  if (!last) return { layers, forward, backward: forward, cost: 0 };
  const cost = last.reduce((least, one) => Math.min(least, one), UNREACHABLE);
  if (cost >= UNREACHABLE) return null;
  return { layers, forward, backward: backwardMessages(layers, masks, known?.backward ?? null), cost };
}

/** Cost of the best whole path through state `s` of layer `k`; UNREACHABLE when there is none. */
export function costThrough(solution: Solution, k: number, s: number): number {
  return Math.min(UNREACHABLE, solution.forward.cost[k]![s]! + solution.backward.cost[k]![s]!);
}

/** The best whole path through state `s` of layer `k`, a state for each layer. */
export function pathThrough(solution: Solution, k: number, s: number): readonly number[] {
  const path = new Array<number>(solution.layers.length);
  path[k] = s;
  for (let j = k; j > 0; j--) path[j - 1] = solution.forward.via[j]![path[j]!]!;
  for (let j = k; j < path.length - 1; j++) path[j + 1] = solution.backward.via[j]![path[j]!]!;
  return path;
}

/** The best path of all. */
export function bestPath(solution: Solution): readonly number[] {
  const k = solution.layers.length - 1;
  return k < 0 ? [] : pathThrough(solution, k, solution.forward.cost[k]!.indexOf(solution.cost));
}

const allowed = (mask: Mask | undefined, s: number) => !mask || mask[s] === 1;

function sameMask(a: Mask | undefined, b: Mask | undefined): boolean {
  if (!a || !b) return !a && !b;
  return a.length === b.length && a.every((bit, s) => bit === b[s]);
}

function forwardMessages(layers: readonly Layer[], masks: readonly Mask[], known: Messages | null): Messages {
  const agreed = known ? masks.findIndex((mask, k) => !sameMask(mask, known.masks[k])) : 0;
  if (known && agreed < 0) return known;
  const cost = known ? known.cost.slice(0, agreed) : [];
  const via = known ? known.via.slice(0, agreed) : [];
  for (let k = agreed; k < layers.length; k++) {
    const layer = layers[k]!;
    const before = cost[k - 1];
    const here = new Int32Array(layer.stateCost.length).fill(UNREACHABLE);
    const from = new Int32Array(here.length).fill(-1);
    for (let s = 0; s < here.length; s++) {
      if (!allowed(masks[k], s)) continue;
      let least = before ? UNREACHABLE : 0;
      if (before) {
        for (let e = layer.edgeStart[s]!; e < layer.edgeStart[s + 1]!; e++) {
          const sum = before[layer.edgeFrom[e]!]! + layer.edgeCost[e]!;
          if (sum >= least) continue;
          least = sum;
          from[s] = layer.edgeFrom[e]!;
        }
      }
      if (least < UNREACHABLE) here[s] = least + layer.stateCost[s]!;
    }
    cost.push(here);
    via.push(from);
  }
  return { masks, cost, via };
}

function backwardMessages(
  layers: readonly Layer[],
  masks: readonly Mask[],
  known: Messages | null,
): Messages {
  let differs = layers.length - 1;
  if (known) while (differs >= 0 && sameMask(masks[differs], known.masks[differs])) differs--;
  if (known && differs < 0) return known;
  const cost = layers.map((layer, k) =>
    known && k >= differs ? known.cost[k]! : new Int32Array(layer.stateCost.length).fill(UNREACHABLE),
  );
  const via = layers.map((layer, k) =>
    known && k >= differs ? known.via[k]! : new Int32Array(layer.stateCost.length).fill(-1),
  );
  if (!known) cost.at(-1)!.fill(0);
  for (let k = differs; k > 0; k--) {
    const layer = layers[k]!;
    const here = cost[k]!;
    const before = cost[k - 1]!;
    const next = via[k - 1]!;
    for (let s = 0; s < here.length; s++) {
      if (!allowed(masks[k], s) || here[s]! >= UNREACHABLE) continue;
      const rest = here[s]! + layer.stateCost[s]!;
      for (let e = layer.edgeStart[s]!; e < layer.edgeStart[s + 1]!; e++) {
        const sum = layer.edgeCost[e]! + rest;
        const from = layer.edgeFrom[e]!;
        if (sum >= before[from]!) continue;
        before[from] = sum;
        next[from] = s;
      }
    }
  }
  return { masks, cost, via };
}
