/** Engraved pages and plans that were made ahead, packed as they are sent. */
import { z } from 'zod';
import type { Transaction } from '../db';

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function maybeReadPage(
  tx: Transaction,
  versionId: string,
  contentKey: string,
): Promise<Buffer | null> {
  const { rows } = await tx.query<{ content: Buffer }>(
    'SELECT content FROM pages WHERE version_id = $1 AND content_key = $2',
    [versionId, contentKey],
  );
  return rows[0]?.content ?? null;
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function hasPage(tx: Transaction, versionId: string, contentKey: string): Promise<boolean> {
  const { rowCount } = await tx.query('SELECT 1 FROM pages WHERE version_id = $1 AND content_key = $2', [
    versionId,
    contentKey,
  ]);
  return rowCount === 1;
}

/**
 * The picture of the newest page of a version.
 * @throws DatabaseError when the statement fails: the transaction is undone
 */
export async function maybeReadFirstLine(tx: Transaction, versionId: string): Promise<string | null> {
  const { rows } = await tx.query<{ first_line: string }>(
    'SELECT first_line FROM pages WHERE version_id = $1 ORDER BY created_at DESC LIMIT 1',
    [versionId],
  );
  return rows[0]?.first_line ?? null;
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function insertPage(
  tx: Transaction,
  row: {
    readonly studioId: string;
    readonly versionId: string;
    readonly contentKey: string;
    readonly content: Uint8Array;
    readonly firstLine: string;
  },
): Promise<void> {
  await tx.query(
    `INSERT INTO pages (studio_id, version_id, content_key, content, first_line) VALUES ($1, $2, $3, $4, $5)
     ON CONFLICT (studio_id, version_id, content_key) DO NOTHING`,
    [row.studioId, row.versionId, row.contentKey, Buffer.from(row.content), row.firstLine],
  );
}

export const planSummarySchema = z.object({
  leftCost: z.number(),
  rightCost: z.number(),
  hardestBars: z.array(z.string()),
  unplayable: z.int(),
  /** Drills that the piece asks for; plans of earlier programs do not say. */
  drills: z.array(z.object({ kind: z.string(), because: z.string(), bars: z.array(z.string()) })).default([]),
});

/**
 * The newest plan of an edition with the operation that it stands at; null when there is none of this kind.
 * @throws DatabaseError when the statement fails: the transaction is undone
 */
export async function maybeFindPlanSeq(
  tx: Transaction,
  editionId: string,
  versionId: string,
  planKey: string,
): Promise<number | null> {
  const { rows } = await tx.query<{ head_seq: number }>(
    `SELECT head_seq FROM plans WHERE edition_id = $1 AND version_id = $2 AND plan_key = $3
     ORDER BY head_seq DESC LIMIT 1`,
    [editionId, versionId, planKey],
  );
  return rows[0]?.head_seq ?? null;
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function maybeReadPlan(
  tx: Transaction,
  editionId: string,
  versionId: string,
  planKey: string,
  headSeq: number,
): Promise<Buffer | null> {
  const { rows } = await tx.query<{ content: Buffer }>(
    `SELECT content FROM plans WHERE edition_id = $1 AND version_id = $2 AND plan_key = $3 AND head_seq = $4`,
    [editionId, versionId, planKey, headSeq],
  );
  return rows[0]?.content ?? null;
}

/**
 * Older plans go an hour later: a desk that is just opening may still ask for one.
 * @throws DatabaseError when the statement fails: the transaction is undone
 */
export async function insertPlan(
  tx: Transaction,
  row: {
    readonly studioId: string;
    readonly editionId: string;
    readonly versionId: string;
    readonly headSeq: number;
    readonly planKey: string;
    readonly content: Uint8Array;
    readonly summary: object;
  },
): Promise<void> {
  await tx.query(`DELETE FROM plans WHERE edition_id = $1 AND created_at < now() - interval '1 hour'`, [
    row.editionId,
  ]);
  await tx.query(
    `INSERT INTO plans (studio_id, edition_id, version_id, head_seq, plan_key, content, summary)
     VALUES ($1, $2, $3, $4, $5, $6, $7)
     ON CONFLICT (studio_id, edition_id, version_id, plan_key, head_seq) DO NOTHING`,
    [
      row.studioId,
      row.editionId,
      row.versionId,
      row.headSeq,
      row.planKey,
      Buffer.from(row.content),
      planSummarySchema.parse(row.summary),
    ],
  );
}
