import { withTransaction } from '$lib/server/db';
import { listPieces } from '$lib/server/repositories/pieces';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => {
  const visitor = locals.visitor!;
  return {
    visitor: { studioName: visitor.studioName, displayName: visitor.displayName },
    pieces: await withTransaction(visitor.studioId, listPieces),
  };
};
