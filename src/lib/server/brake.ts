/** Who has tried to sign in too often: counted in the database, so that a restart forgives nobody. */
import { createHash } from 'node:crypto';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { thePool } from './db';

const MINUTE_S = 60;

/**
 * Failures that are let through, and how long they count. An account is guarded against many addresses, too; there the
 * limit is wide, so that nobody can lock out a teacher whose address they know.
 */
const LIMITS = {
  address: { points: 30, duration: 15 * MINUTE_S },
  accountFromAddress: { points: 8, duration: 15 * MINUTE_S },
  account: { points: 100, duration: 60 * MINUTE_S },
} as const;

type Limit = keyof typeof LIMITS;

const limiters = new Map<Limit, RateLimiterPostgres>();

function limiterOf(limit: Limit): RateLimiterPostgres {
  const made =
    limiters.get(limit) ??
    new RateLimiterPostgres({
      ...LIMITS[limit],
      storeClient: thePool(),
      schemaName: 'brakes',
      tableName: 'tries',
      tableCreated: true,
      keyPrefix: limit,
    });
  limiters.set(limit, made);
  return made;
}

const digestOf = (...texts: readonly string[]) =>
  createHash('sha256').update(texts.join('\n')).digest('base64url');

const keysOf = (address: string, email: string): readonly (readonly [Limit, string])[] => [
  ['address', digestOf(address)],
  ['accountFromAddress', digestOf(address, email.toLowerCase())],
  ['account', digestOf(email.toLowerCase())],
];

/**
 * Counts a try before it is made, so that a hundred at once are counted, too. Gives the seconds to wait; null when the
 * try may be made.
 * @throws DatabaseError when the database fails
 */
export async function secondsToWait(address: string, email: string): Promise<number | null> {
  for (const [limit, key] of keysOf(address, email)) {
    try {
      await limiterOf(limit).consume(key);
    } catch (refusal) {
      if (refusal instanceof RateLimiterRes) return Math.max(1, Math.ceil(refusal.msBeforeNext / 1000));
      throw refusal;
    }
  }
  return null;
}

/**
 * A try that succeeded is none.
 * @throws DatabaseError when the database fails
 */
export async function forgive(address: string, email: string): Promise<void> {
  for (const [limit, key] of keysOf(address, email)) {
    if (limit === 'accountFromAddress') await limiterOf(limit).delete(key);
    else await limiterOf(limit).reward(key);
  }
}
