/** What each string and finger of one note costs in the best plan that contains it. */
import type { FingeringProblem } from '../../problem/problem';
import { raisedShares, solveWithJumps } from '../../solver/jumps';
import { costThrough, pathThrough, solveLattice, UNREACHABLE } from '../../solver/lattice';
import type { HandState } from '../rules/handState';
import { placeId, type Placement } from '../rules/place';
import { type LeftSolved, statesOn } from './leftLattice';
import { placeAt } from './stateRows';

export interface LeftCandidate {
  readonly place: Placement;
  /** Effort in tenths of a point above the best plan: exact. */
  readonly extraCost: number;
  /** The hand at every moment in the best plan with this choice. */
  readonly states: () => readonly HandState[];
}

/** A candidate, and which states have it. */
export interface Bounded extends LeftCandidate {
  readonly at: { readonly k: number; readonly column: number };
}

export const byExtraCost = (a: LeftCandidate, b: LeftCandidate) =>
  a.extraCost - b.extraCost || placeId(a.place) - placeId(b.place);

/** With ways back the messages are bounds only: the choice is planned by itself. */
export function exactly(
  { layers, masks, jumps, chain, cost }: LeftSolved,
  { place, at }: Bounded,
): LeftCandidate {
  const { k, column } = at;
  const { rows } = layers[k]!;
  const id = placeId(place);
  const only = Uint8Array.from({ length: rows.count }, (_, s) =>
    placeAt(rows, s, column) === id && (masks[k]?.[s] ?? 1) === 1 ? 1 : 0,
  );
  const forced = masks.with(k, only);
  const bound = solveLattice(layers, forced, chain, chain.extras)!;
  const raised = raisedShares({ layers, masks: forced, jumps }, bound);
  const found = solveWithJumps({ layers, masks: forced, jumps: raised.jumps }, raised.chain)!;
  return { place, extraCost: found.cost - cost, states: () => statesOn(layers, found.path) };
}

/** By place, the best first: the least that it costs. */
export function boundsOf(
  { moments }: FingeringProblem,
  { layers, chain, cost: least }: LeftSolved,
  strike: number,
): readonly Bounded[] {
  const k = moments.findIndex((moment) => moment.struck.includes(strike));
  const best = new Map<number, Bounded>();
  layers[k]!.states.forEach((state, s) => {
    const slot = state.strikes.indexOf(strike);
    const cost = costThrough(chain, k, s);
    if (slot < 0 || cost >= UNREACHABLE) return;
    const place = state.placements[slot]!;
    const extraCost = Math.max(0, cost - least);
    const known = best.get(placeId(place));
    if (known && known.extraCost <= extraCost) return;
    best.set(placeId(place), {
      place,
      extraCost,
      states: () => statesOn(layers, pathThrough(chain, k, s)),
      at: { k, column: layers[k]!.strikes.indexOf(strike) },
    });
  });
  return [...best.values()].sort(byExtraCost);
}
