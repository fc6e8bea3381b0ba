/** The made-up studio of the demo. Running it again adds nothing. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { DEMO_ACCOUNT } from '../../src/lib/demoAccount';
import { importPiece } from '../../src/lib/server/useCases/importPiece';
import { insertAccountOnce } from '../run/account';
import { DEMO_FOLDER } from '../run/paths';

/** Needs the application's database setting in the environment, for the import is the ordinary one. */
export async function seedDemo(ownerUrl: string): Promise<void> {
  const owner = await insertAccountOnce(ownerUrl, DEMO_ACCOUNT);
  if (!owner) return;
  for (const fileName of readdirSync(DEMO_FOLDER).sort().reverse()) {
    const result = await importPiece(owner, { fileName, bytes: readFileSync(join(DEMO_FOLDER, fileName)) });
    if (!result.ok) throw new Error(`demo piece ${fileName}: ${result.error.code}`);
  }
}
