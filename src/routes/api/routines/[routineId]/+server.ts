import { error, json } from '@sveltejs/kit';
import { routineSchema } from '../../../../core/drills/routine';
import { withTransaction } from '$lib/server/db';
import { deleteRoutine, updateRoutine } from '$lib/server/repositories/routines';
import { maybeId, routineProblem } from '$lib/server/requests';
import type { RequestHandler } from './$types';

const NOT_THERE = 'There is no such routine in your studio.';

export const PUT: RequestHandler = async ({ locals, params, request }) => {
  const id = maybeId(params.routineId);
  if (!id) error(404, NOT_THERE);
  const routine = routineSchema.safeParse(await request.json().catch(() => null));
  if (!routine.success) return routineProblem(routine.error);
  const changed = await withTransaction(locals.visitor!.studioId, (tx) =>
    updateRoutine(tx, id, routine.data),
  );
  if (!changed) error(404, NOT_THERE);
  return json({ id });
};

export const DELETE: RequestHandler = async ({ locals, params }) => {
  const id = maybeId(params.routineId);
  const gone =
    id !== null && (await withTransaction(locals.visitor!.studioId, (tx) => deleteRoutine(tx, id)));
  if (!gone) error(404, NOT_THERE);
  return new Response(null, { status: 204 });
};
