/** The files that a piece came as, each a version of its score. */
import { z } from 'zod';
import type { SourceKind } from '../../../foreign/readSource';
import { type VersionReport, versionReportSchema } from '../../versionReport';
import type { Transaction } from '../db';

const names = z.array(z.string()).nullable();
const versionRow = z.object({
  id: z.uuid(),
  piece_id: z.uuid(),
  number: z.int(),
  file_name: z.string(),
  kind: z.enum(['musicxml', 'abc', 'mei']),
  part_index: z.int(),
  note_uids: names,
  bar_uids: names,
  next_note: z.int(),
  next_bar: z.int(),
  report: versionReportSchema.nullable(),
  report_read: z.boolean(),
  created_at: z.date(),
});

export interface Version {
  readonly id: string;
  readonly pieceId: string;
  readonly number: number;
  readonly fileName: string;
  readonly kind: SourceKind;
  readonly partIndex: number;
  readonly uids: { readonly notes: readonly string[]; readonly bars: readonly string[] } | null;
  readonly nextNote: number;
  readonly nextBar: number;
  readonly report: VersionReport | null;
  /** The teacher has read the report. */
  readonly reportRead: boolean;
  readonly createdAt: string;
}

const COLUMNS = `v.id, v.piece_id, v.number, v.file_name, v.kind, v.part_index, v.note_uids, v.bar_uids,
  v.next_note, v.next_bar, v.report, v.report_read, v.created_at`;

function toVersion(raw: unknown): Version {
  const row = versionRow.parse(raw);
  return {
    id: row.id,
    pieceId: row.piece_id,
    number: row.number,
    fileName: row.file_name,
    kind: row.kind,
    partIndex: row.part_index,
    uids: row.note_uids && row.bar_uids ? { notes: row.note_uids, bars: row.bar_uids } : null,
    nextNote: row.next_note,
    nextBar: row.next_bar,
    report: row.report,
    reportRead: row.report_read,
    createdAt: row.created_at.toISOString(),
  };
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function maybeFindVersion(tx: Transaction, versionId: string): Promise<Version | null> {
  const { rows } = await tx.query(`SELECT ${COLUMNS} FROM score_versions v WHERE v.id = $1`, [versionId]);
  return rows[0] ? toVersion(rows[0]) : null;
}

/**
 * Null when the piece has no version of this number.
 * @throws DatabaseError when the statement fails: the transaction is undone
 */
export async function maybeFindVersionOfPiece(
  tx: Transaction,
  pieceId: string,
  number: number,
): Promise<Version | null> {
  const { rows } = await tx.query(
    `SELECT ${COLUMNS} FROM score_versions v WHERE v.piece_id = $1 AND v.number = $2`,
    [pieceId, number],
  );
  return rows[0] ? toVersion(rows[0]) : null;
}

const usedRow = z.object({ number: z.int(), next_note: z.int(), next_bar: z.int() });

/**
 * The highest number of any version of a piece, and the names that none of them has used.
 * @throws DatabaseError when the statement fails: the transaction is undone
 */
export async function findUsed(
  tx: Transaction,
  pieceId: string,
): Promise<{ readonly number: number; readonly nextNote: number; readonly nextBar: number }> {
  const { rows } = await tx.query(
    `SELECT max(number) AS number, max(next_note) AS next_note, max(next_bar) AS next_bar
     FROM score_versions WHERE piece_id = $1`,
    [pieceId],
  );
  const row = usedRow.parse(rows[0]);
  return { number: row.number, nextNote: row.next_note, nextBar: row.next_bar };
}

/**
 * False when this studio has no such version.
 * @throws DatabaseError when the statement fails: the transaction is undone
 */
export async function markReportRead(tx: Transaction, versionId: string): Promise<boolean> {
  const { rowCount } = await tx.query('UPDATE score_versions SET report_read = true WHERE id = $1', [
    versionId,
  ]);
  return rowCount === 1;
}

/**
 * What the desk reads: the MusicXML document.
 * @throws DatabaseError when the statement fails: the transaction is undone
 */
export async function maybeReadDocument(tx: Transaction, versionId: string): Promise<Buffer | null> {
  const { rows } = await tx.query<{ document: Buffer }>(
    'SELECT coalesce(document, source) AS document FROM score_versions WHERE id = $1',
    [versionId],
  );
  return rows[0]?.document ?? null;
}

/**
 * The file as it came.
 * @throws DatabaseError when the statement fails: the transaction is undone
 */
export async function maybeReadSource(tx: Transaction, versionId: string): Promise<Buffer | null> {
  const { rows } = await tx.query<{ source: Buffer }>('SELECT source FROM score_versions WHERE id = $1', [
    versionId,
  ]);
  return rows[0]?.source ?? null;
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function insertVersion(
  tx: Transaction,
  row: {
    readonly studioId: string;
    readonly userId: string;
    readonly pieceId: string;
    readonly number: number;
    readonly fileName: string;
    readonly kind: SourceKind;
    readonly source: Uint8Array;
    readonly document: Uint8Array | null;
    readonly partIndex: number;
    readonly uids: Version['uids'];
    readonly nextNote: number;
    readonly nextBar: number;
    readonly report: VersionReport | null;
  },
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `INSERT INTO score_versions (studio_id, piece_id, number, file_name, kind, source, document, part_index,
       note_uids, bar_uids, next_note, next_bar, report, created_by)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14) RETURNING id`,
    [
      row.studioId,
      row.pieceId,
      row.number,
      row.fileName,
      row.kind,
      Buffer.from(row.source),
      row.document && Buffer.from(row.document),
      row.partIndex,
      row.uids && JSON.stringify(row.uids.notes),
      row.uids && JSON.stringify(row.uids.bars),
      row.nextNote,
      row.nextBar,
      row.report,
      row.userId,
    ],
  );
  return rows[0]!.id;
}
