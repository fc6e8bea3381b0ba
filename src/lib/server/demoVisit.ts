/** In demo mode whoever comes without a session gets the one that all visitors share: visits leave no rows behind. */
import { DEMO_ACCOUNT } from '../demoAccount';
import { maybeOpenSession, visitorOf } from './auth';

let shared: Promise<string | null> = Promise.resolve(null);

/**
 * Null when the demo's account is not there.
 * @throws DatabaseError when the database fails
 */
export function maybeDemoToken(address: string): Promise<string | null> {
  // One after the other, so that visits that come at once open one session together.
  shared = shared
    .catch(() => null)
    .then(async (token) => {
      if (token && (await visitorOf(token))) return token;
      return maybeOpenSession(DEMO_ACCOUNT.email, DEMO_ACCOUNT.password, address);
    });
  return shared;
}
