/** The notes and barres of a plan as plain data. */
import type { Pluck } from '../score/model';
import type { HandState } from './left/handState';
import type { LeftPlan } from './left/planLeft';
import type { PlannedBarre, PlannedNote } from './plan';
import type { FingeringProblem } from './problem';
import type { RightStep } from './right/walk';
import type { Ring } from './rings/ring';

export function plannedNotes(
  problem: FingeringProblem,
  left: Pick<LeftPlan, 'placements' | 'states'>,
  plucks: readonly (Pluck | null)[],
  rings: readonly Ring[],
): PlannedNote[] {
  const until = problem.strikes.map((strike) => strike.onsetTicks);
  for (const ring of rings) until[ring.strike] = ring.soundsUntilTicks;
  return problem.moments.flatMap((moment) =>
    moment.struck.flatMap((index) => {
      const place = left.placements[index] ?? null;
      const barre = left.states[moment.index]!.barre;
      const note = {
        strike: index,
        momentIndex: moment.index,
        string: place?.string ?? null,
        fret: place?.fret ?? null,
        finger: place?.finger ?? null,
        pluck: plucks[index]!,
        barre: barre && place?.finger === 1 ? barre.fret : null,
        soundsUntilTicks: until[index]!,
      };
      return problem.strikes[index]!.uids.map((uid) => ({ uid, ...note }));
    }),
  );
}

/** Neighbouring moments under a barre at one fret are one span. */
export function barreSpans(problem: FingeringProblem, states: readonly HandState[]): PlannedBarre[] {
  const spans: PlannedBarre[] = [];
  let open: PlannedBarre | null = null;
  states.forEach((state, k) => {
    const uidAt = (strike: number | undefined) => problem.strikes[strike ?? 0]!.uids[0]!;
    const barre = state.barre;
    const here = problem.moments[k]!.struck;
    if (open && barre?.fret === open.fret) {
      open = {
        fret: open.fret,
        firstString: Math.min(open.firstString, barre.firstString),
        lastString: Math.max(open.lastString, barre.lastString),
        fromUid: open.fromUid,
        toUid: uidAt(here.at(-1)),
      };
      spans[spans.length - 1] = open;
      return;
    }
    open = barre ? { ...barre, fromUid: uidAt(here[0]), toUid: uidAt(here.at(-1)) } : null;
    if (open) spans.push(open);
  });
  return spans;
}

/** By strike: its letter, null where nothing is plucked. */
export function plucksOf(problem: FingeringProblem, steps: readonly RightStep[]): readonly (Pluck | null)[] {
  const plucks: (Pluck | null)[] = problem.strikes.map(() => null);
  for (const { group, sharing } of steps)
    group.strokes.forEach(({ strike }, slot) => (plucks[strike] = sharing.letters[slot]!));
  return plucks;
}
