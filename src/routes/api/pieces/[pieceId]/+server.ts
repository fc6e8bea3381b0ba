import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { withTransaction } from '$lib/server/db';
import { updatePiece } from '$lib/server/repositories/pieces';
import { maybeId } from '$lib/server/requests';
import type { RequestHandler } from './$types';

const changes = z.strictObject({
  title: z.string().trim().min(1).max(200).optional(),
  composer: z.string().trim().max(120).nullable().optional(),
  tags: z.array(z.string().trim().min(1).max(30)).max(12).optional(),
  removed: z.boolean().optional(),
});

/** Title, composer, tags, or whether it stands on the shelf: what is named is changed. */
export const PATCH: RequestHandler = async ({ locals, params, request }) => {
  const id = maybeId(params.pieceId);
  const wanted = changes.safeParse(await request.json().catch(() => null));
  if (!wanted.success)
    return json(
      { message: 'A piece needs a title of up to 200 letters; up to 12 tags of up to 30 letters each.' },
      { status: 400 },
    );
  const changed =
    id !== null &&
    (await withTransaction(locals.visitor!.studioId, (tx) => updatePiece(tx, id, wanted.data)));
  if (!changed) error(404, 'This piece is not on your shelf.');
  return json({ id });
};
