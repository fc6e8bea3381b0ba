/** From a server to a database that Oculon can use. */
import { join } from 'node:path';
import { runner } from 'node-pg-migrate';
import pg from 'pg';
import { keptSecret } from './cluster';
import { MIGRATIONS } from './paths';

/** Brings the schema up to date and returns the connection of the role that owns nothing. */
export async function prepareDatabase(ownerUrl: string, dataFolder: string): Promise<string> {
  await runner({
    databaseUrl: ownerUrl,
    dir: MIGRATIONS,
    direction: 'up',
    migrationsTable: 'migrations',
    log: () => undefined,
  });
  const password = keptSecret(join(dataFolder, 'app-password'));
  await asOwner(ownerUrl, (client) =>
    client.query(`ALTER ROLE oculon_app PASSWORD ${client.escapeLiteral(password)}`),
  );
  const url = new URL(ownerUrl);
  url.username = 'oculon_app';
  url.password = password;
  return url.href;
}

export async function asOwner<T>(ownerUrl: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: ownerUrl });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}
