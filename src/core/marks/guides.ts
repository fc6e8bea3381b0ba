/** Guide fingers: which note a finger comes from and which it leads to, on one string through a shift. */
import { groupedBy } from '../fingering/problem/groupedBy';
import type { FingeringPlan, PlannedNote } from '../fingering/report/plan';

export interface Guide {
  readonly fromUid: string;
  readonly toUid: string;
  readonly finger: number;
}

export function guidesOf(plan: FingeringPlan): readonly Guide[] {
  const momentOf = new Map(plan.notes.map((note) => [note.uid, note.momentIndex]));
  const byMoment = groupedBy(plan.notes, ({ momentIndex }) => momentIndex);
  return plan.shifts
    .filter(({ carrier, jump }) => jump === null && (carrier === 'guide' || carrier === 'shape'))
    .flatMap(({ fromUid, toUid }) => guidesThrough(byMoment, momentOf.get(fromUid)!, momentOf.get(toUid)!));
}

/** A finger guides so far back: a note that has long been left shows nothing. */
const MOST_MOMENTS = 4;

function guidesThrough(
  byMoment: ReadonlyMap<number, readonly PlannedNote[]>,
  from: number,
  to: number,
): readonly Guide[] {
  const back = Array.from({ length: MOST_MOMENTS }, (_, k) => byMoment.get(from - k) ?? []).flat();
  const arriving = (byMoment.get(to) ?? []).filter(({ finger }) => finger);
  return arriving.flatMap((note) => {
    const before = back.find(({ string }) => string === note.string);
    return before && before.finger === note.finger && before.fret !== note.fret
      ? [{ fromUid: before.uid, toUid: note.uid, finger: note.finger! }]
      : [];
  });
}
