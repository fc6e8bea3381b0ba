import { json } from '@sveltejs/kit';
import { maybeSentFile, noFile, refused } from '$lib/server/requests';
import { importEdition } from '$lib/server/useCases/editionFiles';
import { importPiece } from '$lib/server/useCases/importPiece';
import { prepareBeginning, prepareLater } from '$lib/server/useCases/prepare';
import { withTransaction } from '$lib/server/db';
import { listSameFile, listSameTitle, maybeFindPiece } from '$lib/server/repositories/pieces';
import type { RequestHandler } from './$types';

const SCORE = /\.(musicxml|xml|mxl|mei|abc)$/i;
const EDITION = /\.json$/i;

/**
 * One file as form data, with `part` for another part than the guitar's: 201 with the piece's id, the parts of the score
 * and the pieces that have been made of the same file already or have its title, or 422 with the sentence that says what is wrong.
 */
export const POST: RequestHandler = async ({ request, locals }) => {
  const owner = locals.visitor!;
  const file = await maybeSentFile(request);
  if (!file) return noFile();
  const same = await withTransaction(owner.studioId, (tx) => listSameFile(tx, file.bytes));
  const isEdition = EDITION.test(file.fileName);
  if (!isEdition && !SCORE.test(file.fileName)) return refused({ code: 'unknownKind', name: file.fileName });
  const result = isEdition ? await importEdition(owner, file.bytes) : await importPiece(owner, file);
  if (!result.ok) return refused(result.error);
  const { pieceId, parts, partIndex } = result.value;
  const [piece, sameTitle] = await withTransaction(owner.studioId, async (tx) => [
    await maybeFindPiece(tx, pieceId),
    await listSameTitle(tx, pieceId, file.bytes),
  ]);
  if (piece) {
    await prepareBeginning(owner.studioId, piece);
    prepareLater(owner.studioId, piece);
  }
  const names = parts.map(({ index, name, pitchedNotes }) => ({ index, name, notes: pitchedNotes }));
  return json({ id: pieceId, parts: names, partIndex, same, sameTitle }, { status: 201 });
};
