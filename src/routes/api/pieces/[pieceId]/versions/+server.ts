import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { withTransaction } from '$lib/server/db';
import { maybeFindPiece } from '$lib/server/repositories/pieces';
import { maybeId, maybeSentFile, noFile, refused } from '$lib/server/requests';
import { importVersion } from '$lib/server/useCases/importVersion';
import { prepareBeginning, prepareLater } from '$lib/server/useCases/prepare';
import { leaveVersion } from '$lib/server/useCases/leaveVersion';
import type { RequestHandler } from './$types';

/** A newer file of the piece: 201 with the report of what was carried over, or the sentence that says why not. */
export const POST: RequestHandler = async ({ request, locals, params }) => {
  const owner = locals.visitor!;
  const pieceId = maybeId(params.pieceId);
  if (!pieceId) return refused({ code: 'unknownPiece' });
  const known = await withTransaction(owner.studioId, (tx) => maybeFindPiece(tx, pieceId));
  if (!known) return refused({ code: 'unknownPiece' });
  const file = await maybeSentFile(request);
  if (!file) return noFile();
  const result = await importVersion(owner, pieceId, file);
  if (!result.ok) return refused(result.error);
  const piece = await withTransaction(owner.studioId, (tx) => maybeFindPiece(tx, pieceId));
  if (piece) {
    await prepareBeginning(owner.studioId, piece);
    prepareLater(owner.studioId, piece);
  }
  return json(result.value, { status: 201 });
};

/** `?number=` is the current version: back to the one before it, with all marks as they were. */
export const DELETE: RequestHandler = async ({ locals, params, url }) => {
  const owner = locals.visitor!;
  const pieceId = maybeId(params.pieceId);
  const number = z.coerce.number().int().min(2).max(100_000).safeParse(url.searchParams.get('number'));
  if (!pieceId || !number.success) return refused({ code: 'unknownPiece' });
  const result = await leaveVersion(owner, pieceId, number.data);
  if (!result.ok) return refused(result.error);
  const piece = await withTransaction(owner.studioId, (tx) => maybeFindPiece(tx, pieceId));
  if (piece) prepareLater(owner.studioId, piece);
  return json(result.value);
};
