/** Who is asking: every request but the sign-in needs a visitor. */
import { type Handle, type HandleServerError, json, redirect, type ServerInit } from '@sveltejs/kit';
import { SESSION_COOKIE, visitorOf } from '$lib/server/auth';
import { closePool } from '$lib/server/db';
import { pagePool, planPool, quickPool } from '$lib/server/jobs/pool';
import { JobRunner } from '$lib/server/jobs/queue';
import { closeLive } from '$lib/server/live';
import { log } from '$lib/server/log';
import { PREPARATIONS } from '$lib/server/useCases/prepare';

const jobs = new JobRunner(PREPARATIONS);
export const init: ServerInit = () => jobs.start();

// The server stops when nothing holds it any more: threads and database connections do.
process.on('sveltekit:shutdown', () => {
  for (const threads of [quickPool, pagePool, planPool]) threads.close();
  void jobs.close();
  void closeLive();
  void closePool();
});

// A promise that some package forgot is no reason to end what others are working with.
process.on('unhandledRejection', (reason) => log.error({ err: reason }, 'a failure that nobody waited for'));

// Whoever started it was killed: nobody would ever stop it.
if (process.send) process.once('disconnect', () => process.kill(process.pid, 'SIGTERM'));

const OPEN_PATHS = new Set(['/', '/sign-in', '/healthz', '/readyz']);
/** Names of one machine for itself: whoever comes by another than the server's own is sent to that. */
const LOOPBACK = new Set(['localhost', '127.0.0.1', '[::1]']);
const SAFE_METHODS = new Set(['GET', 'HEAD', 'OPTIONS']);

/** A write from a page of somebody else. Programs that send no origin are no browsers that could be led astray. */
const isForeign = (request: Request, url: URL) => {
  const origin = request.headers.get('origin');
  return !SAFE_METHODS.has(request.method) && origin !== null && origin !== url.origin;
};

/** Where a visitor at another name of this machine should be; null where the name is right. */
function maybeOwnName({ request, url }: { readonly request: Request; readonly url: URL }): string | null {
  const host = request.headers.get('host');
  if (!host || host === url.host || request.method !== 'GET') return null;
  const name = host.replace(/:\d+$/, '');
  return LOOPBACK.has(name) && LOOPBACK.has(url.hostname) ? url.href : null;
}

export const handle: Handle = async ({ event, resolve }) => {
  const ownName = maybeOwnName(event);
  if (ownName) redirect(307, ownName);
  if (isForeign(event.request, event.url))
    return json({ message: 'This came from another site; nothing was changed.' }, { status: 403 });
  const token = event.cookies.get(SESSION_COOKIE);
  event.locals.visitor = token ? await visitorOf(token) : null;
  if (!event.locals.visitor && !OPEN_PATHS.has(event.url.pathname)) {
    if (event.url.pathname.startsWith('/api/')) return json({ message: 'Sign in first.' }, { status: 401 });
    const { pathname, search } = event.url;
    redirect(
      303,
      pathname === '/shelf' ? '/sign-in' : `/sign-in?to=${encodeURIComponent(pathname + search)}`,
    );
  }
  const response = await resolve(event);
  // What a signed-in teacher sees must not lie in a cache for whoever sits down next.
  if (!response.headers.has('cache-control')) response.headers.set('cache-control', 'no-store');
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
