/** The saving of an edition: append what the client has done, or answer with what it has not seen. */
import type { Gesture } from '../../../core/fingering/edition/operation';
import { withTransaction } from '../db';
import { announce } from '../live';
import {
  insertGestures,
  listGesturesAfter,
  listKnownIds,
  maybeLockHead,
  type StoredGesture,
} from '../repositories/gestures';

export type AppendAnswer =
  | { readonly kind: 'saved'; readonly headSeq: number }
  | { readonly kind: 'behind'; readonly headSeq: number; readonly missing: readonly StoredGesture[] }
  | { readonly kind: 'restored'; readonly headSeq: number; readonly history: readonly StoredGesture[] }
  | { readonly kind: 'unknownEdition' };

/**
 * One transaction: when it answers `saved`, the gestures are committed. A gesture sent again (its answer was
 * lost) is not stored twice and counts as seen.
 */
export async function appendGestures(
  owner: { readonly studioId: string; readonly userId: string },
  editionId: string,
  seenSeq: number,
  gestures: readonly Gesture[],
): Promise<AppendAnswer> {
  return withTransaction(owner.studioId, async (tx): Promise<AppendAnswer> => {
    const headSeq = await maybeLockHead(tx, editionId);
    if (headSeq === null) return { kind: 'unknownEdition' };
    if (seenSeq > headSeq)
      return { kind: 'restored', headSeq, history: await listGesturesAfter(tx, editionId, 0) };
    const missing = await listGesturesAfter(tx, editionId, seenSeq);
    const own = new Set(gestures.map((gesture) => gesture.id));
    if (missing.some((stored) => !own.has(stored.gesture.id))) return { kind: 'behind', headSeq, missing };

    const known = await listKnownIds(tx, editionId, [...own]);
    const fresh = gestures.filter(({ id }) => !known.has(id));
    const newHead = await insertGestures(tx, owner, editionId, headSeq, fresh);
    if (newHead !== headSeq) await announce(tx, editionId, newHead);
    return { kind: 'saved', headSeq: newHead };
  });
}
