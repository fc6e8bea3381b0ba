import type { PlannedBarre } from '../../fingering/report/plan';
import type { WrittenNote } from './writtenNote';

/** By moment: the fret of the barre that is marked over it, or null. */
export function barreOver(
  moments: readonly (readonly WrittenNote[])[],
  barres: readonly PlannedBarre[],
): readonly (number | null)[] {
  const momentOf = new Map(moments.flatMap((moment, k) => moment.map(({ uid }) => [uid, k] as const)));
  const over = moments.map((): number | null => null);
  for (const { fret, fromUid, toUid } of barres)
    for (let k = momentOf.get(fromUid)!; k <= momentOf.get(toUid)!; k++) over[k] = fret;
  return over;
}
