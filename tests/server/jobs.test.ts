/** Background jobs: every studio has its turn, failures are remembered, and neither a kill nor a lost database loses one. */
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest';
import { type Cluster, startCluster } from '../../scripts/run/cluster';
import { prepareDatabase } from '../../scripts/run/database';
import { GivenUp } from '../../src/lib/server/jobs/givenUp';
import { addJob, type Job, JobRunner } from '../../src/lib/server/jobs/queue';

const folder = mkdtempSync(join(tmpdir(), 'oculon-jobs-'));
const A = '00000000-0000-4000-8000-00000000000a';
const B = '00000000-0000-4000-8000-00000000000b';
let cluster: Cluster;
let jobsUrl: string;
let runner: JobRunner | null = null;

/** Which of a studio's pages it is, told by its version. */
const pageOf = (studioId: string, k: number): Job => ({
  studioId,
  versionId: `00000000-0000-4000-8000-${String(k).padStart(12, '0')}`,
  editionId: A,
});
const nameOf = (job: Job) => `${job.studioId === A ? 'a' : 'b'}${Number(job.versionId.slice(-6))}`;

async function ask<T extends pg.QueryResultRow>(sql: string): Promise<readonly T[]> {
  const client = new pg.Client({ connectionString: jobsUrl });
  await client.connect();
  try {
    return (await client.query<T>(sql)).rows;
  } finally {
    await client.end();
  }
}

const waiting = async () =>
  (await ask<{ count: number }>('SELECT count(*)::int AS count FROM graphile_worker.jobs'))[0]!.count;

function start(page: (job: Job) => Promise<void>) {
  runner = new JobRunner({ page, plan: () => Promise.resolve() });
  runner.start();
}

beforeAll(async () => {
  cluster = await startCluster(folder);
  const database = await prepareDatabase(cluster.ownerUrl, folder);
  jobsUrl = database.jobs;
  process.env.OCULON_JOBS_URL = jobsUrl;
});
beforeEach(async () => {
  await runner?.close();
  runner = null;
  await ask('DELETE FROM graphile_worker._private_jobs');
});
afterAll(async () => {
  await runner?.close();
  cluster.stop();
  rmSync(folder, { recursive: true, force: true });
});

it('studios take turns, each in the order in which it asked; what was asked for twice is done once', async () => {
  for (const k of [1, 2, 3, 4, 5]) await addJob('page', pageOf(A, k), `${k}`);
  for (const k of [1, 2]) await addJob('page', pageOf(B, k), `${k}`);
  await addJob('page', pageOf(A, 3), '3');
  const done: string[] = [];
  start((job) => Promise.resolve(void done.push(nameOf(job))));
  await expect.poll(waiting, { timeout: 20_000 }).toBe(0);
  expect(done).toEqual(['a1', 'b1', 'a2', 'b2', 'a3', 'a4', 'a5']);
});

it('what fails is tried three times and then never again, until its content is another', async () => {
  const tries: string[] = [];
  start((job) => {
    tries.push(nameOf(job));
    return nameOf(job) === 'a1' ? Promise.reject(new Error('broken')) : Promise.resolve();
  });
  await addJob('page', pageOf(A, 1), 'same');
  await expect.poll(() => tries.length, { timeout: 60_000 }).toBe(3);
  await expect
    .poll(async () => (await ask('SELECT 1 FROM graphile_worker.jobs WHERE locked_at IS NULL')).length)
    .toBe(1);
  await addJob('page', pageOf(A, 1), 'same');
  await addJob('page', pageOf(A, 2), 'other');
  await expect.poll(() => tries.length, { timeout: 20_000 }).toBe(4);
  expect(tries).toEqual(['a1', 'a1', 'a1', 'a2']);
});

it('what took too long or wanted too much memory is not tried again before tomorrow', async () => {
  const tries: string[] = [];
  start((job) => {
    tries.push(nameOf(job));
    return nameOf(job) === 'a1' ? Promise.reject(new GivenUp('took too long')) : Promise.resolve();
  });
  await addJob('page', pageOf(A, 1), 'same');
  const later = () => ask("SELECT 1 FROM graphile_worker.jobs WHERE run_at > now() + interval '23 hours'");
  await expect.poll(async () => (await later()).length, { timeout: 20_000 }).toBe(1);
  await addJob('page', pageOf(A, 1), 'same');
  await addJob('page', pageOf(A, 2), 'other');
  await expect.poll(() => tries, { timeout: 20_000 }).toEqual(['a1', 'a2']);
  expect(await later()).toHaveLength(1);
});

it('a job that a killed server had begun is done by the next one', async () => {
  await addJob('page', pageOf(A, 1), '1');
  await ask(`UPDATE graphile_worker._private_jobs SET locked_by = 'killed', locked_at = now(), attempts = 1`);
  const done: string[] = [];
  start((job) => Promise.resolve(void done.push(nameOf(job))));
  await expect.poll(() => done, { timeout: 20_000 }).toEqual(['a1']);
});

it('after a kill of the database the work goes on', async () => {
  const done: string[] = [];
  start((job) => Promise.resolve(void done.push(nameOf(job))));
  await addJob('page', pageOf(A, 1), '1');
  await expect.poll(() => done, { timeout: 20_000 }).toEqual(['a1']);
  const pid = Number(readFileSync(join(folder, 'pg', 'postmaster.pid'), 'utf8').split('\n')[0]);
  process.kill(pid, 'SIGKILL');
  await expect.poll(() => existsSync(`/proc/${pid}`), { timeout: 10_000 }).toBe(false);
  await expect(addJob('page', pageOf(A, 2), '2')).rejects.toThrow();
  cluster = await startCluster(folder);
  // Whoever looks at the shelf again asks again.
  const asks = () =>
    addJob('page', pageOf(A, 3), '3').then(
      () => true,
      () => false,
    );
  await expect.poll(asks, { timeout: 20_000 }).toBe(true);
  await expect.poll(() => done, { timeout: 60_000 }).toEqual(['a1', 'a3']);
});
