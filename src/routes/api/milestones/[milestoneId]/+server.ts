import { error } from '@sveltejs/kit';
import { withTransaction } from '$lib/server/db';
import { deleteMilestone } from '$lib/server/repositories/milestones';
import { maybeId } from '$lib/server/requests';
import type { RequestHandler } from './$types';

/** Takes a name away; the state itself stays in the history. */
export const DELETE: RequestHandler = async ({ locals, params }) => {
  const id = maybeId(params.milestoneId);
  const gone =
    id !== null && (await withTransaction(locals.visitor!.studioId, (tx) => deleteMilestone(tx, id)));
  if (!gone) error(404, 'There is no such name in your studio.');
  return new Response(null, { status: 204 });
};
