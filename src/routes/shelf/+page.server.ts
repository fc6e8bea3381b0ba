import { withTransaction } from '$lib/server/db';
import { listPieces, listRemoved } from '$lib/server/repositories/pieces';
import { prepareLater } from '$lib/server/useCases/prepare';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => {
  const visitor = locals.visitor!;
  const { pieces, removed } = await withTransaction(visitor.studioId, async (tx) => ({
    pieces: await listPieces(tx),
    removed: await listRemoved(tx),
  }));
  for (const piece of pieces) if (!piece.pageReady || !piece.plan) prepareLater(visitor.studioId, piece);
  return { visitor: { studioName: visitor.studioName, displayName: visitor.displayName }, pieces, removed };
};
