/** Sign-in with argon2id; sessions are random tokens of which only the hash is stored. */
import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import { withTransaction } from './db';
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

/** @throws DatabaseError when the database fails: nothing is changed then */
export const hashPassword = (password: string): Promise<string> => hash(password, ARGON2ID);

/** So that an unknown address takes as long as a wrong password. */
let decoy: Promise<string> | null = null;

/**
 * Returns a session token, or null when address and password do not belong together.
 * @throws DatabaseError when the database fails: nothing is changed then
 */
export async function signIn(email: string, password: string): Promise<string | null> {
  const account = await maybeFindAccount(email);
  decoy ??= hashPassword(randomBytes(16).toString('hex'));
  const fits = await verify(account?.passwordHash ?? (await decoy), password);
  if (!account || !fits) return null;
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
