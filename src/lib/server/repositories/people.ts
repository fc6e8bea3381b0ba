/** Users and their sessions. */
import { z } from 'zod';
import { beforeStudio, type Transaction } from '../db';

const signInRow = z.object({ studio_id: z.uuid(), user_id: z.uuid(), password_hash: z.string() });
const sessionRow = z.object({
  studio_id: z.uuid(),
  user_id: z.uuid(),
  studio_name: z.string(),
  display_name: z.string(),
});

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function hasAccounts(): Promise<boolean> {
  const rows = await beforeStudio<{ there: boolean }>('SELECT has_accounts() AS there', []);
  return rows[0]!.there;
}

export interface Account {
  readonly studioId: string;
  readonly userId: string;
  readonly passwordHash: string;
}

export interface Visitor {
  readonly studioId: string;
  readonly userId: string;
  readonly studioName: string;
  readonly displayName: string;
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function maybeFindAccount(email: string): Promise<Account | null> {
  const rows = await beforeStudio('SELECT studio_id, user_id, password_hash FROM find_sign_in($1)', [email]);
  if (!rows[0]) return null;
  const row = signInRow.parse(rows[0]);
  return { studioId: row.studio_id, userId: row.user_id, passwordHash: row.password_hash };
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function maybeFindVisitor(tokenHash: Buffer): Promise<Visitor | null> {
  const rows = await beforeStudio(
    'SELECT studio_id, user_id, studio_name, display_name FROM find_session($1)',
    [tokenHash],
  );
  if (!rows[0]) return null;
  const row = sessionRow.parse(rows[0]);
  return {
    studioId: row.studio_id,
    userId: row.user_id,
    studioName: row.studio_name,
    displayName: row.display_name,
  };
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function insertSession(
  tx: Transaction,
  session: { studioId: string; userId: string; tokenHash: Buffer; expiresAt: Date },
): Promise<void> {
  await tx.query('DELETE FROM sessions WHERE expires_at < now()');
  await tx.query(
    'INSERT INTO sessions (studio_id, user_id, token_hash, expires_at) VALUES ($1, $2, $3, $4)',
    [session.studioId, session.userId, session.tokenHash, session.expiresAt],
  );
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function deleteSession(tx: Transaction, tokenHash: Buffer): Promise<void> {
  await tx.query('DELETE FROM sessions WHERE token_hash = $1', [tokenHash]);
}
