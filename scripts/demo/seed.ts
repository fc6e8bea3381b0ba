/** The made-up studio of the demo. Running it again adds nothing. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { DEMO_ACCOUNT } from '../../src/lib/demoAccount';
import { hashPassword } from '../../src/lib/server/auth';
import { importPiece } from '../../src/lib/server/useCases/importPiece';
import { asOwner } from '../run/database';
import { DEMO_FOLDER } from '../run/paths';

/** Needs the application's database setting in the environment, for the import is the ordinary one. */
export async function seedDemo(ownerUrl: string): Promise<void> {
  const owner = await insertStudioOnce(ownerUrl);
  if (!owner) return;
  for (const fileName of readdirSync(DEMO_FOLDER).sort().reverse()) {
    const result = await importPiece(owner, { fileName, bytes: readFileSync(join(DEMO_FOLDER, fileName)) });
    if (!result.ok) throw new Error(`demo piece ${fileName}: ${result.error.code}`);
  }
}

/** The new teacher, or null when the demo is there already. */
async function insertStudioOnce(ownerUrl: string): Promise<{ studioId: string; userId: string } | null> {
  const passwordHash = await hashPassword(DEMO_ACCOUNT.password);
  return asOwner(ownerUrl, async (client) => {
    const known = await client.query('SELECT 1 FROM users WHERE email = $1', [DEMO_ACCOUNT.email]);
    if (known.rowCount) return null;
    const studio = await client.query<{ id: string }>('INSERT INTO studios (name) VALUES ($1) RETURNING id', [
      DEMO_ACCOUNT.studio,
    ]);
    const studioId = studio.rows[0]!.id;
    const user = await client.query<{ id: string }>(
      'INSERT INTO users (studio_id, email, display_name, password_hash) VALUES ($1, $2, $3, $4) RETURNING id',
      [studioId, DEMO_ACCOUNT.email, DEMO_ACCOUNT.teacher, passwordHash],
    );
    return { studioId, userId: user.rows[0]!.id };
  });
}
