/** The session cookie, set in one place. */
import type { Cookies } from '@sveltejs/kit';
import { SESSION_COOKIE, SESSION_DAYS } from './auth';

export function setSessionCookie(cookies: Cookies, token: string, secure: boolean): void {
  cookies.set(SESSION_COOKIE, token, {
    path: '/',
    httpOnly: true,
    sameSite: 'lax',
    secure,
    maxAge: SESSION_DAYS * 86_400,
  });
}

export const clearSessionCookie = (cookies: Cookies): void => cookies.delete(SESSION_COOKIE, { path: '/' });
