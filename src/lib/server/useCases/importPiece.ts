/** A file becomes a piece on the shelf, or one clear error and nothing. */
import type { ImportError } from '../../../core/formats/importError';
import { readMusicXmlText } from '../../../core/formats/musicxml/bytes';
import { readScore } from '../../../core/formats/musicxml/readScore';
import { ok, type Result } from '../../../core/result';
import { summaryOf } from '../../pieceSummary';
import { withTransaction } from '../db';
import { insertEdition, insertPiece } from '../repositories/pieces';

export interface ImportedFile {
  readonly fileName: string;
  readonly bytes: Uint8Array;
}

/** Stores the bytes unchanged. Returns the new piece's id. */
export async function importPiece(
  owner: { readonly studioId: string; readonly userId: string },
  file: ImportedFile,
): Promise<Result<string, ImportError>> {
  const text = readMusicXmlText(file.bytes);
  if (!text.ok) return text;
  const document = readScore(text.value.text);
  if (!document.ok) return document;
  const { score } = document.value;
  const id = await withTransaction(owner.studioId, async (tx) => {
    const pieceId = await insertPiece(tx, {
      ...owner,
      title: score.title || titleFromFileName(file.fileName),
      fileName: file.fileName,
      source: file.bytes,
      summary: summaryOf(score),
    });
    await insertEdition(tx, owner.studioId, pieceId);
    return pieceId;
  });
  return ok(id);
}

const titleFromFileName = (name: string) =>
  name
    .replace(/\.[^.]*$/, '')
    .replace(/[-_]+/g, ' ')
    .trim() || 'Untitled';
