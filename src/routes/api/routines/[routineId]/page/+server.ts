import { error } from '@sveltejs/kit';
import { withTransaction } from '$lib/server/db';
import { quickPool } from '$lib/server/jobs/pool';
import { maybeFindRoutine } from '$lib/server/repositories/routines';
import { fileAnswer, maybeId } from '$lib/server/requests';
import type { RequestHandler } from './$types';

/** The routine as one page to print. */
export const GET: RequestHandler = async ({ locals, params }) => {
  const id = maybeId(params.routineId);
  const { studioId } = locals.visitor!;
  const routine = id && (await withTransaction(studioId, (tx) => maybeFindRoutine(tx, id)));
  if (!routine) error(404, 'There is no such routine in your studio.');
  const { title, items } = routine;
  const { content } = await quickPool.run(studioId, 'routine', {
    routine: { title, items },
    date: new Date(),
  });
  return fileAnswer(content, `${title}.pdf`, 'application/pdf');
};
