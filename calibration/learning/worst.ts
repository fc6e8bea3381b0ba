/** The lessons that the standing weights miss most, and what speaks against what is accepted. */
import { differenceOf } from '../../src/core/fingering/learning/example';
import { termTotals } from '../../src/core/fingering/left/explain/explain';
import { handsFor, NOTHING_INKED } from './hands';
import { type Lesson, missesOf } from './lessons';
import { cheapestAccepted } from './rivals';
import { STANDING } from './weights';

export interface WorstLesson {
  readonly id: string;
  readonly misses: number;
  /** What the accepted fingering costs more, and by which terms most, either way. */
  readonly above: number;
  readonly terms: readonly (readonly [term: string, cost: number])[];
}

const MOST = 10;
const TERMS_SHOWN = 4;

export function worstOf(lessons: readonly Lesson[]): readonly WorstLesson[] {
  const missed = lessons.map((lesson) => {
    const { left: planner } = handsFor(lesson, STANDING);
    const plan = planner.plan(NOTHING_INKED);
    return { lesson, planner, plan, misses: missesOf(lesson, plan.placements) };
  });
  return missed
    .sort((a, b) => b.misses - a.misses)
    .slice(0, MOST)
    .flatMap(({ lesson, planner, plan, misses }) => {
      const accepted = cheapestAccepted(planner, lesson);
      if (!accepted) return [];
      const totals = (states: typeof plan.states) => termTotals(planner.problem, states);
      const terms = [...differenceOf(totals(accepted.states), totals(plan.states))]
        .sort(([, a], [, b]) => Math.abs(b) - Math.abs(a))
        .slice(0, TERMS_SHOWN);
      return [{ id: lesson.id, misses, above: accepted.cost - plan.cost, terms }];
    });
}
