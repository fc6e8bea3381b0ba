/**
 * Slow, obvious second opinions of the planners: they enumerate states by plain products and walk over every
 * pair. They share only the price of a state and of a step with the planners.
 */
import { playable } from '../../src/core/fingering/left/rules/constraints';
import { type HandState, handState } from '../../src/core/fingering/left/rules/handState';
import type { Placement } from '../../src/core/fingering/left/rules/place';
import { stateCost, entryCost, returnCost, transitionCost } from '../../src/core/fingering/left/rules/prices';
import { columnsOf } from '../../src/core/fingering/left/rules/recordHand';
import { placementsOf } from '../../src/core/fingering/left/rules/placements';
import { arrivedFrom, follows } from '../../src/core/fingering/left/rules/follows';
import { beginnings } from '../../src/core/fingering/problem/passes';
import type { FingeringProblem, Moment } from '../../src/core/fingering/problem/problem';
import {
  memoryAfter,
  NO_MEMORY,
  type Played,
  type RightMemory,
  type Sharing,
  sharingFor,
} from '../../src/core/fingering/right/rules/memory';
import { modesFor } from '../../src/core/fingering/right/rules/modes';
import type { RightSetting } from '../../src/core/fingering/right/rules/setting';
import { groupCost, strokeTransitionCost } from '../../src/core/fingering/right/rules/strokeCost';
import {
  placedAt,
  sharingsOf,
  type StrokeGroup,
  strokeGroup,
} from '../../src/core/fingering/right/rules/strokes';
import type { Pluck } from '../../src/core/score/model';

/**
 * All placements of what lies at a moment: struck strikes lie somewhere, held ones too or are let go, what is laid lies
 * all or not at all. A hand that stops something stays somewhere near.
 */
export function naiveConfigurations(problem: FingeringProblem, moment: Moment): HandState[] {
  const sounding = columnsOf(moment);
  const states: HandState[] = [];
  const choose = (k: number, strikes: number[], places: Placement[]) => {
    // What no hand can do does not become possible with one note more.
    if (!playable(places, problem.fretboard, problem.hand)) return;
    if (k === sounding.length) return void states.push(...anchored(strikes, places));
    const strike = sounding[k]!;
    if (moment.held.includes(strike)) choose(k + 1, strikes, places);
    if (strike === moment.laid[0]) choose(sounding.length, strikes, places);
    for (const place of placementsOf(problem, problem.strikes[strike]!)) {
      choose(k + 1, [...strikes, strike], [...places, place]);
    }
  };
  choose(0, [], []);
  return states;
}

/** One state for every fret at which finger 1 may stay. Source: handbook 13, "Creeping" (one fret more or less). */
function anchored(strikes: number[], places: Placement[]): HandState[] {
  const bare = handState(strikes, places, null);
  if (!bare.range) return [bare];
  const fingers = new Set(places.map(({ finger }) => finger).filter((finger) => finger > 0)).size;
  const { low, high } = bare.range;
  if (fingers > 1 || bare.barre) return [bare];
  const play = 1;
  return Array.from({ length: 24 }, (_, k) => k + 1)
    .filter((fret) => fret >= Math.max(1, low - play) && fret <= Math.max(1, high + play))
    .map((fret) => handState(strikes, places, null, fret));
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
      const state = before ? arrivedFrom(problem, before, bare, moment) : bare;
      if (before && !follows(problem, before, state, moment)) continue;
      path[k] = state;
      const way = before
        ? steps[k]! * transitionCost(problem, before, moment, state)
        : plays[0]! * entryCost(problem, state);
      const back = returns
        .filter(({ from, to }) => Math.max(from, to) === k)
        .reduce((sum, one) => sum + one.times * returnCost(problem, one, path[one.from]!, path[one.to]!), 0);
      walk(k + 1, cost + way + plays[k]! * stateCost(problem, moment, state) + back);
    }
  };
  walk(0, 0);
  return best;
}

/** Every way to give the letters p i m a to `count` strings: ascending fingers, p lowest, only p repeated. */
export function naiveSharings(count: number, letters: Pluck[] = ['p', 'i', 'm', 'a']): Pluck[][] {
  const size = letters.length;
  const all = Array.from({ length: size ** count }, (_, n) =>
    Array.from({ length: count }, (_unused, k) => letters[Math.floor(n / size ** k) % size]!),
  );
  const rank = (letter: Pluck) => letters.indexOf(letter);
  return all.filter((row) =>
    row.every(
      (letter, k) => k === 0 || rank(letter) > rank(row[k - 1]!) || (letter === 'p' && row[k - 1] === 'p'),
    ),
  );
}

/** Every way to give letters to a group, in every mode. */
export function naivePlayed(group: StrokeGroup): readonly Played[] {
  const { school, style } = group.manner;
  const sharings =
    school.plectrum || group.effect
      ? sharingsOf(group)
      : naiveSharings(group.strokes.length, style.littleFinger ? ['p', 'i', 'm', 'a', 'c'] : undefined);
  // p takes one string of a small chord, unless it is marked or inked otherwise.
  const filtered =
    group.lifted || school.plectrum || group.effect || group.strokes.length > 4
      ? sharings
      : sharings.filter((letters) => letters.filter((letter) => letter === 'p').length < 2);
  return filtered.flatMap((letters) => modesFor(group, letters).map((mode) => ({ letters, mode })));
}

/** How the right hand gets from one moment's memory to the next: the rules alone, without any of the planner's layers. */
function strokeWays(problem: FingeringProblem, group: StrokeGroup, k: number, memory: RightMemory) {
  const { plays, steps } = problem.passes;
  return naivePlayed(group).map((played) => {
    const sharing = sharingFor(group, played);
    const step = strokeTransitionCost(memory, group, sharing, problem.hand);
    return {
      cost: (k === 0 ? beginnings(problem.passes) : steps[k]!) * step + plays[k]! * groupCost(group, sharing),
      memory: memoryAfter(memory, sharing),
      group,
      sharing,
    };
  });
}

/** What the right hand has played at a moment, and what it knows then. */
interface Stroke {
  readonly group: StrokeGroup;
  readonly sharing: Sharing;
  readonly memory: RightMemory;
}

/** What the jumps cost the right hand of which moment k is the later end. */
const strokesBack = ({ passes, hand }: FingeringProblem, k: number, strokes: readonly Stroke[]): number =>
  passes.returns
    .filter(({ from, to }) => Math.max(from, to) === k)
    .reduce((sum, { from, to, times }) => {
      const { group, sharing } = strokes[to]!;
      return sum + times * strokeTransitionCost(strokes[from]!.memory, group, sharing, hand);
    }, 0);

/** Least cost of the right hand on given strings by trying every sequence of letters. */
export function naiveRightCost(problem: FingeringProblem, groups: readonly StrokeGroup[]): number {
  let best = Infinity;
  const strokes: Stroke[] = [];
  const walk = (k: number, before: RightMemory, cost: number) => {
    if (cost >= best) return;
    const group = groups[k];
    if (!group) {
      best = cost;
      return;
    }
    for (const way of strokeWays(problem, group, k, before)) {
      strokes[k] = way;
      walk(k + 1, way.memory, cost + way.cost + strokesBack(problem, k, strokes));
    }
  };
  walk(0, NO_MEMORY, 0);
  return best;
}

/** Least cost of both hands by trying every sequence of left hands with every sequence of letters on its strings. */
export function naiveJointCost(problem: FingeringProblem, setting: RightSetting, leftCost: number): number {
  const { plays, steps, returns } = problem.passes;
  const configurations = problem.moments.map((moment) => naiveConfigurations(problem, moment));
  let best = Infinity;
  const path: HandState[] = [];
  const strokes: Stroke[] = [];
  const walk = (k: number, left: number, right: number, memory: RightMemory) => {
    // The left hand of what is still to come costs at least what all of it costs at least, less what it has cost.
    if (Math.max(left, leftCost) + right >= best) return;
    const moment = problem.moments[k];
    if (!moment) {
      best = left + right;
      return;
    }
    const before = path[k - 1] ?? null;
    for (const bare of configurations[k]!) {
      if (!before && bare.strikes.some((strike) => moment.held.includes(strike))) continue;
      const state = before ? arrivedFrom(problem, before, bare, moment) : bare;
      if (before && !follows(problem, before, state, moment)) continue;
      path[k] = state;
      const way = before
        ? steps[k]! * transitionCost(problem, before, moment, state)
        : plays[0]! * entryCost(problem, state);
      const back = returns
        .filter(({ from, to }) => Math.max(from, to) === k)
        .reduce((sum, one) => sum + one.times * returnCost(problem, one, path[one.from]!, path[one.to]!), 0);
      const next = left + way + plays[k]! * stateCost(problem, moment, state) + back;
      if (next + right >= best) continue;
      const group = strokeGroup(problem, setting, k, placedAt(problem, moment, before, state));
      for (const stroke of strokeWays(problem, group, k, memory)) {
        strokes[k] = stroke;
        walk(k + 1, next, right + stroke.cost + strokesBack(problem, k, strokes), stroke.memory);
      }
    }
  };
  walk(0, 0, 0, NO_MEMORY);
  return best;
}
