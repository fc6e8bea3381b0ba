/** Moments of a plan with their notes, in order: what pictures of the hand are taken at. */
import type { BoardPicture } from '../engraving/fretboardPicture';
import { boardPicture, gripsAt } from '../engraving/fretboardPicture';
import { groupedBy } from '../fingering/problem/groupedBy';
import type { PlannedNote } from '../fingering/report/plan';
import { withCapo } from '../instrument/fretboard';
import type { CopySource } from './source';

export interface MomentNotes {
  readonly ticks: number;
  readonly bar: number;
  readonly notes: readonly PlannedNote[];
}

export function momentsOf({ plan, score }: CopySource): readonly MomentNotes[] {
  const noteOf = new Map(score.notes.map((note) => [note.uid, note]));
  return [...groupedBy(plan.notes, ({ momentIndex }) => momentIndex).values()].map((notes) => {
    const { onsetTicks: ticks, measureIndex: bar } = noteOf.get(notes[0]!.uid)!;
    return { ticks, bar, notes };
  });
}

export function pictureAt(source: CopySource, moments: readonly MomentNotes[], at: number): BoardPicture {
  const { here } = gripsAt(source.plan.fingers, moments, at);
  return boardPicture(withCapo(source.board, source.score.capo), here, null, false);
}

/** Equal for grips that look the same. */
export function gripKey(source: CopySource, { ticks, notes }: MomentNotes): string {
  const lying = source.plan.fingers
    .filter(({ fromTicks, toTicks }) => fromTicks <= ticks && toTicks > ticks)
    .map(({ finger, string, fret }) => `${finger} ${string} ${fret}`);
  const open = notes.filter(({ fret }) => fret === 0).map(({ string }) => `0 ${string}`);
  return [...lying, ...open].sort().join();
}
