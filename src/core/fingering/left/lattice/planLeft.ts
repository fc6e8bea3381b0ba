/** The exact left-hand plan of a piece, around the ink, with the price of every other choice. */
import { placeAt } from './stateRows';
import { type Ink, type InkMarks, NO_INK } from '../../problem/ink';
import {
  bestPath,
  costThrough,
  type Mask,
  pathThrough,
  solveLattice,
  type Solution,
  UNREACHABLE,
} from '../../solver/lattice';
import type { FingeringProblem, Moment } from '../../problem/problem';
import type { Strike } from '../../problem/strike';
import { placeId, type Placement, PLACEMENTS } from '../rules/place';
import type { HandState } from '../rules/handState';
import { layerAt } from './layerAt';
import { solveWithReturns } from './returns';
import { costTables } from './costTables';
import { LayerStore, subsetsBySize } from './layerStore';
import type { HandLayer } from './handLayer';

export interface LeftConflict {
  /** Strikes that cannot be played with the rest of their moment. */
  readonly strikes: readonly number[];
  /** Whether ink is the reason: without it everything could be played. */
  readonly byInk: boolean;
}

export interface LeftPlan {
  readonly cost: number;
  readonly lowerBound: number;
  /** By strike; null where the strike is left out. */
  readonly placements: readonly (Placement | null)[];
  /** By moment. */
  readonly states: readonly HandState[];
  readonly conflicts: readonly LeftConflict[];
}

export interface LeftSolved {
  readonly layers: readonly HandLayer[];
  readonly masks: readonly Mask[];
  readonly chain: Solution;
  readonly solution: Solution;
}

export interface LeftCandidate {
  readonly place: Placement;
  /** Effort in tenths of a point above the best plan: exact. */
  readonly extraCost: number;
  /** The hand at every moment in the best plan with this choice. */
  readonly states: () => readonly HandState[];
}

/**
 * Plans the left hand of one problem again and again under changing ink. The lattice does not depend on the
 * ink, so it is built once; ink only forbids states.
 */
export class LeftPlanner {
  private readonly free: readonly HandLayer[];
  private readonly store: LayerStore;
  /** The last solution: most of its messages hold for the next question. */
  private latest: Solution | null = null;

  constructor(readonly problem: FingeringProblem) {
    this.store = new LayerStore(costTables(problem));
    this.free = buildLayers(problem, this.store, new Map());
  }

  /** States at each moment without ink. */
  get stateCounts(): readonly number[] {
    return this.free.map((layer) => layer.rows.count);
  }

  /** The layers without ink: what the checks of exactness walk over. */
  get layers(): readonly HandLayer[] {
    return this.free;
  }

  plan(ink: Ink): LeftPlan {
    const { layers, solution } = this.solve(ink);
    const plan = this.planOf(statesOn(layers, bestPath(solution)), this.conflictsOf(layers));
    return { ...plan, cost: solution.cost, lowerBound: solution.cost };
  }

  conflictsOf(layers: readonly HandLayer[]): readonly LeftConflict[] {
    return layers
      .map((layer, k) => ({
        strikes: [...layer.omitted],
        byInk: layer.omitted.size > this.free[k]!.omitted.size,
      }))
      .filter((conflict) => conflict.strikes.length > 0);
  }

  /** The placements on a path of states. */
  planOf(
    states: readonly HandState[],
    conflicts: readonly LeftConflict[],
  ): Omit<LeftPlan, 'cost' | 'lowerBound'> {
    const placements: (Placement | null)[] = this.problem.strikes.map(() => null);
    for (const moment of this.problem.moments) {
      const state = states[moment.index]!;
      for (const strike of moment.struck) {
        const slot = state.strikes.indexOf(strike);
        if (slot >= 0) placements[strike] = state.placements[slot]!;
      }
    }
    return { placements, states, conflicts };
  }

  /**
   * Every string and finger for one strike, best first, with the exact extra cost of the best whole plan that
   * contains it. The strike's own ink is lifted for the question.
   */
  candidates(ink: Ink, strikeIndex: number): readonly LeftCandidate[] {
    const strike = this.problem.strikes[strikeIndex]!;
    const others = new Map(ink);
    for (const uid of strike.uids) others.delete(uid);
    const { layers, solution } = this.solve(others);
    const k = this.problem.moments.findIndex((moment) => moment.struck.includes(strikeIndex));
    if (this.problem.passes.returns.length > 0)
      return this.candidatesOneByOne(others, strike, layers, solution.cost);
    const best = new Map<number, LeftCandidate>();
    layers[k]!.states.forEach((state, s) => {
      const slot = state.strikes.indexOf(strikeIndex);
      const cost = costThrough(solution, k, s);
      if (slot < 0 || cost >= UNREACHABLE) return;
      const place = state.placements[slot]!;
      const extraCost = cost - solution.cost;
      const known = best.get(placeId(place));
      if (known && known.extraCost <= extraCost) return;
      best.set(placeId(place), {
        place,
        extraCost,
        states: () => statesOn(layers, pathThrough(solution, k, s)),
      });
    });
    return [...best.values()].sort(
      (a, b) => a.extraCost - b.extraCost || placeId(a.place) - placeId(b.place),
    );
  }

  /** With ways back the messages are bounds only: each choice is planned by itself. */
  private candidatesOneByOne(
    others: Ink,
    { index, uids }: Strike,
    layers: readonly HandLayer[],
    best: number,
  ): readonly LeftCandidate[] {
    const k = this.problem.moments.findIndex((moment) => moment.struck.includes(index));
    const places = new Map<number, Placement>();
    for (const state of layers[k]!.states) {
      const place = state.placements[state.strikes.indexOf(index)];
      if (place) places.set(placeId(place), place);
    }
    const priced = [...places.values()].map((place) => {
      const ink = new Map(others).set(uids[0]!, { finger: place.finger, string: place.string, pluck: null });
      const forced = this.solve(ink);
      return {
        place,
        extraCost: forced.solution.cost - best,
        conflicts: forced.layers[k]!.omitted.size > layers[k]!.omitted.size,
        states: () => statesOn(forced.layers, bestPath(forced.solution)),
      };
    });
    return priced
      .filter(({ conflicts }) => !conflicts)
      .sort((a, b) => a.extraCost - b.extraCost || placeId(a.place) - placeId(b.place));
  }

  /** The lattice around the ink with its solution; `chain` is the one without ways back. */
  solve(ink: Ink): LeftSolved {
    const marks = inkByStrike(this.problem, ink);
    const omissions = inkOmissions(this.problem, this.store, this.free, marks);
    const layers = omissions.size === 0 ? this.free : rebuilt(this.problem, this.store, omissions, this.free);
    const masks = layers.map((layer, k) => maskOf(layer, this.problem.moments[k]!, marks));
    const solution = solveLattice(layers, masks, this.latest);
    if (!solution) throw new Error('the left hand found no path, though every layer has an allowed state');
    this.latest = solution;
    if (this.problem.passes.returns.length === 0) return { layers, masks, chain: solution, solution };
    const whole = solveWithReturns(this.problem, layers, masks, solution);
    if (!whole)
      throw new Error('the left hand found no path with the returns, though there is one without them');
    return { layers, masks, chain: solution, solution: whole };
  }
}

export const statesOn = (layers: readonly HandLayer[], path: readonly number[]): readonly HandState[] =>
  path.map((s, k) => layers[k]!.state(s));

function buildLayers(
  problem: FingeringProblem,
  store: LayerStore,
  omissions: ReadonlyMap<number, ReadonlySet<number>>,
): readonly HandLayer[] {
  const layers: HandLayer[] = [];
  for (const moment of problem.moments) {
    layers.push(layerAt(problem, store, moment, layers.at(-1) ?? null, omissions.get(moment.index)));
  }
  return layers;
}

/** Builds anew only from where notes are left out until the states are again those of the free layers. */
function rebuilt(
  problem: FingeringProblem,
  store: LayerStore,
  omissions: ReadonlyMap<number, ReadonlySet<number>>,
  free: readonly HandLayer[],
): readonly HandLayer[] {
  const layers: HandLayer[] = [];
  for (const moment of problem.moments) {
    const k = moment.index;
    const omitted = omissions.get(k);
    const before = layers.at(-1) ?? null;
    const alike = k === 0 || sameStates(before!, free[k - 1]!);
    layers.push(alike && !omitted ? free[k]! : layerAt(problem, store, moment, before, omitted));
  }
  return layers;
}

/** Rows are interned, so equal ones are one. */
const sameStates = (a: HandLayer, b: HandLayer): boolean =>
  a === b || (a.rows === b.rows && a.strikes.every((strike, c) => strike === b.strikes[c]));

/** Ink by strike; notes of a unison share it. */
function inkByStrike(problem: FingeringProblem, ink: Ink): readonly InkMarks[] {
  return problem.strikes.map((strike) => {
    if (!strike.uids.some((uid) => ink.has(uid))) return NO_INK;
    const marks = strike.uids.map((uid) => ink.get(uid) ?? NO_INK);
    const first = <K extends keyof InkMarks>(key: K) => marks.find((one) => one[key] !== null)?.[key] ?? null;
    return { finger: first('finger'), string: first('string'), pluck: first('pluck') };
  });
}

const agrees = (place: Placement, marks: InkMarks) =>
  (marks.finger === null || marks.finger === place.finger) &&
  (marks.string === null || marks.string === place.string);

const isInked = (marks: InkMarks) => marks.finger !== null || marks.string !== null;

/** Read off the rows: a layer may have thousands of states. */
function maskOf(layer: HandLayer, moment: Moment, marks: readonly InkMarks[]): Mask {
  const inked = moment.struck.filter((strike) => isInked(marks[strike]!));
  if (inked.length === 0) return null;
  const { rows, strikes } = layer;
  const mask = new Uint8Array(rows.count).fill(1);
  for (const strike of inked) {
    const column = strikes.indexOf(strike);
    if (column < 0) continue;
    for (let s = 0; s < rows.count; s++) {
      if (mask[s] && !agrees(PLACEMENTS[placeAt(rows, s, column)]!, marks[strike]!)) mask[s] = 0;
    }
  }
  return mask;
}

/**
 * For each moment where the ink contradicts itself or the hand: the smallest set of strikes to leave out so
 * that the rest can be played as inked. Held strikes never force this, they can be let go.
 */
function inkOmissions(
  problem: FingeringProblem,
  store: LayerStore,
  layers: readonly HandLayer[],
  marks: readonly InkMarks[],
): ReadonlyMap<number, ReadonlySet<number>> {
  const omissions = new Map<number, ReadonlySet<number>>();
  for (const moment of problem.moments) {
    const layer = layers[moment.index]!;
    const mask = maskOf(layer, moment, marks);
    if (!mask || mask.includes(1)) continue;
    for (const omitted of subsetsBySize(moment.struck)) {
      const alone = layerAt(problem, store, moment, null, new Set(omitted));
      const fits = maskOf(alone, moment, marks);
      if (alone.omitted.size === omitted.length && (!fits || fits.includes(1))) {
        omissions.set(moment.index, alone.omitted);
        break;
      }
    }
  }
  return omissions;
}
