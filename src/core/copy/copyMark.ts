/** The marks of a handed-out copy, and what differs from them by now. */
import { z } from 'zod';
import type { Mark } from '../marks/mark';
import type { Score } from '../score/model';

export const copyMarkSchema = z.object({
  id: z.string(),
  kind: z.string(),
  uid: z.string(),
  text: z.string(),
});
export type CopyMark = z.infer<typeof copyMarkSchema>;

export const copyMarks = (marks: readonly Mark[]): readonly CopyMark[] =>
  marks.map(({ id, kind, uid, text }) => ({ id, kind, uid, text }));

/** One mark that is not as on the copy: written since, taken away since (null), or another. */
export interface CopyDifference {
  readonly kind: Mark['kind'];
  readonly uid: string;
  /** Printed number of its bar; null for a note that the score does not have any more. */
  readonly bar: string | null;
  readonly was: string | null;
  readonly is: string | null;
}

/** In the order of the music; what stands on notes that are gone comes last. */
export function differencesOf(
  copy: readonly CopyMark[],
  now: readonly CopyMark[],
  score: Score,
): readonly CopyDifference[] {
  const measureOf = new Map(score.notes.map(({ uid, measureIndex }) => [uid, measureIndex]));
  const [before, after] = [copy, now].map((marks) => new Map(marks.map((mark) => [mark.id, mark])));
  const ids = new Set([...before!.keys(), ...after!.keys()]);
  const differences = [...ids].flatMap((id) => {
    const [was, is] = [before!.get(id), after!.get(id)];
    if (was?.text === is?.text) return [];
    const { uid, kind } = (is ?? was)!;
    const measure = measureOf.get(uid);
    const bar = measure === undefined ? null : score.measures[measure]!.number;
    const at = measure ?? Infinity;
    return [{ kind: kind as Mark['kind'], uid, bar, was: was?.text ?? null, is: is?.text ?? null, at }];
  });
  return differences.sort((a, b) => a.at - b.at).map(({ at: _at, ...difference }) => difference);
}
