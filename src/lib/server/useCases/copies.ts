/** Copies of an edition: saved as it stands, handed out with a note of what it was, printed again as it was. */
import { z } from 'zod';
import { densityOfCopy } from '../../../core/copy/copySource';
import { copyFileName, imprintOf } from '../../../core/copy/fileName';
import { FORMAT_IDS, FORMATS } from '../../../core/copy/formats';
import { copyOptionsSchema } from '../../../core/copy/paper';
import { withTransaction } from '../db';
import { quickPool } from '../jobs/pool';
import { type HandedOut, insertCopy, listCopies, maybeReadCopy } from '../repositories/copies';
import { readEdition } from '../repositories/gestures';
import { maybeFindPieceOfEdition } from '../repositories/pieces';
import { maybeFindVersion, maybeReadDocument } from '../repositories/versions';
import type { Owner } from './importPiece';
import { convertedFromOf } from './prepare';

export const copyRequest = z.object({
  options: copyOptionsSchema,
  countedBars: z.string().max(200),
  format: z.enum(FORMAT_IDS).default('pdf'),
  /** Of a picture: printed numbers, “3-6”. */
  bars: z.string().max(200).default(''),
  forWhom: z.string().trim().max(80).default(''),
});
export type CopyRequest = z.infer<typeof copyRequest>;

export interface CopyFile {
  readonly content: Uint8Array;
  readonly fileName: string;
  readonly type: string;
}

/**
 * The edition as it stands; null when this studio has none such.
 * @throws DatabaseError when the database fails, Error when the thread does
 */
export const maybePrintCopy = (
  owner: Owner,
  editionId: string,
  wanted: CopyRequest,
): Promise<CopyFile | null> => maybeMake(owner, editionId, wanted);

/**
 * The same as PDF, kept with its version for whoever gets it. Null when this studio has no such edition.
 * @throws DatabaseError when the database fails: nothing is kept then
 */
export async function maybeHandOut(
  owner: Owner,
  editionId: string,
  wanted: CopyRequest,
): Promise<string | null> {
  const made = await maybeMake(owner, editionId, { ...wanted, format: 'pdf' });
  if (!made) return null;
  const { forWhom, options } = wanted;
  return withTransaction(owner.studioId, (tx) =>
    insertCopy(tx, { ...owner, ...made, editionId, pdf: made.content, forWhom, options }),
  );
}

/**
 * What has been handed out, the newest first; null when this studio has no such edition.
 * @throws DatabaseError when the database fails
 */
export const maybeListHandedOut = (owner: Owner, editionId: string): Promise<readonly HandedOut[] | null> =>
  withTransaction(owner.studioId, async (tx) =>
    (await maybeFindPieceOfEdition(tx, editionId)) ? listCopies(tx, editionId) : null,
  );

/** The file as it was handed out. */
export async function maybeHandedOut(owner: Owner, copyId: string): Promise<CopyFile | null> {
  const copy = await withTransaction(owner.studioId, (tx) => maybeReadCopy(tx, copyId));
  return copy && { content: copy.pdf, fileName: copy.fileName, type: FORMATS.pdf.type };
}

async function maybeMake(owner: Owner, editionId: string, wanted: CopyRequest) {
  const found = await withTransaction(owner.studioId, async (tx) => {
    const piece = await maybeFindPieceOfEdition(tx, editionId);
    const version = piece && (await maybeFindVersion(tx, piece.versionId));
    const bytes = version && (await maybeReadDocument(tx, version.id));
    return piece && version && bytes
      ? { piece, version, bytes, ...(await readEdition(tx, editionId)) }
      : null;
  });
  if (!found) return null;
  const { piece, version, bytes, registers, headSeq } = found;
  const { options, countedBars, format, bars } = wanted;
  const date = new Date();
  const { content, marks } = await quickPool.run(owner.studioId, 'copy', {
    input: {
      bytes,
      partIndex: version.partIndex,
      uids: version.uids,
      convertedFrom: convertedFromOf(version),
      registers: [...registers],
    },
    options,
    countedBars,
    format,
    bars,
    title: piece.title,
    imprint: imprintOf(date, headSeq),
    date,
  });
  const { extension, type } = FORMATS[format];
  const fileName = copyFileName(piece.title, densityOfCopy(registers, options), date, extension);
  return { content, type, marks, seq: headSeq, fileName };
}
