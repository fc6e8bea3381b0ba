/** Oculon's own cluster: data survive kill -9 and a stale pid file; a second start finds the first. */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Cluster, startCluster } from '../../scripts/run/cluster';
import { asOwner, prepareDatabase } from '../../scripts/run/database';

const folder = mkdtempSync(join(tmpdir(), 'oculon-cluster-'));
const pidFile = join(folder, 'pg', 'postmaster.pid');
let cluster: Cluster;

const serverPid = () => Number(readFileSync(pidFile, 'utf8').split('\n')[0]);
const studios = async () =>
  (
    await asOwner(cluster.ownerUrl, (client) => client.query<{ name: string }>('SELECT name FROM studios'))
  ).rows.map((row) => row.name);

async function killServer() {
  const pid = serverPid();
  process.kill(pid, 'SIGKILL');
  await expect.poll(() => isAlive(pid), { timeout: 10_000 }).toBe(false);
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}

beforeAll(async () => {
  cluster = await startCluster(folder);
  await prepareDatabase(cluster.ownerUrl, folder);
  await asOwner(cluster.ownerUrl, (client) => client.query(`INSERT INTO studios (name) VALUES ('kept')`));
});
afterAll(() => {
  cluster.stop();
  rmSync(folder, { recursive: true, force: true });
});

it('listens on loopback only, asks for a password and is found by a second start', async () => {
  const again = await startCluster(folder);
  expect(again.ownerUrl).toBe(cluster.ownerUrl);
  again.stop();
  expect(isAlive(serverPid())).toBe(true);
  const listen = await asOwner(cluster.ownerUrl, (client) =>
    client.query<{ listen_addresses: string }>('SHOW listen_addresses'),
  );
  expect(listen.rows[0]!.listen_addresses).toBe('127.0.0.1');
  const wrong = new URL(cluster.ownerUrl);
  wrong.password = 'wrong';
  await expect(asOwner(wrong.href, (client) => client.query('SELECT 1'))).rejects.toMatchObject({
    code: '28P01',
  });
});

it('starts again after kill -9, migrates again, and the data are there', async () => {
  await killServer();
  cluster = await startCluster(folder);
  await prepareDatabase(cluster.ownerUrl, folder);
  expect(await studios()).toEqual(['kept']);
});

it('starts again when the pid of its stale file now belongs to another process', async () => {
  const before = readFileSync(pidFile, 'utf8');
  await killServer();
  writeFileSync(pidFile, before.replace(/^\d+/, String(process.pid)));
  cluster = await startCluster(folder);
  expect(await studios()).toEqual(['kept']);
});
