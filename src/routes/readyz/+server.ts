/** Whether it can work: the database answers. */
import { text } from '@sveltejs/kit';
import { beforeStudio } from '$lib/server/db';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async () => {
  const answers = await beforeStudio('SELECT 1', []).then(
    () => true,
    () => false,
  );
  return answers ? text('ready') : text('the database does not answer', { status: 503 });
};
