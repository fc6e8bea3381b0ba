import { json } from '@sveltejs/kit';
import { routineSchema } from '../../../core/drills/routine';
import { withTransaction } from '$lib/server/db';
import { insertRoutine } from '$lib/server/repositories/routines';
import { routineProblem } from '$lib/server/requests';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ locals, request }) => {
  const routine = routineSchema.safeParse(await request.json().catch(() => null));
  if (!routine.success) return routineProblem(routine.error);
  const { studioId } = locals.visitor!;
  const id = await withTransaction(studioId, (tx) => insertRoutine(tx, studioId, routine.data));
  return json({ id }, { status: 201 });
};
