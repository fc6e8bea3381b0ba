import { redirect } from '@sveltejs/kit';
import { SESSION_COOKIE, signOut } from '$lib/server/auth';
import { clearSessionCookie } from '$lib/server/cookies';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = () => redirect(303, '/shelf');

export const actions: Actions = {
  default: async ({ locals, cookies }) => {
    const token = cookies.get(SESSION_COOKIE);
    if (locals.visitor && token) await signOut(locals.visitor, token);
    clearSessionCookie(cookies);
    redirect(303, '/sign-in');
  },
};
