/** How far letters agree with what common practice accepts, on the strings of the passage. */
import { RightPlanner } from '../../src/core/fingering/right/lattice/planRight';
import type { RightWeights } from '../../src/core/fingering/right/rules/weights';
import type { Pluck } from '../../src/core/score/model';
import type { RightPassage } from './passages';
import { type RightTask, rightTaskOf } from './task';

/** Of the accepted sets the one that agrees in most letters. */
function nearestLetters(task: RightTask, plucks: readonly (Pluck | null)[]): readonly (Pluck | null)[] {
  const misses = (row: readonly (Pluck | null)[]) => row.filter((letter, k) => letter !== plucks[k]).length;
  return task.accepted.reduce((a, b) => (misses(b) < misses(a) ? b : a));
}

interface RightTotals {
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
