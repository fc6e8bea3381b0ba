/** A file becomes a piece on the shelf, or one clear error and nothing. */
import type { ImportError } from '../../../core/formats/importError';
import type { PartInfo } from '../../../core/formats/musicxml/parts';
import { fail, ok, type Result } from '../../../core/result';
import type { ImportedScore } from '../../../foreign/importScore';
import { summaryOf } from '../../pieceSummary';
import { type Transaction, withTransaction } from '../db';
import { GivenUp } from '../jobs/givenUp';
import { quickPool } from '../jobs/pool';
import { insertEdition, insertPiece } from '../repositories/pieces';
import { insertVersion, type Version } from '../repositories/versions';

/** A file on which the thread gave up is refused, as any other that cannot be read. */
export const orTooLong = <T>(work: Promise<Result<T, ImportError>>): Promise<Result<T, ImportError>> =>
  work.catch((error: unknown) => {
    if (error instanceof GivenUp) return fail({ code: 'tookTooLong' });
    throw error;
  });

export interface Owner {
  readonly studioId: string;
  readonly userId: string;
}

export interface ImportedFile {
  readonly fileName: string;
  readonly bytes: Uint8Array;
  /** Which part of the score; null for the one that looks like a guitar. */
  readonly partIndex?: number | null;
}

export interface ImportedPiece {
  readonly pieceId: string;
  readonly editionId: string;
  readonly parts: readonly PartInfo[];
  readonly partIndex: number;
}

/**
 * Stores the bytes unchanged.
 * @throws DatabaseError when the database fails: nothing is changed then
 */
export async function importPiece(
  owner: Owner,
  file: ImportedFile,
): Promise<Result<ImportedPiece, ImportError>> {
  const imported = await orTooLong(
    quickPool.run(owner.studioId, 'import', { ...file, partIndex: file.partIndex ?? null }),
  );
  if (!imported.ok) return imported;
  const { parts, partIndex } = imported.value;
  const stored = await withTransaction(owner.studioId, (tx) =>
    storePiece(tx, owner, file, imported.value, null),
  );
  return ok({ ...stored, parts, partIndex });
}

/**
 * `title` where the file is not to say it.
 * @throws DatabaseError when the database fails: nothing is changed then
 */
export async function storePiece(
  tx: Transaction,
  owner: Owner,
  file: ImportedFile,
  imported: ImportedScore,
  known: { readonly title: string; readonly uids: Version['uids'] } | null,
): Promise<{ pieceId: string; editionId: string }> {
  const { read } = imported;
  const pieceId = await insertPiece(tx, {
    ...owner,
    title: known?.title || read.title || titleFromFileName(file.fileName),
    summary: summaryOf(read),
  });
  await insertVersion(tx, {
    ...owner,
    pieceId,
    number: 1,
    fileName: file.fileName,
    kind: imported.kind,
    source: file.bytes,
    document: imported.document,
    partIndex: imported.partIndex,
    uids: known?.uids ?? null,
    nextNote: 1 + highest(known?.uids?.notes, imported.noteheads),
    nextBar: 1 + highest(known?.uids?.bars, read.measures.length),
    report: null,
  });
  return { pieceId, editionId: await insertEdition(tx, owner.studioId, pieceId) };
}

const highest = (uids: readonly string[] | undefined, count: number) =>
  (uids ?? []).reduce((most, uid) => Math.max(most, Number(uid.slice(1))), count);

const titleFromFileName = (name: string) =>
  name
    .replace(/\.[^.]*$/, '')
    .replace(/[-_]+/g, ' ')
    .trim() || 'Untitled';
