/** The exact right-hand plan for given strings, around the ink. */
import type { Pluck } from '../../../score/model';
import type { Ink } from '../../problem/ink';
import { Column, here } from '../../solver/column';
import { costThrough, pathThrough, type Solution, solveLattice, UNREACHABLE } from '../../solver/lattice';
import type { FingeringProblem } from '../../problem/problem';
import { plainSetting, type RightSetting } from '../rules/setting';
import { strokeChain, strokeColumn, type StrokeLayer } from './strokeChain';
import { inkedLetters, maskOf } from './inkedLetters';
import type { Played } from '../rules/memory';
import { sharesOf, solveWithJumps } from '../../solver/jumps';
import { strokeJumps } from './strokeJumps';
import { liftedGroup, type PlacedStrike, type StrokeGroup, strokeGroup } from '../rules/strokes';
import { StrokeStore } from './strokeStore';

export interface RightPlan {
  readonly cost: number;
  readonly lowerBound: number;
  /** By strike; null where nothing is plucked or no letter fits the ink. */
  readonly plucks: readonly (Pluck | null)[];
  /** By moment: how its group is played. */
  readonly played: readonly Played[];
  readonly groups: readonly StrokeGroup[];
  /** The cost that each moment adds; 0 where nothing is plucked. */
  readonly costByMoment: readonly number[];
  /** Strikes whose inked letters cannot be played together, a list for each moment. */
  readonly conflicts: readonly (readonly number[])[];
}

export interface RightCandidate {
  readonly pluck: Pluck;
  /** Effort in tenths of a point above the best plan: exact, and the least that it can be where there are ways back. */
  readonly extraCost: number;
  /** How every moment is played in the best plan with this choice. */
  readonly played: () => readonly Played[];
}

interface Solved {
  readonly groups: readonly StrokeGroup[];
  readonly layers: readonly StrokeLayer[];
  /** With ways back its costs are bounds. */
  readonly solution: Solution;
  readonly cost: number;
  /** The best path: a state for each layer. */
  readonly path: readonly number[];
  readonly conflicts: readonly (readonly number[])[];
}

/** By moment: where its notes lie. */
export type Placed = readonly (readonly PlacedStrike[])[];

/** Plans the right hand again and again as strings and ink change; what is the same from the start is kept. */
export class RightPlanner {
  private readonly store: StrokeStore;
  private readonly strokes = strokeColumn();
  private readonly asked = new Column<StrokeGroup>();
  private readonly rows = new Column<readonly StrokeGroup[]>();
  private latest: Solution | null = null;

  constructor(
    private readonly problem: FingeringProblem,
    private readonly setting: RightSetting = plainSetting(problem),
  ) {
    this.store = new StrokeStore(problem.hand);
  }

  plan(placed: Placed, ink: Ink): RightPlan {
    const { problem } = this;
    const { groups, layers, cost, path, conflicts } = this.solve(placed, ink);
    const plucks: (Pluck | null)[] = problem.strikes.map(() => null);
    const played = playedOn(layers, path);
    groups.forEach(({ strokes }, k) =>
      strokes.forEach(({ strike }, slot) => (plucks[strike] = played[k]!.letters[slot]!)),
    );
    const costByMoment = groups.map((_group, k) => {
      const layer = layers[k + 1]!;
      return layer.stateCost[path[k + 1]!]! + layer.ways!.price(path[k]!, path[k + 1]!);
    });
    return {
      cost,
      lowerBound: cost,
      plucks,
      played,
      groups,
      costByMoment,
      conflicts,
    };
  }

  /** Every letter for one strike, best first, with the extra cost of the best plan that contains it. */
  candidates(placed: Placed, ink: Ink, strike: number): readonly RightCandidate[] {
    const { groups, layers, solution, cost: least } = this.solve(placed, ink, strike);
    const k = groups.findIndex(({ strokes }) => strokes.some((stroke) => stroke.strike === strike));
    if (k < 0) return [];
    const slot = groups[k]!.strokes.findIndex((stroke) => stroke.strike === strike);
    const best = new Map<Pluck, { readonly s: number; readonly extraCost: number }>();
    layers[k + 1]!.shared.states.forEach(({ played: { letters } }, s) => {
      const cost = costThrough(solution, k + 1, s);
      const letter = letters[slot]!;
      const extraCost = Math.max(0, cost - least);
      if (cost < UNREACHABLE && extraCost < (best.get(letter)?.extraCost ?? UNREACHABLE))
        best.set(letter, { s, extraCost });
    });
    return [...best]
      .map(([pluck, { s, extraCost }]) => ({
        pluck,
        extraCost,
        played: () => playedOn(layers, pathThrough(solution, k + 1, s)),
      }))
      .sort((a, b) => a.extraCost - b.extraCost || a.pluck.localeCompare(b.pluck));
  }

  /** @param about a strike whose letters are asked for: there no filter holds */
  private solve(placed: Placed, ink: Ink, about: number | null = null): Solved {
    const { problem } = this;
    const inked = inkedLetters(problem, ink);
    const asked = this.asked.of(placed.length, [here(placed)], (k, strikes) =>
      strokeGroup(problem, this.setting, k, strikes),
    );
    const groups = asked
      .map(inked.adapt)
      .map((group) => (group.strokes.some(({ strike }) => strike === about) ? liftedGroup(group) : group));
    const rows = this.rows.of(groups.length, [here(groups)], (_k, group) => [group]);
    const layers = strokeChain(problem, this.store, rows, this.strokes);
    const masks = layers.map((layer, k) => (k === 0 ? null : maskOf(layer, [groups[k - 1]!], inked.of)));
    const jumps = strokeJumps(problem, this.store, layers);
    const shares = jumps.length === 0 ? null : sharesOf(jumps, layers.length);
    const solution = solveLattice(layers, masks, this.latest, shares);
    if (!solution)
      throw new Error('the right hand found no path, though every group has letters that agree with the ink');
    this.latest = solution;
    const conflicts = asked
      .map((group, k) => group.strokes.filter((stroke) => !groups[k]!.strokes.includes(stroke)))
      .filter((left) => left.length > 0)
      .map((left) => left.map((stroke) => stroke.strike));
    const { cost, path } = solveWithJumps({ layers, masks, jumps }, solution)!;
    return { groups, layers, solution, cost, path, conflicts };
  }
}

const playedOn = (layers: readonly StrokeLayer[], path: readonly number[]): readonly Played[] =>
  path.slice(1).map((s, k) => layers[k + 1]!.shared.states[s]!.played);
