/**
 * Slow, obvious second opinions of the planners: they enumerate states by plain products and walk over every
 * pair. They share only the price of a state and of a step with the planners.
 */
import { playable } from '../../src/core/fingering/left/constraints';
import { type HandState, handState, type Placement } from '../../src/core/fingering/left/handState';
import { stateCost } from '../../src/core/fingering/left/stateCost';
import { placementsOf } from '../../src/core/fingering/left/placements';
import { entryCost } from '../../src/core/fingering/left/barreCost';
import { memoryAfter } from '../../src/core/fingering/left/memory';
import { returnCost } from '../../src/core/fingering/left/returns';
import { follows, transitionCost } from '../../src/core/fingering/left/transition';
import type { FingeringProblem, Moment } from '../../src/core/fingering/problem';
import { groupCost, strokeTransitionCost } from '../../src/core/fingering/right/strokeCost';
import { sharingFor, stateAfter, type StrokeState } from '../../src/core/fingering/right/strokeState';
import type { StrokeGroup } from '../../src/core/fingering/right/strokes';
import type { HandProfile } from '../../src/core/instrument/handProfile';
import type { Pluck } from '../../src/core/score/model';

/** All placements of what sounds at a moment: struck strikes lie somewhere, held ones too or are let go. */
export function naiveConfigurations(problem: FingeringProblem, moment: Moment): HandState[] {
  const sounding = [...moment.held, ...moment.struck];
  const states: HandState[] = [];
  const choose = (k: number, strikes: number[], places: Placement[]) => {
    // What no hand can do does not become possible with one note more.
    if (!playable(places, problem.fretboard, problem.hand)) return;
    if (k === sounding.length) return void states.push(handState(strikes, places, null));
    const strike = sounding[k]!;
    if (moment.held.includes(strike)) choose(k + 1, strikes, places);
    for (const place of placementsOf(problem, problem.strikes[strike]!)) {
      choose(k + 1, [...strikes, strike], [...places, place]);
    }
  };
  choose(0, [], []);
  return states;
}

/**
 * Least cost by trying every sequence of states, each part as often as it is played; only sequences that are already
 * dearer are given up.
 */
export function naiveLeftCost(problem: FingeringProblem): number {
  const { plays, steps, returns } = problem.passes;
  const configurations = problem.moments.map((moment) => naiveConfigurations(problem, moment));
  let best = Infinity;
  const path: HandState[] = [];
  const walk = (k: number, cost: number) => {
    if (cost >= best) return;
    const moment = problem.moments[k];
    if (!moment) {
      best = cost;
      return;
    }
    const before = path[k - 1] ?? null;
    for (const bare of configurations[k]!) {
      if (!before && bare.strikes.some((strike) => moment.held.includes(strike))) continue;
      const memory = before && !bare.range ? memoryAfter(problem, before, moment) : null;
      const state = handState(bare.strikes, bare.placements, memory);
      if (before && !follows(problem, before, state, moment)) continue;
      path[k] = state;
      const way = before
        ? steps[k]! * transitionCost(problem, problem.moments[k - 1]!, before, moment, state)
        : plays[0]! * entryCost(problem, state);
      const back = returns
        .filter(({ from }) => from === k)
        .reduce((sum, one) => sum + one.times * returnCost(problem, one, state, path[one.to]!), 0);
      walk(k + 1, cost + way + plays[k]! * stateCost(problem, moment, state) + back);
    }
  };
  walk(0, 0);
  return best;
}

/** Every way to give the letters p i m a to `count` strings: ascending fingers, p lowest, only p repeated. */
export function naiveSharings(count: number): Pluck[][] {
  const letters: Pluck[] = ['p', 'i', 'm', 'a'];
  const all = Array.from({ length: 4 ** count }, (_, n) =>
    Array.from({ length: count }, (_unused, k) => letters[Math.floor(n / 4 ** k) % 4]!),
  );
  const rank = (letter: Pluck) => letters.indexOf(letter);
  return all.filter((row) =>
    row.every(
      (letter, k) => k === 0 || rank(letter) > rank(row[k - 1]!) || (letter === 'p' && row[k - 1] === 'p'),
    ),
  );
}

export function naiveRightCost(groups: readonly StrokeGroup[], hand: HandProfile): number {
  let best = Infinity;
  const walk = (k: number, before: StrokeState | null, cost: number) => {
    if (cost >= best) return;
    const group = groups[k];
    if (!group) {
      best = cost;
      return;
    }
    for (const letters of naiveSharings(group.strokes.length)) {
      const sharing = sharingFor(group, letters);
      const step = before ? strokeTransitionCost(before, group, sharing, hand) : 0;
      walk(k + 1, stateAfter(before, group, sharing), cost + step + groupCost(group, sharing));
    }
  };
  walk(0, null, 0);
  return best;
}
