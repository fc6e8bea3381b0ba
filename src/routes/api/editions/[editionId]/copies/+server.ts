import { error, json } from '@sveltejs/kit';
import { maybeId } from '$lib/server/requests';
import { copyRequest, maybeHandOut, maybeListHandedOut } from '$lib/server/useCases/copies';
import type { RequestHandler } from './$types';

/** What has been handed out of an edition, the newest first. */
export const GET: RequestHandler = async ({ locals, params }) => {
  const id = maybeId(params.editionId);
  const copies = id ? await maybeListHandedOut(locals.visitor!, id) : null;
  if (!copies) error(404, 'This edition is not on your shelf.');
  return json(copies, { headers: { 'cache-control': 'no-store' } });
};

/** Hands out a copy: it is made, kept and named. */
export const POST: RequestHandler = async ({ locals, params, request }) => {
  const id = maybeId(params.editionId);
  const wanted = copyRequest.safeParse(await request.json().catch(() => null));
  if (!wanted.success)
    return json({ message: 'Say how the copy is to look: paper, staff, density, include.' }, { status: 400 });
  const copyId = id ? await maybeHandOut(locals.visitor!, id, wanted.data) : null;
  if (!copyId) error(404, 'This edition is not on your shelf.');
  return json({ id: copyId }, { status: 201 });
};
