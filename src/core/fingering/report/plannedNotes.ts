/** The notes and barres of a plan as plain data. */
import type { Pluck } from '../../score/model';
import type { HandState } from '../left/rules/handState';
import type { PlannedBarre, PlannedNote } from './plan';
import type { FingeringProblem } from '../problem/problem';
import type { RightStep } from '../right/explain/walk';

/** The notes of one strike; more than one only in a unison. `untilTicks`: how long it sounds. */
export function plannedNotes(
  { strikes }: FingeringProblem,
  strike: number,
  momentIndex: number,
  { placements, strikes: sounding, barre }: HandState,
  { pluck, untilTicks }: { readonly pluck: Pluck | null; readonly untilTicks: number },
): readonly PlannedNote[] {
  const place = placements[sounding.indexOf(strike)] ?? null;
  const note = {
    strike,
    momentIndex,
    string: place?.string ?? null,
    fret: place?.fret ?? null,
    finger: place?.finger ?? null,
    pluck,
    barre: barre && place?.finger === 1 ? barre.fret : null,
    soundsUntilTicks: untilTicks,
  };
  return strikes[strike]!.uids.map((uid) => ({ uid, ...note }));
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
    open = null;
    if (!barre) return;
    const { fret, firstString, lastString } = barre;
    open = { fret, firstString, lastString, fromUid: uidAt(here[0]), toUid: uidAt(here.at(-1)) };
    spans.push(open);
  });
  return spans;
}

/** The letter of a strike at a step; null where it is not plucked. */
export function pluckIn({ group, sharing }: RightStep, strike: number): Pluck | null {
  const slot = group.strokes.findIndex((stroke) => stroke.strike === strike);
  return slot < 0 ? null : sharing.letters[slot]!;
}
