/** From a server to a database that Oculon can use. */
import { readdirSync } from 'node:fs';
import { join, parse } from 'node:path';
import { runner } from 'node-pg-migrate';
import pg from 'pg';
import { keptSecret } from './cluster';
import { MIGRATIONS } from './paths';
import { StartProblem } from './shell';

/** Brings the schema up to date and returns the connection of the role that owns nothing. */
export async function prepareDatabase(ownerUrl: string, dataFolder: string): Promise<string> {
  await refuseNewer(ownerUrl);
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

/**
 * A newer Oculon has changed the database in ways that this one does not know: it would lose what it cannot see.
 * @throws StartProblem that names the first such change
 */
export async function refuseNewer(ownerUrl: string): Promise<void> {
  const own = new Set(readdirSync(MIGRATIONS).map((file) => parse(file).name));
  const done = await asOwner(ownerUrl, async (client) => {
    const { rows } = await client.query<{ there: boolean }>(
      `SELECT to_regclass('migrations') IS NOT NULL AS there`,
    );
    if (!rows[0]!.there) return [];
    return (await client.query<{ name: string }>('SELECT name FROM migrations ORDER BY id')).rows;
  });
  const unknown = done.find(({ name }) => !own.has(name));
  if (unknown)
    throw new StartProblem(
      `The data was changed by a newer Oculon (${unknown.name}), which this one cannot read safely. Start that one, or restore a backup from before.`,
    );
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
