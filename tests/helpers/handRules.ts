/** Rules of the left hand worked out by hand: chords one after the other, and what the way between two of them costs. */
import type { FingeringProblem } from '../../src/core/fingering/problem/problem';
import { handState } from '../../src/core/fingering/left/rules/handState';
import type { Placement } from '../../src/core/fingering/left/rules/place';
import { transitionCost } from '../../src/core/fingering/left/rules/prices';
import type { LeftTermId } from '../../src/core/fingering/left/rules/terms';
import { barXml, problemFrom } from './music';

export const at = (string: number, fret: number, finger: number): Placement => ({ string, fret, finger });

/** Chords one after the other: one bar of quarters at 60, all notes in a voice of their own. */
export const chords = (...rows: readonly (readonly number[])[]): FingeringProblem => chordsAt(60, ...rows);

export function chordsAt(
  quartersPerMinute: number,
  ...rows: readonly (readonly number[])[]
): FingeringProblem {
  const notes = rows.flatMap((midis, k) =>
    midis.map((midi, voice) => ({ midi, onset: 2 * k, length: 2, voice: voice + 1 })),
  );
  return onClock(problemFrom(barXml(notes, quartersPerMinute)));
}

/** Rules are worked out in real time: how a texture is reckoned is another matter. */
export const onClock = (problem: FingeringProblem): FingeringProblem => ({
  ...problem,
  reckoned: problem.spans,
});

/** What the way from one chord to the next costs, term by term. */
export function wayTerms(
  problem: FingeringProblem,
  before: readonly Placement[],
  after: readonly Placement[],
) {
  const terms = new Map<LeftTermId, number>();
  const add = (term: LeftTermId, cost: number) => void terms.set(term, (terms.get(term) ?? 0) + cost);
  const [a, b] = problem.moments;
  const from = handState(a!.struck, before, null);
  const to = handState(b!.struck, after, null);
  transitionCost(problem, from, b!, to, add);
  return terms;
}
