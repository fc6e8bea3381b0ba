/** The exact right-hand plan for given strings, around the ink. */
import type { HandProfile } from '../../instrument/handProfile';
import { EdgeList } from '../edgeList';
import type { Pluck } from '../../score/model';
import type { Ink } from '../ink';
import {
  bestPath,
  costThrough,
  type Layer,
  type Mask,
  type Solution,
  solveLattice,
  UNREACHABLE,
} from '../lattice';
import type { Placement } from '../left/handState';
import type { FingeringProblem } from '../problem';
import { groupCost, strokeTransitionCost } from './strokeCost';
import { sharingsOf, type StrokeGroup, strokeGroupsOf } from './strokes';
import { keyOf, sharingFor, stateAfter, type StrokeState } from './strokeState';

export interface RightPlan {
  readonly cost: number;
  readonly lowerBound: number;
  /** By strike; null where nothing is plucked or no letter fits the ink. */
  readonly plucks: readonly (Pluck | null)[];
  /** By strike: every letter, best first, with the exact extra cost of the best plan that contains it. */
  readonly candidates: readonly (readonly RightCandidate[])[];
  /** The cost that each moment adds; 0 where nothing is plucked. */
  readonly costByMoment: readonly number[];
  /** Strikes whose inked letters cannot be played together, a list for each moment. */
  readonly conflicts: readonly (readonly number[])[];
}

export interface RightCandidate {
  readonly pluck: Pluck;
  readonly extraCost: number;
}

export interface StrokeLayer extends Layer {
  readonly ways: EdgeList;
  readonly group: StrokeGroup;
  readonly states: readonly StrokeState[];
}

/** Plans the right hand again and again as strings and ink change; what is the same from the start is kept. */
export class RightPlanner {
  private layers: readonly StrokeLayer[] = [];

  constructor(private readonly problem: FingeringProblem) {}

  plan(placements: readonly (Placement | null)[], ink: Ink): RightPlan {
    const { problem } = this;
    const inked = (strike: number) => inkedPluck(problem, ink, strike);
    const asked = strokeGroupsOf(problem, placements);
    const groups = asked.map((group) => withoutConflict(group, inked));
    const played = groups.filter((group) => group.strokes.length > 0);
    const layers = (this.layers = strokeLayers(played, problem.hand, this.layers));
    const masks = layers.map((layer) => maskOf(layer, inked));
    const solution = solveLattice(layers, masks);
    if (!solution) throw new Error('letters that agree with the ink exist in every group');
    const conflicts = asked
      .map((group, k) => group.strokes.filter((stroke) => !groups[k]!.strokes.includes(stroke)))
      .filter((left) => left.length > 0)
      .map((left) => left.map((stroke) => stroke.strike));
    return { ...readSolution(problem, layers, solution), conflicts };
  }
}

function readSolution(
  problem: FingeringProblem,
  layers: readonly StrokeLayer[],
  solution: Solution,
): Omit<RightPlan, 'conflicts'> {
  const path = bestPath(solution);
  const plucks: (Pluck | null)[] = problem.strikes.map(() => null);
  const candidates: RightCandidate[][] = problem.strikes.map(() => []);
  const costByMoment = problem.moments.map(() => 0);
  layers.forEach((layer, k) => {
    const chosen = layer.states[path[k]!]!;
    costByMoment[layer.group.momentIndex] =
      layer.stateCost[path[k]!]! + edgeCostBetween(layer, path[k - 1], path[k]!);
    layer.group.strokes.forEach((stroke, slot) => {
      plucks[stroke.strike] = chosen.letters[slot]!;
      candidates[stroke.strike] = rank(layer, slot, (s) => costThrough(solution, k, s) - solution.cost);
    });
  });
  return { cost: solution.cost, lowerBound: solution.cost, plucks, candidates, costByMoment };
}

const edgeCostBetween = (layer: StrokeLayer, from: number | undefined, to: number): number =>
  (from === undefined ? null : layer.ways.maybePrice(from, to)) ?? 0;

/** The lattice of the right hand. Layers of an earlier call are used again as far as the strokes are the same. */
export function strokeLayers(
  groups: readonly StrokeGroup[],
  hand: HandProfile,
  earlier: readonly StrokeLayer[] = [],
): readonly StrokeLayer[] {
  const differs = groups.findIndex((group, k) => !earlier[k] || !sameStrokes(group, earlier[k].group));
  const layers = earlier.slice(0, differs < 0 ? groups.length : differs);
  while (layers.length < groups.length)
    layers.push(layerAfter(layers.at(-1) ?? null, groups[layers.length]!, hand));
  return layers;
}

const sameStrokes = (a: StrokeGroup, b: StrokeGroup) =>
  a.momentIndex === b.momentIndex &&
  a.strokes.length === b.strokes.length &&
  a.strokes.every(
    (stroke, k) => stroke.strike === b.strokes[k]!.strike && stroke.string === b.strokes[k]!.string,
  );

function layerAfter(before: StrokeLayer | null, group: StrokeGroup, hand: HandProfile): StrokeLayer {
  const numbers = new Map<number, number>();
  const states: StrokeState[] = [];
  const stateCost: number[] = [];
  const edges: { readonly from: number[]; readonly cost: number[] }[] = [];
  for (const [n, letters] of sharingsOf(group.strokes.length).entries()) {
    const sharing = sharingFor(group, letters);
    const own = groupCost(group, sharing);
    for (const [index, from] of (before?.states ?? [null]).entries()) {
      const state = stateAfter(from, group, sharing);
      const key = keyOf(state, n);
      let number = numbers.get(key);
      if (number === undefined) {
        number = states.push(state) - 1;
        numbers.set(key, number);
        stateCost.push(own);
        edges.push({ from: [], cost: [] });
      }
      if (!from) continue;
      edges[number]!.from.push(index);
      edges[number]!.cost.push(strokeTransitionCost(from, group, sharing, hand));
    }
  }
  const edgeStart = new Int32Array(states.length + 1);
  edges.forEach((list, s) => (edgeStart[s + 1] = edgeStart[s]! + list.from.length));
  const ways = new EdgeList(
    edgeStart,
    Int32Array.from(edges.flatMap((list) => list.from)),
    Int32Array.from(edges.flatMap((list) => list.cost)),
  );
  return { group, states, stateCost: Int32Array.from(stateCost), ways };
}

function inkedPluck(problem: FingeringProblem, ink: Ink, strike: number): Pluck | null {
  const uid = problem.strikes[strike]!.uids.find((one) => ink.get(one)?.pluck);
  return uid === undefined ? null : ink.get(uid)!.pluck;
}

type Inked = (strike: number) => Pluck | null;

const lettersAgree = (group: StrokeGroup, letters: readonly Pluck[], inked: Inked) =>
  group.strokes.every((stroke, k) => [null, letters[k]].includes(inked(stroke.strike)));

function maskOf(layer: StrokeLayer, inked: Inked): Mask {
  if (layer.group.strokes.every((stroke) => inked(stroke.strike) === null)) return null;
  return Uint8Array.from(layer.states, (state) => (lettersAgree(layer.group, state.letters, inked) ? 1 : 0));
}

/** Leaves out the fewest strokes so that the inked letters of the rest can be played together. */
function withoutConflict(group: StrokeGroup, inked: Inked): StrokeGroup {
  const count = group.strokes.length;
  const subsets = Array.from({ length: 1 << count }, (_, subset) => subset);
  const size = (subset: number) => subset.toString(2).replace(/0/g, '').length;
  for (const subset of subsets.sort((a, b) => size(a) - size(b) || a - b)) {
    const rest = { ...group, strokes: group.strokes.filter((_, bit) => !(subset & (1 << bit))) };
    if (sharingsOf(rest.strokes.length).some((letters) => lettersAgree(rest, letters, inked))) return rest;
  }
  return { ...group, strokes: [] };
}

function rank(layer: StrokeLayer, slot: number, extraOf: (s: number) => number): RightCandidate[] {
  const best = new Map<Pluck, number>();
  layer.states.forEach((state, s) => {
    const extra = extraOf(s);
    const letter = state.letters[slot]!;
    if (extra < (best.get(letter) ?? UNREACHABLE / 2)) best.set(letter, extra);
  });
  return [...best]
    .map(([pluck, extraCost]) => ({ pluck, extraCost }))
    .sort((a, b) => a.extraCost - b.extraCost);
}
