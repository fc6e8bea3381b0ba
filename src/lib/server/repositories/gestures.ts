/** The history of an edition. */
import { z } from 'zod';
import { type Gesture, storedGestureSchema } from '../../../core/fingering/edition/operation';
import type { Transaction } from '../db';

export interface StoredGesture {
  readonly seq: number;
  readonly gesture: Gesture;
}

const gestureRow = z.object({ seq: z.int(), gesture_id: z.string(), operations: z.unknown() });

/**
 * Locks the edition until the end of the transaction; null when this studio has no such edition.
 * @throws DatabaseError when the statement fails: the transaction is undone
 */
export async function maybeLockHead(tx: Transaction, editionId: string): Promise<number | null> {
  const { rows } = await tx.query<{ head_seq: number }>(
    'SELECT head_seq FROM editions WHERE id = $1 FOR UPDATE',
    [editionId],
  );
  return rows[0]?.head_seq ?? null;
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function moveHead(tx: Transaction, editionId: string, headSeq: number): Promise<void> {
  await tx.query('UPDATE editions SET head_seq = $2 WHERE id = $1', [editionId, headSeq]);
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function listGesturesAfter(
  tx: Transaction,
  editionId: string,
  seq: number,
): Promise<readonly StoredGesture[]> {
  const { rows } = await tx.query(
    'SELECT seq, gesture_id, operations FROM gestures WHERE edition_id = $1 AND seq > $2 ORDER BY seq',
    [editionId, seq],
  );
  return rows.map((raw) => {
    const row = gestureRow.parse(raw);
    return {
      seq: row.seq,
      gesture: storedGestureSchema.parse({ id: row.gesture_id, operations: row.operations }),
    };
  });
}

/**
 * Which of these gestures are stored already.
 * @throws DatabaseError when the statement fails: the transaction is undone
 */
export async function listKnownIds(
  tx: Transaction,
  editionId: string,
  ids: readonly string[],
): Promise<ReadonlySet<string>> {
  const { rows } = await tx.query<{ gesture_id: string }>(
    'SELECT gesture_id FROM gestures WHERE edition_id = $1 AND gesture_id = ANY($2::uuid[])',
    [editionId, ids],
  );
  return new Set(rows.map((row) => row.gesture_id));
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function insertGesture(
  tx: Transaction,
  row: { studioId: string; editionId: string; userId: string; seq: number; gesture: Gesture },
): Promise<void> {
  await tx.query(
    `INSERT INTO gestures (studio_id, edition_id, seq, gesture_id, user_id, operations)
     VALUES ($1, $2, $3, $4, $5, $6)`,
    [
      row.studioId,
      row.editionId,
      row.seq,
      row.gesture.id,
      row.userId,
      JSON.stringify(row.gesture.operations),
    ],
  );
}
