import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { maybeId } from '$lib/server/requests';
import { maybeRegistersAt } from '$lib/server/useCases/milestones';
import type { RequestHandler } from './$types';

/** What an edition was after one of its gestures: entries of its registers. */
export const GET: RequestHandler = async ({ locals, params, url }) => {
  const id = maybeId(params.editionId);
  const seq = z.coerce
    .number()
    .int()
    .min(0)
    .safeParse(url.searchParams.get('seq') ?? '0');
  if (!seq.success) return json({ message: 'Say which state: ?seq= and its number.' }, { status: 400 });
  const registers = id ? await maybeRegistersAt(locals.visitor!, id, seq.data) : null;
  if (!registers) error(404, 'This edition is not on your shelf.');
  return json([...registers], { headers: { 'cache-control': 'no-store' } });
};
