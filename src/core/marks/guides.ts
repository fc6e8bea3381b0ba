/** Guide fingers: which note a finger comes from and which it leads to, on one string through a shift. */
import type { FingeringPlan, PlannedNote, PlannedShift } from '../fingering/report/plan';

export interface Guide {
  readonly fromUid: string;
  readonly toUid: string;
  readonly finger: number;
}

export function guidesOf(plan: FingeringPlan): readonly Guide[] {
  const momentOf = new Map(plan.notes.map((note) => [note.uid, note.momentIndex]));
  return plan.shifts
    .filter(({ carrier, jump }) => jump === null && (carrier === 'guide' || carrier === 'shape'))
    .flatMap((shift) => guidesThrough(shift, plan.notes, momentOf));
}

/** A finger guides so far back: a note that has long been left shows nothing. */
const MOST_MOMENTS = 4;

function guidesThrough(
  { fromUid, toUid }: PlannedShift,
  notes: readonly PlannedNote[],
  momentOf: ReadonlyMap<string, number>,
): readonly Guide[] {
  const [from, to] = [momentOf.get(fromUid)!, momentOf.get(toUid)!];
  const arriving = notes.filter(({ momentIndex, finger }) => momentIndex === to && finger);
  return arriving.flatMap((note) => {
    const before = notes.findLast(
      ({ momentIndex, string }) =>
        momentIndex <= from && momentIndex > from - MOST_MOMENTS && string === note.string,
    );
    return before && before.finger === note.finger && before.fret !== note.fret
      ? [{ fromUid: before.uid, toUid: note.uid, finger: note.finger! }]
      : [];
  });
}
