import { error } from '@sveltejs/kit';
import { z } from 'zod';
import { withTransaction } from '$lib/server/db';
import { listGesturesAfter } from '$lib/server/repositories/gestures';
import { maybeFindPiece } from '$lib/server/repositories/pieces';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals, params }) => {
  const visitor = locals.visitor!;
  const id = z.uuid().safeParse(params.pieceId);
  const found = id.success
    ? await withTransaction(visitor.studioId, async (tx) => {
        const piece = await maybeFindPiece(tx, id.data);
        return piece && { piece, history: await listGesturesAfter(tx, piece.editionId, 0) };
      })
    : null;
  if (!found) error(404, 'This piece is not on your shelf.');
  return {
    visitor: { studioName: visitor.studioName, displayName: visitor.displayName },
    piece: found.piece,
    history: found.history.map((stored) => stored.gesture),
    headSeq: found.history.at(-1)?.seq ?? 0,
  };
};
