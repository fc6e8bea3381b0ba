import { error } from '@sveltejs/kit';
import { withTransaction } from '$lib/server/db';
import { maybeReadDocument, maybeReadSource } from '$lib/server/repositories/versions';
import { maybeId } from '$lib/server/requests';
import type { RequestHandler } from './$types';

/** The MusicXML of a version, or with `?as=imported` the file as it came. They never change. */
export const GET: RequestHandler = async ({ locals, params, url }) => {
  const id = maybeId(params.versionId);
  const read = url.searchParams.get('as') === 'imported' ? maybeReadSource : maybeReadDocument;
  const bytes = id ? await withTransaction(locals.visitor!.studioId, (tx) => read(tx, id)) : null;
  if (!bytes) error(404, 'This score is not on your shelf.');
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'application/octet-stream',
      'cache-control': 'private, max-age=31536000, immutable',
    },
  });
};
