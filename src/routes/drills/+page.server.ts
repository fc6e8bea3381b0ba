import { maybeId } from '$lib/server/requests';
import { withTransaction } from '$lib/server/db';
import { listRoutines } from '$lib/server/repositories/routines';
import { drillNeeds } from '$lib/server/useCases/drillNeeds';
import { maybeOpenPiece } from '$lib/server/useCases/openPiece';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals, url }) => {
  const { studioId } = locals.visitor!;
  const id = maybeId(url.searchParams.get('piece') ?? undefined);
  return {
    /** The piece that drills are cut from; a piece that is not there is no reason to show nothing. */
    opened: id ? await maybeOpenPiece(studioId, id) : null,
    needs: await drillNeeds(studioId),
    routines: await withTransaction(studioId, listRoutines),
  };
};
