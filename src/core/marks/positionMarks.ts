/**
 * A Roman numeral where the hand comes to another position, with a line for as long as it stays; none where a barre
 * says it. Source: handbook, "Notation conventions".
 */
import { roman } from '../music/roman';
import type { FingeringPlan, PlannedNote } from '../fingering/report/plan';
import type { Mark } from './mark';

export function positionMarks(plan: FingeringPlan): readonly Mark[] {
  const momentOf = new Map(plan.notes.map((note) => [note.uid, note.momentIndex]));
  const barres = plan.barres.map(({ fret, fromUid }) => `${momentOf.get(fromUid)} ${fret}`);
  const stopped = plan.notes.filter(({ finger }) => finger);
  const arrivals = plan.shifts.filter(({ jump }) => jump === null);
  return arrivals.flatMap(({ toUid, toPosition }, k): Mark[] => {
    const moment = momentOf.get(toUid)!;
    if (barres.includes(`${moment} ${toPosition}`)) return [];
    const next = arrivals[k + 1];
    const until = next ? momentOf.get(next.toUid)! : Infinity;
    const last = stopped[before(stopped, until) - 1];
    // In first position the hand is at home: nobody needs to be told for how long.
    const toLast = toPosition === 1 || !last || last.momentIndex < moment ? toUid : last.uid;
    return [
      {
        id: `position:${toUid}`,
        kind: 'position',
        uid: toUid,
        toUid: toLast,
        text: roman(toPosition),
        state: 'pencil',
        below: false,
        causes: [{ code: 'shift', position: toPosition }],
        departs: null,
      },
    ];
  });
}

/** How many of the notes, which are in order, come before a moment. */
function before(notes: readonly PlannedNote[], moment: number): number {
  let [low, high] = [0, notes.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (notes[middle]!.momentIndex < moment) low = middle + 1;
    else high = middle;
  }
  return low;
}
