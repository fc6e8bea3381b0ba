import { error } from '@sveltejs/kit';
import { maybeId } from '$lib/server/requests';
import { maybeOpenPiece } from '$lib/server/useCases/openPiece';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals, params }) => {
  const visitor = locals.visitor!;
  const id = maybeId(params.pieceId);
  const opened = id ? await maybeOpenPiece(visitor.studioId, id) : null;
  if (!opened) error(404, 'This piece is not on your shelf.');
  return { visitor: { studioName: visitor.studioName, displayName: visitor.displayName }, opened };
};
