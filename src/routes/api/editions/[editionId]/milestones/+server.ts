import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { maybeId } from '$lib/server/requests';
import { maybeListPast, maybeNameState } from '$lib/server/useCases/milestones';
import type { RequestHandler } from './$types';

const wanted = z.strictObject({ name: z.string().trim().min(1).max(60) });
const NOT_THERE = 'This edition is not on your shelf.';

export const GET: RequestHandler = async ({ locals, params }) => {
  const id = maybeId(params.editionId);
  const past = id ? await maybeListPast(locals.visitor!, id) : null;
  if (!past) error(404, NOT_THERE);
  return json(past, { headers: { 'cache-control': 'no-store' } });
};

export const POST: RequestHandler = async ({ locals, params, request }) => {
  const id = maybeId(params.editionId);
  const body = wanted.safeParse(await request.json().catch(() => null));
  if (!body.success) return json({ message: 'Give the state a name of up to 60 letters.' }, { status: 400 });
  const made = id ? await maybeNameState(locals.visitor!, id, body.data.name) : null;
  if (!made) error(404, NOT_THERE);
  return json({ id: made }, { status: 201 });
};
