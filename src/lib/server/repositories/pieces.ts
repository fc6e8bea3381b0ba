/** Pieces with the bytes they came as. */
import { z } from 'zod';
import { pieceSummarySchema, type PieceSummary } from '../../pieceSummary';
import type { Transaction } from '../db';

const pieceRow = z.object({
  id: z.uuid(),
  title: z.string(),
  file_name: z.string(),
  summary: pieceSummarySchema,
  edition_id: z.uuid(),
  inked: z.coerce.number().int(),
  created_at: z.date(),
});

export interface Piece {
  readonly id: string;
  readonly title: string;
  readonly fileName: string;
  readonly summary: PieceSummary;
  /** The general edition. */
  readonly editionId: string;
  /** How many gestures the edition has. */
  readonly gestures: number;
  readonly createdAt: string;
}

const COLUMNS = `p.id, p.title, p.file_name, p.summary, p.created_at, e.id AS edition_id, e.head_seq AS inked
  FROM pieces p JOIN editions e ON e.studio_id = p.studio_id AND e.piece_id = p.id`;

const toPiece = (raw: unknown): Piece => {
  const row = pieceRow.parse(raw);
  return {
    id: row.id,
    title: row.title,
    fileName: row.file_name,
    summary: row.summary,
    editionId: row.edition_id,
    gestures: row.inked,
    createdAt: row.created_at.toISOString(),
  };
};

export async function listPieces(tx: Transaction): Promise<readonly Piece[]> {
  const { rows } = await tx.query(`SELECT ${COLUMNS} ORDER BY p.created_at DESC, p.title`);
  return rows.map(toPiece);
}

export async function maybeFindPiece(tx: Transaction, pieceId: string): Promise<Piece | null> {
  const { rows } = await tx.query(`SELECT ${COLUMNS} WHERE p.id = $1`, [pieceId]);
  return rows[0] ? toPiece(rows[0]) : null;
}

export async function maybeReadSource(tx: Transaction, pieceId: string): Promise<Buffer | null> {
  const { rows } = await tx.query<{ source: Buffer }>('SELECT source FROM pieces WHERE id = $1', [pieceId]);
  return rows[0]?.source ?? null;
}

export async function insertPiece(
  tx: Transaction,
  piece: {
    studioId: string;
    userId: string;
    title: string;
    fileName: string;
    source: Uint8Array;
    summary: PieceSummary;
  },
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `INSERT INTO pieces (studio_id, title, file_name, source, summary, created_by)
     VALUES ($1, $2, $3, $4, $5, $6) RETURNING id`,
    [piece.studioId, piece.title, piece.fileName, Buffer.from(piece.source), piece.summary, piece.userId],
  );
  return rows[0]!.id;
}

export async function insertEdition(tx: Transaction, studioId: string, pieceId: string): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    'INSERT INTO editions (studio_id, piece_id) VALUES ($1, $2) RETURNING id',
    [studioId, pieceId],
  );
  return rows[0]!.id;
}
