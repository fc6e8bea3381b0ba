/** From a server to a database that Oculon can use. */
import { readdirSync } from 'node:fs';
import { join, parse } from 'node:path';
import { makeWorkerUtils } from 'graphile-worker';
import { runner } from 'node-pg-migrate';
import pg from 'pg';
import { keptSecret } from './cluster';
import { MIGRATIONS } from './paths';
import { StartProblem } from './shell';

/** Connections of the roles that the server works as; neither owns a studio's tables. */
export interface DatabaseUrls {
  readonly app: string;
  readonly jobs: string;
}

/** Brings the schema up to date and returns the connections that the server gets. */
export async function prepareDatabase(ownerUrl: string, dataFolder: string): Promise<DatabaseUrls> {
  await refuseNewer(ownerUrl);
  await runner({
    databaseUrl: ownerUrl,
    dir: MIGRATIONS,
    direction: 'up',
    migrationsTable: 'migrations',
    log: () => undefined,
  });
  const urls = {
    app: await urlOfRole(ownerUrl, 'oculon_app', keptSecret(join(dataFolder, 'app-password'))),
    jobs: await urlOfRole(ownerUrl, 'oculon_jobs', keptSecret(join(dataFolder, 'jobs-password'))),
  };
  await prepareJobs(ownerUrl, urls.jobs);
  return urls;
}

/** The package looks after its own tables, as the role that owns them; only for this it may make a schema. */
async function prepareJobs(ownerUrl: string, jobsUrl: string): Promise<void> {
  const may = (sql: (database: string) => string) =>
    asOwner(ownerUrl, (client) => client.query(sql(client.escapeIdentifier(client.database ?? ''))));
  await may((database) => `GRANT CREATE ON DATABASE ${database} TO oculon_jobs`);
  try {
    const jobs = await makeWorkerUtils({ connectionString: jobsUrl });
    await jobs.migrate();
    await jobs.release();
  } finally {
    await may((database) => `REVOKE CREATE ON DATABASE ${database} FROM oculon_jobs`);
  }
}

async function urlOfRole(ownerUrl: string, role: string, password: string): Promise<string> {
  await asOwner(ownerUrl, (client) =>
    client.query(`ALTER ROLE ${role} PASSWORD ${client.escapeLiteral(password)}`),
  );
  const url = new URL(ownerUrl);
  url.username = role;
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
