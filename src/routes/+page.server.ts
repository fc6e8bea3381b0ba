import { redirect } from '@sveltejs/kit';
import { config } from '$lib/server/config';
import { setSessionCookie } from '$lib/server/cookies';
import { maybeDemoToken } from '$lib/server/demoVisit';
import type { PageServerLoad } from './$types';

/** In demo mode the first visit opens the demo studio at once. */
export const load: PageServerLoad = async ({ locals, cookies, url, getClientAddress }) => {
  if (!locals.visitor && config().demo) {
    const token = await maybeDemoToken(getClientAddress());
    if (!token) redirect(303, '/sign-in');
    setSessionCookie(cookies, token, url.protocol === 'https:');
    redirect(303, '/shelf');
  }
  redirect(303, locals.visitor ? '/shelf' : '/sign-in');
};
