import { error } from '@sveltejs/kit';
import { z } from 'zod';
import { withTransaction } from '$lib/server/db';
import { maybeReadPlan } from '$lib/server/repositories/prepared';
import { maybeId, packedForEver } from '$lib/server/requests';
import type { RequestHandler } from './$types';

const query = z.object({ key: z.string().min(1).max(200), seq: z.coerce.number().int().min(0) });

/** The stored plan of an edition at one operation (`?seq=`), of one kind (`?key=`). */
export const GET: RequestHandler = async ({ locals, params, url }) => {
  const edition = maybeId(params.editionId);
  const version = maybeId(params.versionId);
  const wanted = query.safeParse(Object.fromEntries(url.searchParams));
  const plan =
    edition && version && wanted.success
      ? await withTransaction(locals.visitor!.studioId, (tx) =>
          maybeReadPlan(tx, edition, version, wanted.data.key, wanted.data.seq),
        )
      : null;
  if (!plan) error(404, 'There is no such plan on your shelf.');
  return packedForEver(plan, 'application/json');
};
