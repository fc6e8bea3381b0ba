import { fail, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { DEMO_ACCOUNT } from '$lib/demoAccount';
import { signIn } from '$lib/server/auth';
import { config } from '$lib/server/config';
import { setSessionCookie } from '$lib/server/cookies';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => {
  if (locals.visitor) redirect(303, '/shelf');
  return { demo: config().demo ? DEMO_ACCOUNT : null };
};

const credentials = z.object({
  email: z.string().trim().min(3).max(200),
  password: z.string().min(1).max(200),
});

export const actions: Actions = {
  default: async ({ request, cookies, url }) => {
    const form = Object.fromEntries(await request.formData());
    const parsed = credentials.safeParse(form);
    const email = typeof form['email'] === 'string' ? form['email'] : '';
    if (!parsed.success) return fail(400, { email, message: 'Enter your e-mail address and your password.' });
    const token = await signIn(parsed.data.email, parsed.data.password);
    if (!token)
      return fail(400, {
        email,
        message: 'This address and this password do not belong together; check both.',
      });
    setSessionCookie(cookies, token, url.protocol === 'https:');
    redirect(303, '/shelf');
  },
};
