/** Sign-in with argon2id; sessions are random tokens of which only the hash is stored. */
import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import pLimit from 'p-limit';
import { forgive, secondsToWait } from './brake';
import { withTransaction } from './db';
import { log } from './log';
import {
  deleteSession,
  insertSession,
  maybeFindAccount,
  maybeFindVisitor,
  type Visitor,
} from './repositories/people';

export const SESSION_COOKIE = 'oculon_session';
export const SESSION_DAYS = 30;

/** OWASP Password Storage Cheat Sheet: argon2id with at least 19 MiB, 2 iterations, 1 lane. */
const ARGON2ID = { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

export const hashPassword = (password: string): Promise<string> => hash(password, ARGON2ID);

/** Each takes 19 MiB and a core: while strangers try passwords, teachers must still be able to save. */
const oneOfFew = pLimit(2);

/** So that an unknown account takes as long as a wrong password. */
const decoy = hashPassword(randomBytes(16).toString('hex'));

export type SignIn =
  | { readonly kind: 'in'; readonly token: string }
  | { readonly kind: 'wrong' }
  | { readonly kind: 'tooOften'; readonly seconds: number };

/**
 * @param address where the try comes from
 * @throws DatabaseError when the database fails: nothing is changed then
 */
export async function signIn(email: string, password: string, address: string): Promise<SignIn> {
  const seconds = await secondsToWait(address, email);
  if (seconds !== null) {
    log.warn({ address, seconds }, 'a sign-in was held back');
    return { kind: 'tooOften', seconds };
  }
  const token = await maybeOpenSession(email, password, address);
  if (!token) return { kind: 'wrong' };
  await forgive(address, email);
  return { kind: 'in', token };
}

/**
 * A session's token without any brake; null when address and password do not belong together.
 * @throws DatabaseError when the database fails: nothing is changed then
 */
export async function maybeOpenSession(
  email: string,
  password: string,
  address: string,
): Promise<string | null> {
  const account = await maybeFindAccount(email);
  const passwordHash = account?.passwordHash ?? (await decoy);
  const fits = await oneOfFew(() => verify(passwordHash, password));
  if (!account || !fits) {
    // A password typed into the wrong field must not land in the log: only known accounts are named.
    log.warn({ address, user: account?.userId ?? null }, 'a sign-in failed');
    return null;
  }
  const token = randomBytes(32).toString('base64url');
  const expiresAt = new Date(Date.now() + SESSION_DAYS * 86_400_000);
  await withTransaction(account.studioId, (tx) =>
    insertSession(tx, {
      studioId: account.studioId,
      userId: account.userId,
      tokenHash: hashToken(token),
      expiresAt,
    }),
  );
  return token;
}

/** @throws DatabaseError when the database fails: nothing is changed then */
export const visitorOf = (token: string): Promise<Visitor | null> => maybeFindVisitor(hashToken(token));

/** @throws DatabaseError when the database fails: nothing is changed then */
export async function signOut(visitor: Visitor, token: string): Promise<void> {
  await withTransaction(visitor.studioId, (tx) => deleteSession(tx, hashToken(token)));
}

const hashToken = (token: string) => createHash('sha256').update(token).digest();
