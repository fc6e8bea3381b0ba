/**
 * Background work that outlives the server: jobs in PostgreSQL, worked off by this process. The role that keeps them
 * sees no studio's tables.
 */
import { Logger, runTaskList, type Task, type WorkerPool } from 'graphile-worker';
import pg from 'pg';
import { z } from 'zod';
import { config } from '../config';
import { log } from '../log';
import { GivenUp } from './givenUp';

export type JobName = 'page' | 'plan';

const jobSchema = z.object({ studioId: z.uuid(), versionId: z.uuid(), editionId: z.uuid() });
export type Job = z.infer<typeof jobSchema>;

/** A job that fails is tried again; what fails always stays, so that nobody asks for the same in vain. */
const MOST_ATTEMPTS = 3;
/** What failed, or was given up, is tried anew after so long: a full disk is no property of a piece. */
const REMEMBERED = '1 day';
const LAST_PRIORITY = 30_000;
const RESTART_MS = 2_000;

let pool: pg.Pool | null = null;

function thePool(url: string): pg.Pool {
  if (!pool) {
    pool = new pg.Pool({ connectionString: url, max: 6, connectionTimeoutMillis: 5_000 });
    const lost = (error: Error) => log.warn({ err: error }, 'a connection of the jobs was lost');
    pool.on('connect', (client) => client.on('error', lost));
    pool.on('error', lost);
  }
  return pool;
}

/**
 * Adds a job unless one of the same content waits, runs or has failed. Each studio's jobs stand in a line of their own
 * (the number of those before is the priority), so that all studios come to their turn.
 * @param content names what is made: equal exactly when the result would be
 * @throws DatabaseError when the database does not answer
 */
export async function addJob(name: JobName, job: Job, content: string): Promise<void> {
  const url = config().jobsUrl;
  if (!url) return;
  const line = `${job.studioId} ${name} `;
  await thePool(url).query(
    `SELECT graphile_worker.add_job($1, payload := $2::json, job_key := $3, job_key_mode := 'unsafe_dedupe',
       max_attempts := $4, priority := least($5, (
         SELECT count(*) FROM graphile_worker.jobs WHERE starts_with(key, $6) AND attempts < max_attempts))::int)`,
    [name, JSON.stringify(job), line + content, MOST_ATTEMPTS, LAST_PRIORITY, line],
  );
}

export type JobHandlers = Readonly<Record<JobName, (job: Job) => Promise<void>>>;

/** Works off the jobs until it is closed; after a loss of the database it starts again. */
export class JobRunner {
  private closed = false;
  private readonly runners = new Map<JobName, WorkerPool>();

  constructor(private readonly handlers: JobHandlers) {}

  start(): void {
    const url = config().jobsUrl;
    if (!url) return;
    // A line of workers for each: a page never waits for somebody's long plan.
    for (const name of Object.keys(this.handlers) as JobName[]) void this.keepRunning(url, name);
  }

  async close(): Promise<void> {
    this.closed = true;
    await Promise.all(
      [...this.runners.values()].map((runner) => runner.gracefulShutdown().catch(() => undefined)),
    );
    await pool?.end();
    pool = null;
  }

  private async keepRunning(url: string, name: JobName): Promise<void> {
    while (!this.closed) {
      try {
        await forgetThePast(thePool(url), name);
        // Without the package's clock for repeated work, which is not used and does not survive a lost database.
        const options = { concurrency: 1, noHandleSignals: true, logger: LOGGER };
        const runner = runTaskList(options, { [name]: this.taskOf(name) }, thePool(url));
        this.runners.set(name, runner);
        await runner.promise;
      } catch (error) {
        log.warn({ err: error }, `${name}: the jobs stand still`);
      }
      this.runners.delete(name);
      if (!this.closed) await new Promise((resolve) => setTimeout(resolve, RESTART_MS).unref());
    }
  }

  private taskOf(name: JobName): Task {
    return async (payload, { job }) => {
      try {
        await this.handlers[name](jobSchema.parse(payload));
      } catch (error) {
        log.error({ err: error }, `${name}: a job failed`);
        if (!(error instanceof GivenUp)) throw error;
        // Tried again at once it would be given up again.
        await postpone(name, payload, job.key);
      }
    };
  }
}

/** In the place of a job that is running. */
async function postpone(name: JobName, payload: unknown, key: string | null): Promise<void> {
  await thePool(config().jobsUrl!).query(
    `SELECT graphile_worker.add_job($1, payload := $2::json, job_key := $3, max_attempts := $4,
       run_at := now() + interval '${REMEMBERED}')`,
    [name, JSON.stringify(payload), key, MOST_ATTEMPTS],
  );
}

/** One process works on a database: jobs that still look taken belong to one that was killed. */
async function forgetThePast(jobs: pg.Pool, name: JobName): Promise<void> {
  await jobs.query(
    `SELECT graphile_worker.force_unlock_workers(array_agg(DISTINCT locked_by))
     FROM graphile_worker.jobs WHERE locked_by IS NOT NULL AND task_identifier = $1`,
    [name],
  );
  await jobs.query(
    `SELECT graphile_worker.complete_jobs(array_agg(id)) FROM graphile_worker.jobs
     WHERE task_identifier = $1 AND attempts >= max_attempts AND updated_at < now() - interval '${REMEMBERED}'`,
    [name],
  );
}

/** Failures are logged with their job above; of the package only what concerns itself is heard. */
const LOGGER = new Logger(() => (level, message) => {
  if (level === 'warning') log.warn(message);
  if (level === 'error' && !message.startsWith('Failed task')) log.warn(message);
});
