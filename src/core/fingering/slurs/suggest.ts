/**
 * Slurs that would cure something: a crossing against the hand, a finger that must play again too soon, a scale faster
 * than the fingers. The notes already lie on one string under fingers that can do it. Source: handbook, "Slurs".
 */
import type { Pluck } from '../../score/model';
import type { FingeringProblem } from '../problem/problem';
import type { HandState } from '../left/rules/handState';
import type { Placement } from '../left/rules/place';
import { slurPlayable, weakSlur } from '../left/rules/connections';
import type { Placed } from '../right/lattice/planRight';
import { crossingOf, repeatOf } from '../right/explain/reasons';
import { placedOn } from '../right/rules/strokes';
import type { RightStep } from '../right/explain/walk';

export type SlurCure = 'crossing' | 'repeat' | 'speed';

export interface SlurSuggestion {
  readonly fromUid: string;
  readonly toUid: string;
  readonly momentIndex: number;
  readonly ticks: number;
  readonly cure: SlurCure;
  /** What the right hand saves at least, in tenths of a point; fingers and strings stay as they are. */
  readonly saves: number;
  /** The letters from the slurred pair on, as the count then goes. */
  readonly letters: readonly Pluck[];
  /** The letters now. */
  readonly before: readonly Pluck[];
  readonly weak: boolean;
}

/** A slur saves a stroke only where strokes are quick, and is worth a word when it saves so much. From memory. */
const LONGEST_MS = 400;
const FAST_MS = 140;
const LEAST_SAVED = 2;
const MOST_TRIED = 60;
const LETTERS_SHOWN = 6;

interface Candidate {
  readonly k: number;
  readonly strike: number;
  readonly source: number;
  readonly cure: SlurCure;
  readonly weak: boolean;
  readonly effort: number;
}

/** What the right hand would play and pay with some strikes slurred. */
export type Replan = (placed: Placed) => {
  readonly cost: number;
  readonly letters: readonly (readonly Pluck[])[];
};

/** @param refused strikes whose slur the teacher does not want */
export function suggestSlurs(
  problem: FingeringProblem,
  states: readonly HandState[],
  steps: readonly RightStep[],
  refused: ReadonlySet<number>,
  replan: Replan,
): readonly SlurSuggestion[] {
  const placed = placedOn(problem, states);
  const now = replan(placed);
  const candidates = candidatesIn(problem, states, steps, refused)
    .sort((a, b) => b.effort - a.effort || a.k - b.k)
    .slice(0, MOST_TRIED);
  const found = candidates.flatMap(({ k, strike, source, cure, weak }): SlurSuggestion[] => {
    const slurred = placed.map((row, j) =>
      j === k ? row.map((one) => (one.strike === strike ? { ...one, slurred: true } : one)) : row,
    );
    const then = replan(slurred);
    const saves = now.cost - then.cost;
    if (saves < LEAST_SAVED) return [];
    return [
      {
        fromUid: problem.strikes[source]!.uids[0]!,
        toUid: problem.strikes[strike]!.uids[0]!,
        momentIndex: k,
        ticks: problem.moments[k]!.tick,
        cure,
        saves,
        letters: lettersFrom(then.letters, k - 1),
        before: lettersFrom(now.letters, k - 1),
        weak,
      },
    ];
  });
  return apart(found).sort((a, b) => b.saves - a.saves || a.momentIndex - b.momentIndex);
}

const lettersFrom = (letters: readonly (readonly Pluck[])[], k: number): readonly Pluck[] =>
  letters
    .slice(Math.max(0, k))
    .flatMap((group) => group.slice(-1))
    .slice(0, LETTERS_SHOWN);

function candidatesIn(
  problem: FingeringProblem,
  states: readonly HandState[],
  steps: readonly RightStep[],
  refused: ReadonlySet<number>,
): Candidate[] {
  const slurSources = new Set(problem.strikes.map(({ slurredFrom }) => slurredFrom));
  return problem.moments.flatMap((moment, k) =>
    moment.struck.flatMap((index): Candidate[] => {
      const strike = problem.strikes[index]!;
      const source = strike.lineFrom;
      if (source === null || strike.slurredFrom !== null || refused.has(index)) return [];
      // Two-note slurs: neither note belongs to another one.
      if (slurSources.has(index) || slurSources.has(source) || problem.strikes[source]!.slurredFrom !== null)
        return [];
      const [from, to] = [placeAt(states[k - 1], source), placeAt(states[k], index)];
      const joined = problem.strikes[source]!.writtenEndTicks === strike.onsetTicks;
      const ms = moment.timeMs - problem.clock(problem.strikes[source]!.onsetTicks);
      if (!from || !to || !joined || ms > LONGEST_MS || strike.grace || !slurPlayable(from, to)) return [];
      const cure = cureAt(steps, k, ms);
      const effort = [k, k + 1].reduce((sum, j) => sum + (steps[j] ? steps[j]!.own + steps[j]!.way : 0), 0);
      return cure ? [{ k, strike: index, source, cure, weak: weakSlur(from, to), effort }] : [];
    }),
  );
}

function placeAt(state: HandState | undefined, strike: number): Placement | null {
  const slot = state?.strikes.indexOf(strike) ?? -1;
  return slot < 0 ? null : state!.placements[slot]!;
}

/** What is wrong with the stroke itself or the next one, which the slur gives to another finger. */
function cureAt(steps: readonly RightStep[], k: number, ms: number): SlurCure | null {
  const near = [steps[k], steps[k + 1]].filter((step) => step !== undefined);
  if (near.some((step) => crossingOf(step)?.code === 'crosses')) return 'crossing';
  if (near.some((step) => repeatOf(step) !== null && step.way > 0)) return 'repeat';
  return ms <= FAST_MS ? 'speed' : null;
}

/** Of two that share a note or follow at once, the better one. */
function apart(suggestions: readonly SlurSuggestion[]): SlurSuggestion[] {
  const kept: SlurSuggestion[] = [];
  for (const one of [...suggestions].sort((a, b) => b.saves - a.saves || a.momentIndex - b.momentIndex))
    if (kept.every(({ momentIndex }) => Math.abs(momentIndex - one.momentIndex) > 2)) kept.push(one);
  return kept;
}
