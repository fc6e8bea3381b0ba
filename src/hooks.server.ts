/** Who is asking: every request but the sign-in needs a visitor. */
import { type Handle, type HandleServerError, json, redirect } from '@sveltejs/kit';
import { SESSION_COOKIE, visitorOf } from '$lib/server/auth';
import { closePool } from '$lib/server/db';
import { backgroundPool, quickPool } from '$lib/server/jobs/pool';
import { log } from '$lib/server/log';

// The server stops when nothing holds it any more: threads and database connections do.
process.on('sveltekit:shutdown', () => {
  quickPool.close();
  backgroundPool.close();
  void closePool();
});

const OPEN_PATHS = new Set(['/', '/sign-in']);

export const handle: Handle = async ({ event, resolve }) => {
  const token = event.cookies.get(SESSION_COOKIE);
  event.locals.visitor = token ? await visitorOf(token) : null;
  if (!event.locals.visitor && !OPEN_PATHS.has(event.url.pathname)) {
    if (event.url.pathname.startsWith('/api/')) return json({ message: 'Sign in first.' }, { status: 401 });
    redirect(303, '/sign-in');
  }
  const response = await resolve(event);
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'same-origin');
  return response;
};

export const handleError: HandleServerError = ({ error, event, status }) => {
  if (status !== 404) log.error({ err: error, path: event.url.pathname }, 'request failed');
  return {
    message:
      status === 404 ? 'There is nothing at this address.' : 'Something went wrong here; your work is kept.',
  };
};
