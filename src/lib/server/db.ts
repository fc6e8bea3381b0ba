/** The one way to the database: a transaction bound to a studio. */
import pg from 'pg';
import { config } from './config';
import { log } from './log';

/** Whoever waits longer for a connection or an answer is told that the database does not answer. */
const CONNECT_MS = 5_000;
const STATEMENT_MS = 30_000;

let pool: pg.Pool | null = null;

/** For packages that ask the database by themselves; everything of a studio goes through `withTransaction`. */
export function thePool(): pg.Pool {
  if (!pool) {
    pool = new pg.Pool({
      connectionString: config().databaseUrl,
      max: 8,
      connectionTimeoutMillis: CONNECT_MS,
      statement_timeout: STATEMENT_MS,
      idle_in_transaction_session_timeout: STATEMENT_MS,
    });
    // One that is lost while somebody uses it fails their query; without a listener it would end the process as well.
    pool.on('connect', (client) =>
      client.on('error', (error) => log.warn({ err: error }, 'a database connection was lost in use')),
    );
    // An idle connection that the server closes is replaced by the next query; it must not end the process.
    pool.on('error', (error) => log.warn({ err: error }, 'a database connection was lost'));
  }
  return pool;
}

export type Transaction = pg.PoolClient;

/**
 * Runs `work` in a transaction that sees one studio's rows only.
 * @throws whatever `work` throws, after rolling back, and DatabaseError when the database does not answer
 */
export async function withTransaction<T>(
  studioId: string,
  work: (tx: Transaction) => Promise<T>,
): Promise<T> {
  const client = await thePool().connect();
  try {
    await client.query('BEGIN');
    await client.query(`SELECT set_config('oculon.studio_id', $1, true)`, [studioId]);
    const result = await work(client);
    await client.query('COMMIT');
    client.release();
    return result;
  } catch (error) {
    // A connection that cannot even roll back is thrown away.
    await client.query('ROLLBACK').then(
      () => client.release(),
      () => client.release(true),
    );
    throw error;
  }
}

/** For the two questions that are asked before the studio is known; row-level security shows nothing else. */
export async function beforeStudio<T extends pg.QueryResultRow>(
  sql: string,
  values: unknown[],
): Promise<readonly T[]> {
  return (await thePool().query<T>(sql, values)).rows;
}

export async function closePool(): Promise<void> {
  await pool?.end();
  pool = null;
}
