/** Studios and their teachers, made by whoever owns the database. */
import { hashPassword } from '../../src/lib/server/auth';
import { asOwner } from './database';

export interface NewAccount {
  readonly studio: string;
  readonly teacher: string;
  readonly email: string;
  readonly password: string;
}

export interface AccountIds {
  readonly studioId: string;
  readonly userId: string;
}

/** Null when somebody signs in with this address already: nothing is changed then. */
export async function insertAccountOnce(ownerUrl: string, account: NewAccount): Promise<AccountIds | null> {
  const passwordHash = await hashPassword(account.password);
  return asOwner(ownerUrl, async (client) => {
    await client.query('BEGIN');
    const studio = await client.query<{ id: string }>('INSERT INTO studios (name) VALUES ($1) RETURNING id', [
      account.studio,
    ]);
    const studioId = studio.rows[0]!.id;
    const user = await client.query<{ id: string }>(
      `INSERT INTO users (studio_id, email, display_name, password_hash) VALUES ($1, lower($2), $3, $4)
       ON CONFLICT (email) DO NOTHING RETURNING id`,
      [studioId, account.email, account.teacher, passwordHash],
    );
    const userId = user.rows[0]?.id;
    await client.query(userId ? 'COMMIT' : 'ROLLBACK');
    return userId ? { studioId, userId } : null;
  });
}

/** Ends all sessions of the account, too; false when nobody has this address. */
export async function setPassword(ownerUrl: string, email: string, password: string): Promise<boolean> {
  const passwordHash = await hashPassword(password);
  return asOwner(ownerUrl, async (client) => {
    const { rows } = await client.query<{ id: string }>(
      'UPDATE users SET password_hash = $2 WHERE email = lower($1) RETURNING id',
      [email, passwordHash],
    );
    await client.query('DELETE FROM sessions WHERE user_id = ANY($1::uuid[])', [rows.map(({ id }) => id)]);
    return rows.length > 0;
  });
}
