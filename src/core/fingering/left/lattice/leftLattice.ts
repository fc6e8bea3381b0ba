/** Layers of the left hand solved under changing masks, with what ways back cost. */
import type { FingeringProblem } from '../../problem/problem';
import { type Jump, raisedShares, sharesOf, solveWithJumps } from '../../solver/jumps';
import { type Extras, type Mask, type Solution, solveLattice } from '../../solver/lattice';
import type { HandState } from '../rules/handState';
import { HandJumps } from './handJumps';
import type { HandLayer } from './handLayer';
import type { LayerStore } from './layerStore';

export interface LeftSolved {
  readonly layers: readonly HandLayer[];
  readonly masks: readonly Mask[];
  /** What ways back cost, and the shares of it that the chain pays. */
  readonly jumps: readonly Jump[];
  /** With ways back its costs are bounds. */
  readonly chain: Solution;
  readonly cost: number;
  /** The best path: a state for each layer. */
  readonly path: readonly number[];
}

export class LeftLattice {
  private readonly jumps: HandJumps;
  /** The last solution: most of its messages hold for the next question. */
  private latest: Solution | null = null;
  private shares: { readonly jumps: readonly Jump[]; readonly extras: Extras } | null = null;

  /** @param free the layers that most questions are about */
  constructor(problem: FingeringProblem, store: LayerStore, free: readonly HandLayer[]) {
    this.jumps = new HandJumps(problem, store);
    this.jumps.begin(free);
  }

  /** Null where the masks leave no path. */
  solve(layers: readonly HandLayer[], masks: readonly Mask[]): LeftSolved | null {
    const jumps = this.jumps.of(layers);
    const shares = jumps.length === 0 ? null : this.sharesFor(jumps, layers.length);
    const chain = solveLattice(layers, masks, this.latest, shares);
    if (!chain) return null;
    this.latest = chain;
    const raised = raisedShares({ layers, masks, jumps }, chain);
    const { cost, path } = solveWithJumps({ layers, masks, jumps: raised.jumps }, raised.chain)!;
    return { layers, masks, ...raised, cost, path };
  }

  /** The same objects for the same jumps, so that messages of an earlier question are found again. */
  private sharesFor(jumps: readonly Jump[], count: number): Extras {
    const known = this.shares;
    if (known && jumps.every((jump, n) => jump === known.jumps[n])) return known.extras;
    this.shares = { jumps, extras: sharesOf(jumps, count) };
    return this.shares.extras;
  }
}

export const statesOn = (layers: readonly HandLayer[], path: readonly number[]): readonly HandState[] =>
  path.map((s, k) => layers[k]!.state(s));
