/** Which formula a passage is played with, how long, and why it is left. */
import type { Pluck } from '../../score/model';
import type { FingeringProblem } from '../problem/problem';
import { sharingFor } from '../right/rules/memory';
import { crossingOf } from '../right/explain/reasons';
import type { RightStep } from '../right/explain/walk';
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
  readonly timeMs: number;
  /** Whose turn it is: p may play along, a bass with the note of a finger is still the finger's turn. */
  readonly turn: Pluck | null;
}

export function formulaSpans(problem: FingeringProblem, steps: readonly RightStep[]): readonly FormulaSpan[] {
  const played: Played[] = [];
  steps.forEach(({ group, sharing }, moment) => {
    if (group.strokes.length === 0 || sharing.pick) return;
    played.push({ moment, timeMs: problem.moments[moment]!.timeMs, turn: turnOf(sharing.letters) });
  });
  const spans: FormulaSpan[] = [];
  let at = 0;
  while (at < played.length) {
    const found = longestAt(played, at);
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
      leaving: leavingAt(steps, played, at + count, expected),
      expected,
    });
    at += count;
  }
  return spans;
}

function turnOf(letters: readonly Pluck[]): Pluck | null {
  if (letters.length === 1) return letters[0]!;
  const fingers = letters.filter((letter) => letter !== 'p');
  return fingers.length > 0 && fingers.every((letter) => letter === fingers[0]) ? fingers[0]! : null;
}

/** The formula that goes on for the most strokes from here; among equals the first of the table. */
function longestAt(
  played: readonly Played[],
  at: number,
): { readonly formula: Formula; readonly count: number } | null {
  let best: { readonly formula: Formula; readonly count: number } | null = null;
  for (const formula of FORMULAS) {
    const { length } = formula.letters;
    let count = 0;
    while (played[at + count]?.turn === formula.letters[count % length] && !rests(played, at, at + count))
      count++;
    const least = Math.max(LEAST_ROUNDS * length, LEAST_STROKES);
    if (count >= least && count > (best?.count ?? 0)) best = { formula, count };
  }
  return best;
}

function rests(played: readonly Played[], from: number, k: number): boolean {
  if (k - from < 2) return false;
  const mean = (played[k - 1]!.timeMs - played[from]!.timeMs) / (k - 1 - from);
  return played[k]!.timeMs - played[k - 1]!.timeMs > REST_FACTOR * mean;
}

function leavingAt(
  steps: readonly RightStep[],
  played: readonly Played[],
  next: number,
  expected: Pluck,
): FormulaLeaving {
  const one = played[next];
  if (!one) return 'end';
  const step = steps[one.moment]!;
  if (rests(played, Math.max(0, next - 4), next)) return 'rest';
  if (step.group.strokes.length > 1) return 'chord';
  const asked = {
    ...step,
    sharing: sharingFor(step.group, { letters: [expected], mode: step.sharing.mode }),
  };
  return crossingOf(asked)?.code === 'crosses' ? 'crossing' : 'other';
}
