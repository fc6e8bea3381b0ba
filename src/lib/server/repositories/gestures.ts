/** The history of an edition. */
import { z } from 'zod';
import { type Gesture, replay, storedGestureSchema } from '../../../core/fingering/edition/operation';
import { inkOf, type RegisterKey, type Registers } from '../../../core/fingering/edition/registers';
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

export interface Author {
  readonly studioId: string;
  readonly userId: string;
}

/**
 * Appends to an edition whose head is locked, and gives its new head.
 * @throws DatabaseError when the statement fails: the transaction is undone
 */
export async function insertGestures(
  tx: Transaction,
  author: Author,
  editionId: string,
  headSeq: number,
  gestures: readonly Gesture[],
): Promise<number> {
  let seq = headSeq;
  for (const { id, operations } of gestures) {
    await tx.query(
      `INSERT INTO gestures (studio_id, edition_id, seq, gesture_id, user_id, operations)
       VALUES ($1, $2, $3, $4, $5, $6)`,
      [author.studioId, editionId, ++seq, id, author.userId, JSON.stringify(operations)],
    );
  }
  await tx.query('UPDATE editions SET head_seq = $2, inked = $3 WHERE id = $1', [
    editionId,
    seq,
    inkOf((await readEdition(tx, editionId)).registers).size,
  ]);
  if (Math.floor(seq / SNAPSHOT_EVERY) > Math.floor(headSeq / SNAPSHOT_EVERY))
    await insertSnapshot(tx, author.studioId, editionId);
  return seq;
}

/** Gestures between two snapshots: as many as a desk can be sent without waiting. */
const SNAPSHOT_EVERY = 200;

const registersSchema = z.array(z.tuple([z.string(), z.union([z.string(), z.number(), z.boolean()])]));
const snapshotRow = z.object({ seq: z.int(), registers: registersSchema });

/** What an edition is: its registers at one gesture, and the gestures after it. */
export interface History {
  readonly base: Registers;
  readonly baseSeq: number;
  readonly later: readonly StoredGesture[];
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function readHistory(tx: Transaction, editionId: string): Promise<History> {
  const { rows } = await tx.query(
    'SELECT seq, registers FROM snapshots WHERE edition_id = $1 ORDER BY seq DESC LIMIT 1',
    [editionId],
  );
  const { seq, registers } = rows[0] ? snapshotRow.parse(rows[0]) : { seq: 0, registers: [] };
  const base: Registers = new Map(registers as [RegisterKey, string][]);
  return { base, baseSeq: seq, later: await listGesturesAfter(tx, editionId, seq) };
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function readEdition(
  tx: Transaction,
  editionId: string,
): Promise<{ readonly registers: Registers; readonly headSeq: number }> {
  const { base, baseSeq, later } = await readHistory(tx, editionId);
  const { registers } = replay(
    later.map(({ gesture }) => gesture),
    base,
  );
  return { registers, headSeq: later.at(-1)?.seq ?? baseSeq };
}

/** Older ones are not needed any more: the gestures themselves all stay. */
async function insertSnapshot(tx: Transaction, studioId: string, editionId: string): Promise<void> {
  const { registers, headSeq } = await readEdition(tx, editionId);
  await tx.query('DELETE FROM snapshots WHERE edition_id = $1', [editionId]);
  await tx.query('INSERT INTO snapshots (studio_id, edition_id, seq, registers) VALUES ($1, $2, $3, $4)', [
    studioId,
    editionId,
    headSeq,
    JSON.stringify([...registers]),
  ]);
}
