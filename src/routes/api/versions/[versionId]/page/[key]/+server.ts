import { error } from '@sveltejs/kit';
import { withTransaction } from '$lib/server/db';
import { maybeReadPage } from '$lib/server/repositories/prepared';
import { maybeId, packedForEver } from '$lib/server/requests';
import type { RequestHandler } from './$types';

/** The engraved page under the corrections that the key names, with the score as it was read. */
export const GET: RequestHandler = async ({ locals, params }) => {
  const id = maybeId(params.versionId);
  const page = id
    ? await withTransaction(locals.visitor!.studioId, (tx) => maybeReadPage(tx, id, params.key))
    : null;
  if (!page) error(404, 'This page is not on your shelf.');
  return packedForEver(page, 'application/json');
};
