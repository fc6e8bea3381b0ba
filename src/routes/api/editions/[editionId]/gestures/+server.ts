import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { appendRequestSchema } from '$lib/appendProtocol';
import { appendGestures } from '$lib/server/useCases/appendGestures';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ request, locals, params }) => {
  const id = z.uuid().safeParse(params.editionId);
  const body = appendRequestSchema.safeParse(await request.json().catch(() => null));
  if (!id.success || !body.success) {
    return json(
      { message: 'The marks could not be read; nothing was saved. Reload the page.' },
      { status: 400 },
    );
  }
  const answer = await appendGestures(locals.visitor!, id.data, body.data.seenSeq, body.data.gestures);
  if (answer.kind === 'unknownEdition')
    return json({ message: 'This piece is not on your shelf.' }, { status: 404 });
  return json(answer, { status: answer.kind === 'saved' ? 200 : 409 });
};
