/** Some bars of a score, for whoever cannot wait for the whole. */
import type { NoteSpan, Score } from './model';

/**
 * The notes of bars `from` to `to` (indices into `measures`, both in it), with what leads from one of them to another.
 * Bars, metres and tempos stay, so that every note keeps its place in time.
 */
export function excerptOf(score: Score, from: number, to: number): Score {
  const notes = score.notes.filter(({ measureIndex }) => measureIndex >= from && measureIndex <= to);
  const inside = new Set(notes.map(({ uid }) => uid));
  const within = (spans: readonly NoteSpan[]) =>
    spans.filter(({ fromUid, toUid }) => inside.has(fromUid) && inside.has(toUid));
  return {
    ...score,
    notes,
    slurs: within(score.slurs),
    ligados: within(score.ligados),
    slides: within(score.slides),
  };
}
