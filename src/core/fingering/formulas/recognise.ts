/** Which formula a passage is played with, how long, and why it is left. */
import type { Pluck } from '../../score/model';
import type { FingeringProblem } from '../problem';
import { sharingFor } from '../right/memory';
import { crossingOf } from '../right/reasons';
import type { RightStep } from '../right/walk';
import { type Formula, FORMULAS } from './formulas';

/**
 * Why a formula ends. chord: several strings at once. rest: nothing is played for long. crossing: its next finger
 * would cross against the hand. other: another figure begins. end: the piece ends.
 */
export type FormulaLeaving = 'chord' | 'rest' | 'crossing' | 'other' | 'end';

export interface FormulaSpan {
  readonly formula: string;
  readonly kind: Formula['kind'];
  readonly fromMoment: number;
  /** The last moment that belongs to it. */
  readonly toMoment: number;
  readonly fromUid: string;
  readonly strokes: number;
  readonly leaving: FormulaLeaving;
  /** The finger that would have come next. */
  readonly expected: Pluck;
}

/** A formula goes round at least twice, and a pair of fingers three times. */
const LEAST_ROUNDS = 2;
const LEAST_STROKES = 6;
/** A gap so many times as long as those before is a rest. */
const REST_FACTOR = 2.2;

interface Played {
  readonly moment: number;
  readonly letters: readonly Pluck[];
}

export function formulaSpans(problem: FingeringProblem, steps: readonly RightStep[]): readonly FormulaSpan[] {
  const played: Played[] = steps.flatMap(({ group, sharing }, moment) =>
    group.strokes.length > 0 && !sharing.pick ? [{ moment, letters: sharing.letters }] : [],
  );
  const spans: FormulaSpan[] = [];
  let at = 0;
  while (at < played.length) {
    const found = longestAt(problem, played, at);
    if (!found) {
      at++;
      continue;
    }
    const { formula, count } = found;
    const expected = formula.letters[count % formula.letters.length]!;
    spans.push({
      formula: formula.id,
      kind: formula.kind,
      fromMoment: played[at]!.moment,
      toMoment: played[at + count - 1]!.moment,
      fromUid: problem.strikes[steps[played[at]!.moment]!.group.strokes[0]!.strike]!.uids[0]!,
      strokes: count,
      leaving: leavingAt(problem, steps, played, at + count, expected),
      expected,
    });
    at += count;
  }
  return spans;
}

/** The formula that goes on for the most strokes from here; among equals the first of the table. */
function longestAt(
  problem: FingeringProblem,
  played: readonly Played[],
  at: number,
): { readonly formula: Formula; readonly count: number } | null {
  let best: { readonly formula: Formula; readonly count: number } | null = null;
  for (const formula of FORMULAS) {
    const { length } = formula.letters;
    let count = 0;
    while (
      fits(played[at + count], formula.letters[count % length]!) &&
      !rests(problem, played, at, at + count)
    )
      count++;
    const least = Math.max(LEAST_ROUNDS * length, LEAST_STROKES);
    if (count >= least && count > (best?.count ?? 0)) best = { formula, count };
  }
  return best;
}

/** p may play along: a bass with the note of a finger is still the finger's turn. */
const fits = (one: Played | undefined, letter: Pluck): boolean =>
  one !== undefined &&
  one.letters.includes(letter) &&
  one.letters.every((other) => other === letter || other === 'p') &&
  (letter !== 'p' || one.letters.length === 1);

function rests({ moments }: FingeringProblem, played: readonly Played[], from: number, k: number): boolean {
  if (k - from < 2) return false;
  const timeOf = (n: number) => moments[played[n]!.moment]!.timeMs;
  const mean = (timeOf(k - 1) - timeOf(from)) / (k - 1 - from);
  return timeOf(k) - timeOf(k - 1) > REST_FACTOR * mean;
}

function leavingAt(
  problem: FingeringProblem,
  steps: readonly RightStep[],
  played: readonly Played[],
  next: number,
  expected: Pluck,
): FormulaLeaving {
  const one = played[next];
  if (!one) return 'end';
  const step = steps[one.moment]!;
  if (rests(problem, played, Math.max(0, next - 4), next)) return 'rest';
  if (step.group.strokes.length > 1) return 'chord';
  const asked = { ...step, sharing: sharingFor(step.group, [expected]) };
  return crossingOf(asked)?.code === 'crosses' ? 'crossing' : 'other';
}
