/** The exact left-hand plan of a piece, around the ink, with the price of every other choice. */
import { placeAt } from './stateRows';
import type { Ink, InkMarks } from '../../problem/ink';
import type { FingeringProblem } from '../../problem/problem';
import { NO_PLACE, type Placement, PLACEMENTS } from '../rules/place';
import type { HandState } from '../rules/handState';
import { layerAt } from './layerAt';
import { boundsOf, byExtraCost, exactly, type LeftCandidate } from './candidates';
import { costTables } from './costTables';
import { LayerStore, subsetsBySize } from './layerStore';
import type { HandLayer } from './handLayer';
import { inkByStrike, inkMasks, maskOf } from './inkMasks';
import { LeftLattice, type LeftSolved, statesOn } from './leftLattice';
import { narrowLayers } from './narrowLayers';

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

/**
 * Plans the left hand of one problem again and again under changing ink. The lattice does not depend on the
 * ink, so it is built once; ink only forbids states.
 */
export class LeftPlanner {
  private readonly free: readonly HandLayer[];
  private readonly store: LayerStore;
  private readonly lattice: LeftLattice;

  /** @param grown what `growing` has made */
  constructor(
    readonly problem: FingeringProblem,
    grown: Grown = allOf(growing(problem)),
  ) {
    this.store = grown.store;
    this.free = grown.layers;
    this.lattice = new LeftLattice(problem, this.store, this.free);
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
    const { layers, path, cost } = this.solve(ink);
    const plan = this.planOf(statesOn(layers, path), this.conflictsOf(layers));
    return { ...plan, cost, lowerBound: cost };
  }

  conflictsOf(layers: readonly HandLayer[]): readonly LeftConflict[] {
    return conflictsIn(layers, this.free);
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
  candidates(ink: Ink, strike: number): readonly LeftCandidate[] {
    const asked = this.solve(withoutInkOf(this.problem, ink, strike));
    const bounds = boundsOf(this.problem, asked, strike);
    return asked.jumps.length === 0 ? bounds : bounds.map((one) => exactly(asked, one)).sort(byExtraCost);
  }

  /** The same where ways back need not be counted exactly: with them each price is the least that it can be. */
  candidateBounds(ink: Ink, strike: number): readonly LeftCandidate[] {
    return boundsOf(this.problem, this.solve(withoutInkOf(this.problem, ink, strike)), strike);
  }

  /** The lattice around the ink with its solution. */
  solve(ink: Ink): LeftSolved {
    const marks = inkByStrike(this.problem, ink);
    const omissions = inkOmissions(this.problem, this.store, this.free, marks);
    const layers = omissions.size === 0 ? this.free : rebuilt(this.problem, this.store, omissions, this.free);
    const solved = this.lattice.solve(layers, inkMasks(layers, this.problem.moments, marks));
    if (!solved) throw new Error('the left hand found no path, though every layer has an allowed state');
    return solved;
  }

  /**
   * Plans on some of the states only, by moment of the free layers. It does not say anything where the ink leaves
   * nothing of them.
   */
  narrowed(kept: readonly (readonly number[])[]): NarrowLeft {
    return new NarrowLeft(this.problem, this.store, narrowLayers(this.free, kept));
  }

  /** Every place of a strike that the ink of its moment leaves, its own ink lifted. */
  placesOf(ink: Ink, strike: number): readonly Placement[] {
    const marks = inkByStrike(this.problem, withoutInkOf(this.problem, ink, strike));
    const moment = this.problem.moments.find(({ struck }) => struck.includes(strike))!;
    const layer = this.free[moment.index]!;
    const mask = maskOf(layer, moment, marks);
    const column = layer.strikes.indexOf(strike);
    const places = new Set<number>();
    for (let s = 0; s < layer.rows.count && column >= 0; s++)
      if (!mask || mask[s]) places.add(placeAt(layer.rows, s, column));
    places.delete(NO_PLACE);
    return [...places].map((place) => PLACEMENTS[place]!);
  }
}

/** The same on a part of the states: what it finds is the best of all where nothing outside can be cheaper. */
export class NarrowLeft {
  private readonly lattice: LeftLattice;

  constructor(
    private readonly problem: FingeringProblem,
    store: LayerStore,
    private readonly layers: readonly HandLayer[],
  ) {
    this.lattice = new LeftLattice(problem, store, layers);
  }

  /** Null where the ink leaves nothing of these states. */
  solve(ink: Ink): LeftSolved | null {
    const marks = inkByStrike(this.problem, ink);
    const masks = inkMasks(this.layers, this.problem.moments, marks);
    return masks.every((mask) => !mask || mask.includes(1)) ? this.lattice.solve(this.layers, masks) : null;
  }

  /** See `LeftPlanner`; null where the ink leaves nothing of these states. */
  candidateBounds(ink: Ink, strike: number): readonly LeftCandidate[] | null {
    const solved = this.solve(withoutInkOf(this.problem, ink, strike));
    return solved && boundsOf(this.problem, solved, strike);
  }

  /** Where ink contradicts itself nothing is found here. */
  conflictsOf(): readonly LeftConflict[] {
    return conflictsIn(this.layers, this.layers);
  }
}

const withoutInkOf = ({ strikes }: FingeringProblem, ink: Ink, strike: number): Ink => {
  const others = new Map(ink);
  for (const uid of strikes[strike]!.uids) others.delete(uid);
  return others;
};

const conflictsIn = (layers: readonly HandLayer[], free: readonly HandLayer[]): readonly LeftConflict[] =>
  layers
    .map((layer, k) => ({
      strikes: [...layer.omitted],
      byInk: layer.omitted.size > free[k]!.omitted.size,
    }))
    .filter((conflict) => conflict.strikes.length > 0);

/** The lattice of a piece without ink. */
export interface Grown {
  readonly store: LayerStore;
  readonly layers: readonly HandLayer[];
}

/** Between two parts of a long piece others may be heard: the share that is done. */
export function* growing(problem: FingeringProblem): Generator<number, Grown> {
  const store = new LayerStore(costTables(problem));
  const layers: HandLayer[] = [];
  for (const moment of problem.moments) {
    layers.push(layerAt(problem, store, moment, layers.at(-1) ?? null));
    if (layers.length % MOMENTS_AT_ONCE === 0) yield layers.length / problem.moments.length;
  }
  return { store, layers };
}

const MOMENTS_AT_ONCE = 64;

function allOf(steps: Generator<number, Grown>): Grown {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
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
