import { error, json } from '@sveltejs/kit';
import { withTransaction } from '$lib/server/db';
import { markReportRead } from '$lib/server/repositories/versions';
import { maybeId } from '$lib/server/requests';
import type { RequestHandler } from './$types';

/** The report of a newer file has been read: it is put away. */
export const DELETE: RequestHandler = async ({ locals, params }) => {
  const id = maybeId(params.versionId);
  const done =
    id !== null && (await withTransaction(locals.visitor!.studioId, (tx) => markReportRead(tx, id)));
  if (!done) error(404, 'This score is not on your shelf.');
  return json({});
};
