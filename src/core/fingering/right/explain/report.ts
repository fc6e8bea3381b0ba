/** The strokes of a plan as data: what the row under the score shows. */
import type { Pluck } from '../../../score/model';
import type { FingeringProblem } from '../../problem/problem';
import { type EffectId, fingerOrder } from '../rules/effects';
import { crossingOf, repeatOf } from './reasons';
import type { RightStep } from './walk';

export interface PlannedStroke {
  readonly momentIndex: number;
  readonly ticks: number;
  /** By stroke, lowest string first. */
  readonly uids: readonly string[];
  readonly letters: readonly Pluck[];
  readonly strings: readonly number[];
  /** The hand is moved, by so many strings in so many ms; `against`: by a finger that crosses another. */
  readonly move: { readonly strings: number; readonly ms: number; readonly against: boolean } | null;
  /** A finger that has just played. */
  readonly again: { readonly letter: Pluck; readonly ms: number } | null;
  readonly rest: boolean;
  readonly effect: EffectId | null;
  /** Each finger once, in the order in which they play. */
  readonly order: readonly Pluck[];
  /** Effort of the stroke with the way to it, in tenths of a point. */
  readonly effort: number;
}

/** Null where nothing is plucked. `rest`: whether it is a rest stroke. */
export function strokeReport(
  problem: FingeringProblem,
  step: RightStep,
  k: number,
  rest: boolean,
): PlannedStroke | null {
  const { group, sharing } = step;
  if (group.strokes.length === 0) return null;
  const crossing = crossingOf(step);
  const again = repeatOf(step);
  return {
    momentIndex: k,
    ticks: problem.moments[k]!.tick,
    uids: group.strokes.map(({ strike }) => problem.strikes[strike]!.uids[0]!),
    letters: sharing.letters,
    strings: group.strokes.map(({ string }) => string),
    move:
      crossing?.code === 'crosses'
        ? { strings: Math.abs(crossing.to - crossing.from), ms: crossing.ms, against: true }
        : crossing?.code === 'moves'
          ? { strings: crossing.strings, ms: crossing.ms, against: false }
          : null,
    again: again?.code === 'again' ? { letter: again.letter, ms: again.ms } : null,
    rest,
    effect: group.effect,
    order: fingerOrder(group.effect, sharing.letters),
    effort: step.own + step.way,
  };
}
