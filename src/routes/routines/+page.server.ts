import { withTransaction } from '$lib/server/db';
import { listRoutines } from '$lib/server/repositories/routines';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => ({
  routines: await withTransaction(locals.visitor!.studioId, listRoutines),
});
