/** Routines of a studio. */
import { z } from 'zod';
import { type Routine, routineSchema } from '../../../core/drills/routine';
import type { Transaction } from '../db';

export interface StoredRoutine extends Routine {
  readonly id: string;
}

const routineRow = z.object({ id: z.uuid(), title: z.string(), items: z.unknown() });

/** What is stored is read as it was written; a row of another shape is a bug. */
const toRoutine = (raw: unknown): StoredRoutine => {
  const { id, title, items } = routineRow.parse(raw);
  return { id, ...routineSchema.parse({ title, items }) };
};

/** The last changed first. @throws DatabaseError when the statement fails: the transaction is undone */
export async function listRoutines(tx: Transaction): Promise<readonly StoredRoutine[]> {
  const { rows } = await tx.query('SELECT id, title, items FROM routines ORDER BY changed_at DESC, title');
  return rows.map(toRoutine);
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function maybeFindRoutine(tx: Transaction, id: string): Promise<StoredRoutine | null> {
  const { rows } = await tx.query('SELECT id, title, items FROM routines WHERE id = $1', [id]);
  return rows[0] ? toRoutine(rows[0]) : null;
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function insertRoutine(tx: Transaction, studioId: string, routine: Routine): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    'INSERT INTO routines (studio_id, title, items) VALUES ($1, $2, $3) RETURNING id',
    [studioId, routine.title, JSON.stringify(routine.items)],
  );
  return rows[0]!.id;
}

/** Whether there was one. @throws DatabaseError when the statement fails: the transaction is undone */
export async function updateRoutine(
  tx: Transaction,
  id: string,
  { title, items }: Routine,
): Promise<boolean> {
  const { rowCount } = await tx.query(
    'UPDATE routines SET title = $2, items = $3, changed_at = now() WHERE id = $1',
    [id, title, JSON.stringify(items)],
  );
  return rowCount === 1;
}

/** Whether there was one. @throws DatabaseError when the statement fails: the transaction is undone */
export async function deleteRoutine(tx: Transaction, id: string): Promise<boolean> {
  const { rowCount } = await tx.query('DELETE FROM routines WHERE id = $1', [id]);
  return rowCount === 1;
}
