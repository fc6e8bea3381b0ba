import { error, json } from '@sveltejs/kit';
import { fileAnswer, maybeId } from '$lib/server/requests';
import { copyRequest, maybePrintCopy } from '$lib/server/useCases/copies';
import type { RequestHandler } from './$types';

/** The edition as it stands, as PDF. */
export const POST: RequestHandler = async ({ locals, params, request }) => {
  const id = maybeId(params.editionId);
  const wanted = copyRequest.safeParse(await request.json().catch(() => null));
  if (!wanted.success)
    return json({ message: 'Say how the copy is to look: paper, staff, density, include.' }, { status: 400 });
  const copy = id ? await maybePrintCopy(locals.visitor!, id, wanted.data) : null;
  if (!copy) error(404, 'This edition is not on your shelf.');
  return fileAnswer(copy.content, copy.fileName, copy.type);
};
