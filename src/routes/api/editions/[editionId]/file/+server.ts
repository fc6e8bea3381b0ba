import { error, json } from '@sveltejs/kit';
import { maybeId } from '$lib/server/requests';
import { maybeExportEdition } from '$lib/server/useCases/editionFiles';
import type { RequestHandler } from './$types';

/** The edition in Oculon's open format. */
export const GET: RequestHandler = async ({ locals, params }) => {
  const id = maybeId(params.editionId);
  const edition = id ? await maybeExportEdition(locals.visitor!, id) : null;
  if (!edition) error(404, 'This edition is not on your shelf.');
  return json(edition, { headers: { 'cache-control': 'no-store' } });
};
