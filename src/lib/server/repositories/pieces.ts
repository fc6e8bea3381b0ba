/** Pieces and what the shelf shows of them. */
import { z } from 'zod';
import { pieceSummarySchema, type PieceSummary } from '../../pieceSummary';
import type { Transaction } from '../db';
import { planSummarySchema } from './prepared';

const pieceRow = z.object({
  id: z.uuid(),
  title: z.string(),
  file_name: z.string(),
  // A row that an older program wrote wrongly must not take the whole shelf with it.
  summary: pieceSummarySchema.nullable().catch(null),
  edition_id: z.uuid(),
  version_id: z.uuid(),
  version_number: z.int(),
  inked: z.coerce.number().int(),
  inked_notes: z.int().nullable(),
  composer: z.string().nullable(),
  tags: z.array(z.string()),
  page_ready: z.boolean(),
  plan: planSummarySchema.nullable().catch(null),
  created_at: z.date(),
});

export interface Piece {
  readonly id: string;
  readonly title: string;
  readonly fileName: string;
  /** Null where what is stored of it makes no sense: the shelf says so. */
  readonly summary: PieceSummary | null;
  /** The general edition. */
  readonly editionId: string;
  readonly versionId: string;
  readonly versionNumber: number;
  /** How many gestures the edition has. */
  readonly gestures: number;
  /** Notes with ink; null where nobody has counted. */
  readonly inkedNotes: number | null;
  readonly composer: string | null;
  readonly tags: readonly string[];
  readonly pageReady: boolean;
  readonly plan: z.infer<typeof planSummarySchema> | null;
  readonly createdAt: string;
}

const SELECT = `SELECT p.id, p.title, v.file_name, p.summary, p.created_at, e.id AS edition_id,
    v.id AS version_id, v.number AS version_number, e.head_seq AS inked,
    e.inked AS inked_notes, p.composer, p.tags,
    EXISTS (SELECT 1 FROM pages g WHERE g.studio_id = v.studio_id AND g.version_id = v.id) AS page_ready,
    (SELECT l.summary FROM plans l WHERE l.studio_id = e.studio_id AND l.edition_id = e.id
       AND l.version_id = v.id ORDER BY l.head_seq DESC LIMIT 1) AS plan
  FROM pieces p
  JOIN editions e ON e.studio_id = p.studio_id AND e.piece_id = p.id
  JOIN score_versions v ON v.studio_id = p.studio_id AND v.piece_id = p.id AND v.number = p.current_version`;

function toPiece(raw: unknown): Piece {
  const row = pieceRow.parse(raw);
  return {
    id: row.id,
    title: row.title,
    fileName: row.file_name,
    summary: row.summary,
    editionId: row.edition_id,
    versionId: row.version_id,
    versionNumber: row.version_number,
    gestures: row.inked,
    inkedNotes: row.inked_notes,
    composer: row.composer,
    tags: row.tags,
    pageReady: row.page_ready,
    plan: row.plan,
    createdAt: row.created_at.toISOString(),
  };
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function listPieces(tx: Transaction): Promise<readonly Piece[]> {
  const { rows } = await tx.query(`${SELECT} WHERE p.removed_at IS NULL ORDER BY p.created_at DESC, p.title`);
  return rows.map(toPiece);
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function maybeFindPiece(tx: Transaction, pieceId: string): Promise<Piece | null> {
  const { rows } = await tx.query(`${SELECT} WHERE p.id = $1`, [pieceId]);
  return rows[0] ? toPiece(rows[0]) : null;
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function maybeFindPieceOfEdition(tx: Transaction, editionId: string): Promise<Piece | null> {
  const { rows } = await tx.query(`${SELECT} WHERE e.id = $1`, [editionId]);
  return rows[0] ? toPiece(rows[0]) : null;
}

/** Removed ones, the last first: they can be brought back. @throws DatabaseError when the statement fails */
export async function listRemoved(
  tx: Transaction,
): Promise<readonly { readonly id: string; readonly title: string }[]> {
  const { rows } = await tx.query<{ id: string; title: string }>(
    'SELECT id, title FROM pieces WHERE removed_at IS NOT NULL ORDER BY removed_at DESC LIMIT 30',
  );
  return rows;
}

/** What a teacher changes of a piece on the shelf; what is not named stays. */
export interface PieceChanges {
  readonly title?: string | undefined;
  readonly composer?: string | null | undefined;
  readonly tags?: readonly string[] | undefined;
  readonly removed?: boolean | undefined;
}

/** Whether there was one. @throws DatabaseError when the statement fails: the transaction is undone */
export async function updatePiece(tx: Transaction, id: string, changes: PieceChanges): Promise<boolean> {
  const { title, composer, tags, removed } = changes;
  const { rowCount } = await tx.query(
    `UPDATE pieces SET title = coalesce($2, title),
       composer = CASE WHEN $3 THEN $4 ELSE composer END,
       tags = coalesce($5::text[], tags),
       removed_at = CASE WHEN $6::boolean IS NULL THEN removed_at WHEN $6 THEN now() END
     WHERE id = $1`,
    [id, title ?? null, composer !== undefined, composer ?? null, tags ?? null, removed ?? null],
  );
  return rowCount === 1;
}

/** Pieces of the studio whose current file is this one, byte for byte. @throws DatabaseError when the statement fails */
export async function listSameFile(
  tx: Transaction,
  source: Uint8Array,
): Promise<readonly { readonly id: string; readonly title: string }[]> {
  const { rows } = await tx.query<{ id: string; title: string }>(
    `SELECT p.id, p.title FROM pieces p
     JOIN score_versions v ON v.studio_id = p.studio_id AND v.piece_id = p.id AND v.number = p.current_version
     WHERE p.removed_at IS NULL AND sha256(v.source) = sha256($1) ORDER BY p.created_at LIMIT 3`,
    [Buffer.from(source)],
  );
  return rows;
}

/**
 * Other pieces of the studio with the title of this one, made of another file: this may be their newer one.
 * @throws DatabaseError when the statement fails: the transaction is undone
 */
export async function listSameTitle(
  tx: Transaction,
  pieceId: string,
  source: Uint8Array,
): Promise<readonly { readonly id: string; readonly title: string }[]> {
  const { rows } = await tx.query<{ id: string; title: string }>(
    `SELECT p.id, p.title FROM pieces mine JOIN pieces p ON lower(p.title) = lower(mine.title) AND p.id <> mine.id
     JOIN score_versions v ON v.studio_id = p.studio_id AND v.piece_id = p.id AND v.number = p.current_version
     WHERE mine.id = $1 AND p.removed_at IS NULL AND sha256(v.source) <> sha256($2)
     ORDER BY p.created_at LIMIT 3`,
    [pieceId, Buffer.from(source)],
  );
  return rows;
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function insertPiece(
  tx: Transaction,
  piece: {
    readonly studioId: string;
    readonly userId: string;
    readonly title: string;
    readonly summary: PieceSummary;
  },
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    'INSERT INTO pieces (studio_id, title, summary, created_by) VALUES ($1, $2, $3, $4) RETURNING id',
    [piece.studioId, piece.title, pieceSummarySchema.parse(piece.summary), piece.userId],
  );
  return rows[0]!.id;
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function insertEdition(tx: Transaction, studioId: string, pieceId: string): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    'INSERT INTO editions (studio_id, piece_id) VALUES ($1, $2) RETURNING id',
    [studioId, pieceId],
  );
  return rows[0]!.id;
}

/**
 * Moves a piece from one version to the next; false when somebody else has done so meanwhile.
 * @throws DatabaseError when the statement fails: the transaction is undone
 */
export async function moveToVersion(
  tx: Transaction,
  pieceId: string,
  from: number,
  to: number,
  summary: PieceSummary,
): Promise<boolean> {
  const { rowCount } = await tx.query(
    'UPDATE pieces SET current_version = $3, summary = $4 WHERE id = $1 AND current_version = $2',
    [pieceId, from, to, pieceSummarySchema.parse(summary)],
  );
  return rowCount === 1;
}
