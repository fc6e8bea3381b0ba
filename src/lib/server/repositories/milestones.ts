/** States of an edition that have a name. */
import { z } from 'zod';
import type { Transaction } from '../db';
import type { Author } from './gestures';

const milestone = z.object({
  id: z.uuid(),
  seq: z.int(),
  name: z.string(),
  by: z.string(),
  createdAt: z.date(),
});

export type Milestone = Omit<z.infer<typeof milestone>, 'createdAt'> & { readonly createdAt: string };

/** The newest first. @throws DatabaseError when the statement fails: the transaction is undone */
export async function listMilestones(tx: Transaction, editionId: string): Promise<readonly Milestone[]> {
  const { rows } = await tx.query(
    `SELECT m.id, m.seq, m.name, u.display_name AS by, m.created_at AS "createdAt"
     FROM milestones m JOIN users u ON u.studio_id = m.studio_id AND u.id = m.created_by
     WHERE m.edition_id = $1 ORDER BY m.created_at DESC`,
    [editionId],
  );
  return rows.map((row) => {
    const one = milestone.parse(row);
    return { ...one, createdAt: one.createdAt.toISOString() };
  });
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function insertMilestone(
  tx: Transaction,
  { studioId, userId }: Author,
  row: { readonly editionId: string; readonly seq: number; readonly name: string },
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `INSERT INTO milestones (studio_id, edition_id, seq, name, created_by) VALUES ($1, $2, $3, $4, $5) RETURNING id`,
    [studioId, row.editionId, row.seq, row.name, userId],
  );
  return rows[0]!.id;
}

/** Whether there was one. @throws DatabaseError when the statement fails: the transaction is undone */
export async function deleteMilestone(tx: Transaction, id: string): Promise<boolean> {
  const { rowCount } = await tx.query('DELETE FROM milestones WHERE id = $1', [id]);
  return rowCount === 1;
}

const changeRow = z.object({ seq: z.int(), by: z.string(), at: z.date(), operations: z.array(z.unknown()) });

export interface ChangeOf {
  readonly seq: number;
  readonly by: string;
  readonly at: string;
  readonly operations: readonly unknown[];
}

/** The last gestures with who made them, the newest first. @throws DatabaseError when the statement fails */
export async function listChanges(
  tx: Transaction,
  editionId: string,
  most: number,
): Promise<readonly ChangeOf[]> {
  const { rows } = await tx.query(
    `SELECT g.seq, u.display_name AS by, g.created_at AS at, g.operations
     FROM gestures g JOIN users u ON u.studio_id = g.studio_id AND u.id = g.user_id
     WHERE g.edition_id = $1 ORDER BY g.seq DESC LIMIT $2`,
    [editionId, most],
  );
  return rows.map((row) => {
    const { at, ...rest } = changeRow.parse(row);
    return { ...rest, at: at.toISOString() };
  });
}
