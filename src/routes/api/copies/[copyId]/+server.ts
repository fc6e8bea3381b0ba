import { error } from '@sveltejs/kit';
import { fileAnswer, maybeId } from '$lib/server/requests';
import { maybeHandedOut } from '$lib/server/useCases/copies';
import type { RequestHandler } from './$types';

/** A copy as it was handed out, byte for byte. */
export const GET: RequestHandler = async ({ locals, params }) => {
  const id = maybeId(params.copyId);
  const copy = id ? await maybeHandedOut(locals.visitor!, id) : null;
  if (!copy) error(404, 'There is no such copy on your shelf.');
  return fileAnswer(copy.content, copy.fileName, copy.type);
};
