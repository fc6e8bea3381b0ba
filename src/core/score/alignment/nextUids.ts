/** The names of notes and bars in a new version of a score: old names where they are the same, new ones elsewhere. */
import type { Alignment } from './align';

export interface VersionUids {
  readonly notes: readonly string[];
  readonly bars: readonly string[];
  /** The next numbers that no version has used. */
  readonly nextNote: number;
  readonly nextBar: number;
}

/**
 * @param noteCount noteheads of the new document, counted from n1 in its order
 * @param barCount bars of the new document, counted from b1
 * @param oldBarUids of the old score, by index
 */
export function uidsOfNextVersion(
  alignment: Alignment,
  noteCount: number,
  barCount: number,
  oldBarUids: readonly string[],
  used: { readonly nextNote: number; readonly nextBar: number },
): VersionUids {
  let { nextNote, nextBar } = used;
  const barOf = new Map(alignment.bars.map((pair) => [pair.next, oldBarUids[pair.old]!]));
  const notes = Array.from(
    { length: noteCount },
    (_, k) => alignment.notes.get(`n${k + 1}`) ?? `n${nextNote++}`,
  );
  const bars = Array.from({ length: barCount }, (_, k) => barOf.get(k) ?? `b${nextBar++}`);
  return { notes, bars, nextNote, nextBar };
}
