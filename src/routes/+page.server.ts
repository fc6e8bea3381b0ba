import { redirect } from '@sveltejs/kit';
import { DEMO_ACCOUNT } from '$lib/demoAccount';
import { signIn } from '$lib/server/auth';
import { config } from '$lib/server/config';
import { setSessionCookie } from '$lib/server/cookies';
import type { PageServerLoad } from './$types';

/** In demo mode the first visit opens the demo studio at once. */
export const load: PageServerLoad = async ({ locals, cookies, url }) => {
  if (!locals.visitor && config().demo) {
    const token = await signIn(DEMO_ACCOUNT.email, DEMO_ACCOUNT.password);
    if (!token) redirect(303, '/sign-in');
    setSessionCookie(cookies, token, url.protocol === 'https:');
    redirect(303, '/shelf');
  }
  redirect(303, locals.visitor ? '/shelf' : '/sign-in');
};
