/** Fits the weights of the right hand as `../fit.ts` does those of the left: inverse optimisation with a margin. */
import type { Ink } from '../../src/core/fingering/problem/ink';
import type { Played } from '../../src/core/fingering/right/rules/memory';
import { RightPlanner } from '../../src/core/fingering/right/lattice/planRight';
import { RIGHT_TERM_IDS, type RightTermId } from '../../src/core/fingering/right/rules/terms';
import type { RightWeights } from '../../src/core/fingering/right/rules/weights';
import { walkPlaced } from '../../src/core/fingering/right/explain/walk';
import type { Pluck } from '../../src/core/score/model';
import { Average, normOf, stepped, type StepRules } from '../step';
import type { RightPassage } from './passages';
import { type RightTask, rightTaskOf } from './task';
import { RIGHT_SET } from '../start';

const EPOCHS = 40;
const STEP = 0.35;
const MARGIN = 5;
const LARGEST = 60;

/** The teacher's word, and what belongs to the schools alone. */
export const RIGHT_RULES: StepRules<RightTermId> = {
  pull: 0.15,
  farthest: 6,
  fixed: RIGHT_SET,
};

const inkOf = (task: RightTask, letters: readonly (Pluck | null)[]): Ink =>
  new Map(
    task.problem.strikes.map(({ uids, index }) => [
      uids[0]!,
      { finger: null, string: null, pluck: letters[index]! },
    ]),
  );

/** Of the accepted sets the one that agrees in most letters. */
export function nearestLetters(
  task: RightTask,
  plucks: readonly (Pluck | null)[],
): readonly (Pluck | null)[] {
  const misses = (row: readonly (Pluck | null)[]) => row.filter((letter, k) => letter !== plucks[k]).length;
  return task.accepted.reduce((a, b) => (misses(b) < misses(a) ? b : a));
}

export interface RightTotals {
  readonly passages: number;
  readonly whole: number;
  readonly strokes: number;
  readonly letters: number;
}

export function measuredRight(passages: readonly RightPassage[], base?: RightWeights): RightTotals {
  let [whole, strokes, letters] = [0, 0, 0];
  for (const passage of passages) {
    const task = rightTaskOf(passage, base);
    const { plucks } = new RightPlanner(task.problem, task.setting).plan(task.placed, new Map());
    const wanted = nearestLetters(task, plucks);
    const right = wanted.filter((letter, k) => letter === plucks[k]).length;
    if (right === wanted.length) whole++;
    strokes += wanted.filter((letter) => letter !== null).length;
    letters += wanted.filter((letter, k) => letter !== null && letter === plucks[k]).length;
  }
  return { passages: passages.length, whole, strokes, letters };
}

export function fitRight(
  start: RightWeights,
  passages: readonly RightPassage[],
  log: (line: string) => void = () => {},
): RightWeights {
  let weights = start;
  const average = new Average(start);
  for (let epoch = 0; epoch < EPOCHS; epoch++) {
    const rate = STEP / (1 + epoch / 12);
    const { loss, gradient } = rightGradient(passages, weights);
    weights = stepped(
      weights,
      start,
      gradient,
      { rate: rate / normOf(gradient), pullRate: rate },
      RIGHT_RULES,
    );
    if (epoch >= EPOCHS / 2) average.add(weights);
    if (epoch % 10 === 0) log(`right hand, epoch ${epoch}: loss ${Math.round(loss)}`);
  }
  return average.rounded;
}

/** What all passages say about the logarithms of the weights. */
export function rightGradient(
  passages: readonly RightPassage[],
  weights: RightWeights,
): { readonly loss: number; readonly gradient: Map<RightTermId, number> } {
  const gradient = new Map<RightTermId, number>();
  let loss = 0;
  for (const passage of passages) loss += addGradient(passage, weights, gradient);
  return { loss, gradient };
}

function addGradient(
  passage: RightPassage,
  weights: RightWeights,
  gradient: Map<RightTermId, number>,
): number {
  const task = rightTaskOf(passage, weights);
  const planner = new RightPlanner(task.problem, task.setting);
  const none: Ink = new Map();
  const accepted = task.accepted
    .map((row) => planner.plan(task.placed, inkOf(task, row)))
    .reduce((a, b) => (b.cost < a.cost ? b : a));
  const free = planner.plan(task.placed, none);
  const right = totalsOf(task, accepted.played);
  let loss = 0;
  const count = task.problem.strikes.length;
  for (const { index } of task.problem.strikes) {
    const wrong = planner
      .candidates(task.placed, none, index)
      .find(({ pluck }) => !task.accepted.some((row) => row[index] === pluck));
    const rival = wrong ?? (free.cost < accepted.cost ? { extraCost: 0, played: () => free.played } : null);
    if (!rival) continue;
    const lack = Math.min(LARGEST, accepted.cost + MARGIN - (free.cost + rival.extraCost));
    if (lack <= 0) continue;
    loss += lack / count;
    const other = totalsOf(task, rival.played());
    for (const id of RIGHT_TERM_IDS) {
      const against = (right.get(id) ?? 0) - (other.get(id) ?? 0);
      if (against !== 0) gradient.set(id, (gradient.get(id) ?? 0) + ((lack / LARGEST) * against) / count);
    }
  }
  return loss;
}

function totalsOf(task: RightTask, played: readonly Played[]): ReadonlyMap<RightTermId, number> {
  const totals = new Map<RightTermId, number>();
  walkPlaced(task.problem, task.setting, task.placed, played, {
    ledger: () => (term, cost) => void totals.set(term, (totals.get(term) ?? 0) + cost),
  });
  return totals;
}
