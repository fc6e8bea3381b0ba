import { error } from '@sveltejs/kit';
import { z } from 'zod';
import { withTransaction } from '$lib/server/db';
import { maybeReadSource } from '$lib/server/repositories/pieces';
import type { RequestHandler } from './$types';

/** The bytes as they were imported. They never change, so the browser may keep them. */
export const GET: RequestHandler = async ({ locals, params }) => {
  const id = z.uuid().safeParse(params.pieceId);
  const source = id.success
    ? await withTransaction(locals.visitor!.studioId, (tx) => maybeReadSource(tx, id.data))
    : null;
  if (!source) error(404, 'This piece is not on your shelf.');
  return new Response(new Uint8Array(source), {
    headers: {
      'content-type': 'application/octet-stream',
      'cache-control': 'private, max-age=31536000, immutable',
    },
  });
};
