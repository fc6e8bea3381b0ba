import { json } from '@sveltejs/kit';
import { maybeId, maybeSentFile, noFile, refused } from '$lib/server/requests';
import { takeOverMarks } from '$lib/server/useCases/editionFiles';
import type { RequestHandler } from './$types';

/** Marks of another edition of the same piece, put on the notes that are the same music. */
export const POST: RequestHandler = async ({ request, locals, params }) => {
  const id = maybeId(params.editionId);
  if (!id) return refused({ code: 'unknownPiece' });
  const file = await maybeSentFile(request);
  if (!file) return noFile();
  const result = await takeOverMarks(locals.visitor!, id, file.bytes);
  return result.ok ? json(result.value, { status: 201 }) : refused(result.error);
};
