import { fail, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { DEMO_ACCOUNT } from '$lib/demoAccount';
import { signIn } from '$lib/server/auth';
import { config } from '$lib/server/config';
import { setSessionCookie } from '$lib/server/cookies';
import { hasAccounts } from '$lib/server/repositories/people';
import type { Actions, PageServerLoad } from './$types';

/** An address of this server, or the shelf: nobody is led to somewhere else. */
function wantedPlace(url: URL): string {
  const to = url.searchParams.get('to') ?? '';
  return /^\/(?![/\\])/.test(to) ? to : '/shelf';
}

export const load: PageServerLoad = async ({ locals, url }) => {
  if (locals.visitor) redirect(303, wantedPlace(url));
  return { demo: config().demo ? DEMO_ACCOUNT : null, isNew: !(await hasAccounts()) };
};

const credentials = z.object({
  email: z.string().trim().min(3).max(200),
  password: z.string().min(1).max(200),
});

const waitText = (seconds: number) => {
  const minutes = Math.ceil(seconds / 60);
  return `There were too many tries; try again in ${minutes === 1 ? 'a minute' : `${minutes} minutes`}.`;
};

export const actions: Actions = {
  default: async ({ request, cookies, url, getClientAddress }) => {
    const form = Object.fromEntries(await request.formData());
    const parsed = credentials.safeParse(form);
    const email = typeof form['email'] === 'string' ? form['email'] : '';
    if (!parsed.success) return fail(400, { email, message: 'Enter your e-mail address and your password.' });
    const answer = await signIn(parsed.data.email, parsed.data.password, getClientAddress());
    if (answer.kind === 'wrong')
      return fail(400, {
        email,
        message: 'This address and this password do not belong together; check both.',
      });
    if (answer.kind === 'tooOften') return fail(429, { email, message: waitText(answer.seconds) });
    setSessionCookie(cookies, answer.token, url.protocol === 'https:');
    redirect(303, wantedPlace(url));
  },
};
