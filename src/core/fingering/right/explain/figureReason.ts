/** What a letter is part of: the texture, the formula that goes round, whether the bar before goes alike. */
import type { FingeringProblem } from '../../problem/problem';
import { formulaOf } from './plannedFigures';
import type { StrokeReason } from './reasons';
import type { RightSetting } from '../rules/setting';
import type { RightStep } from './walk';

/** Null where nothing is plucked. */
export function figureReason(
  problem: FingeringProblem,
  { reading }: RightSetting,
  steps: readonly RightStep[],
  strike: number,
  barStarts: readonly number[],
): StrokeReason | null {
  const k = problem.moments.findIndex(({ struck }) => struck.includes(strike));
  if ((steps[k]?.group.strokes.length ?? 0) === 0) return null;
  const own = reading.figures.find((figure) => figure.strikes.includes(strike));
  const texture = reading.textures[k]!;
  return {
    code: 'figure',
    here: true,
    ticks: problem.moments[k]!.tick,
    texture,
    formula: own ? formulaOf(own, steps) : [],
    asBefore: goesAsBefore(problem, steps, k, barStarts),
  };
}

/** Whether the letters of this bar are those of the bar before, stroke by stroke. */
function goesAsBefore(
  { moments }: FingeringProblem,
  steps: readonly RightStep[],
  k: number,
  barStarts: readonly number[],
): boolean {
  const bar = barStarts.findLastIndex((start) => start <= moments[k]!.tick);
  const wordsOf = (from: number | undefined, to: number | undefined) =>
    moments
      .filter(({ tick }) => from !== undefined && tick >= from && tick < (to ?? Infinity))
      .map(({ index, tick }) => `${tick - from!} ${steps[index]!.sharing.letters.join('')}`);
  const before = wordsOf(barStarts[bar - 1], barStarts[bar]);
  const here = wordsOf(barStarts[bar], barStarts[bar + 1]);
  return before.length > 1 && before.join() === here.join();
}
