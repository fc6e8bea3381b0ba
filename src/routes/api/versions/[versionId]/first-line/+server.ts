import { error } from '@sveltejs/kit';
import { withTransaction } from '$lib/server/db';
import { maybeReadFirstLine } from '$lib/server/repositories/prepared';
import { maybeId } from '$lib/server/requests';
import type { RequestHandler } from './$types';

/** A small picture for the shelf: the first line of the score. */
export const GET: RequestHandler = async ({ locals, params }) => {
  const id = maybeId(params.versionId);
  const picture = id
    ? await withTransaction(locals.visitor!.studioId, (tx) => maybeReadFirstLine(tx, id))
    : null;
  if (!picture) error(404, 'There is no picture of this score.');
  return new Response(picture, {
    headers: {
      'content-type': 'image/svg+xml',
      'cache-control': 'private, max-age=3600',
      // Opened by itself it is a document: it draws, and does nothing else.
      'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; font-src data:",
    },
  });
};
