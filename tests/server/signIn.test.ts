/** Who may try how often, what a visit leaves behind, and under which address the server answers. */
import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { afterAll, describe, expect, it } from 'vitest';
import { freePort } from '../../scripts/run/cluster';
import { type RunningServer, startServer, stopServer } from '../../scripts/run/server';
import { DEMO_ACCOUNT } from '../../src/lib/demoAccount';
import { hashPassword, signIn } from '../../src/lib/server/auth';
import { closePool } from '../../src/lib/server/db';
import { address, asOwner } from './world';

afterAll(closePool);

const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1]!;

async function newAccount(): Promise<string> {
  const email = `${randomUUID()}@studio.example`;
  const passwordHash = await hashPassword('a long password');
  await asOwner((client) =>
    client.query(
      `WITH made AS (INSERT INTO studios (name) VALUES ('brakes') RETURNING id)
       INSERT INTO users (studio_id, email, display_name, password_hash) SELECT id, $1, 'Teacher', $2 FROM made`,
      [email, passwordHash],
    ),
  );
  return email;
}

const post = (to: string, email: string, password: string, headers: Record<string, string>) =>
  fetch(`${to}/sign-in`, {
    method: 'POST',
    headers: { 'content-type': 'application/x-www-form-urlencoded', accept: 'text/html', ...headers },
    body: new URLSearchParams({ email, password }),
    redirect: 'manual',
  });

describe('the brake on sign-in', () => {
  it('holds an account back after eight failures from one address, also with the right password', async () => {
    const email = await newAccount();
    const from = randomUUID();
    for (let k = 0; k < 8; k++) expect((await signIn(email, 'wrong', from)).kind).toBe('wrong');
    const held = await signIn(email, 'a long password', from);
    expect(held.kind).toBe('tooOften');
    expect(held.kind === 'tooOften' && held.seconds).toBeLessThanOrEqual(900);
    // From elsewhere the teacher gets in: nobody locks them out by knowing their address.
    expect((await signIn(email, 'a long password', randomUUID())).kind).toBe('in');
  });

  it('counts tries that come at once, and forgets failures after a success', async () => {
    const email = await newAccount();
    const from = randomUUID();
    const many = await Promise.all(Array.from({ length: 40 }, () => signIn(email, 'wrong', from)));
    expect(many.filter(({ kind }) => kind === 'wrong')).toHaveLength(8);
    const other = await newAccount();
    const there = randomUUID();
    for (let k = 0; k < 7; k++) await signIn(other, 'wrong', there);
    expect((await signIn(other, 'a long password', there)).kind).toBe('in');
    for (let k = 0; k < 7; k++) await signIn(other, 'wrong', there);
    expect((await signIn(other, 'a long password', there)).kind).toBe('in');
  });

  it('holds an address back that tries many accounts, in the database, so that a restart forgives nobody', async () => {
    const from = randomUUID();
    const answers = [];
    for (let k = 0; k < 31; k++)
      answers.push((await signIn(`${randomUUID()}@nobody.example`, 'x', from)).kind);
    expect(answers.slice(0, 30)).not.toContain('tooOften');
    expect(answers[30]).toBe('tooOften');
    const { rowCount } = await asOwner((client) =>
      client.query(`SELECT 1 FROM brakes.tries WHERE key LIKE 'address:%' AND points > 30`),
    );
    expect(rowCount).toBeGreaterThan(0);
  });

  it('takes as long for an account that is none: a ratio, as machines differ', async () => {
    const email = await newAccount();
    const timeOf = async (one: string) => {
      const started = performance.now();
      await signIn(one, 'wrong', randomUUID());
      return performance.now() - started;
    };
    await timeOf(email);
    const known: number[] = [];
    const unknown: number[] = [];
    for (let k = 0; k < 15; k++) {
      known.push(await timeOf(email));
      unknown.push(await timeOf(`${randomUUID()}@nobody.example`));
    }
    expect(median(unknown) / median(known)).toBeGreaterThan(0.5);
    expect(median(unknown) / median(known)).toBeLessThan(2);
  });

  it('answers with 429 and how long to wait', async () => {
    const email = await newAccount();
    for (let k = 0; k < 8; k++) await post(address, email, 'wrong', { origin: address });
    const answer = await post(address, email, 'wrong', { origin: address });
    expect(answer.status).toBe(429);
    expect(await answer.text()).toMatch(/try again in \d+ minutes/);
    // The other tests come from this address, too.
    await asOwner((client) => client.query('DELETE FROM brakes.tries'));
  });
});

it('visits to the demo without a cookie leave no rows behind', async () => {
  const count = () =>
    asOwner(async (client) => {
      const { rows } = await client.query<{ count: number }>(
        `SELECT count(*)::int AS count FROM sessions WHERE user_id = (SELECT id FROM users WHERE email = $1)`,
        [DEMO_ACCOUNT.email],
      );
      return rows[0]!.count;
    });
  await fetch(address, { redirect: 'manual' });
  const before = await count();
  const visits = await Promise.all(Array.from({ length: 20 }, () => fetch(address, { redirect: 'manual' })));
  for (const visit of visits) expect(visit.headers.get('set-cookie')).toMatch(/^oculon_session=/);
  // Browser tests sign in beside this one.
  expect((await count()) - before).toBeLessThan(5);
});

it('no process that answers strangers holds the connection of the owner of the database', () => {
  const owner = new URL(process.env.OCULON_TEST_OWNER_URL!).password;
  const servers = readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((pid) => {
      try {
        const isServer = readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('build/index.js');
        return isServer ? [readFileSync(`/proc/${pid}/environ`, 'utf8')] : [];
      } catch {
        return [];
      }
    })
    .filter((environment) => environment.includes(`PORT=${new URL(address).port}\0`));
  expect(servers).toHaveLength(1);
  expect(servers[0]).toContain('OCULON_DATABASE_URL=');
  expect(servers[0]).not.toContain(owner);
});

describe('under a public address', () => {
  const name = 'https://oculon.example';
  let server: RunningServer;
  let own: string;

  it('the server takes what comes from there and nothing from elsewhere; its cookies are for https alone', async () => {
    const port = await freePort(0);
    own = `http://127.0.0.1:${port}`;
    server = await startServer({
      port,
      demo: false,
      database: { app: process.env.OCULON_DATABASE_URL!, jobs: process.env.OCULON_TEST_JOBS_URL! },
      publicAddress: name,
      behindProxy: true,
    });
    try {
      expect(server.address).toBe(name);
      const email = await newAccount();
      const headers = { origin: name, 'x-forwarded-for': '203.0.113.7' };
      const welcome = await post(own, email, 'a long password', headers);
      expect(welcome.status).toBe(303);
      expect(welcome.headers.get('set-cookie')).toMatch(/; Secure/i);
      expect((await post(own, email, 'a long password', { ...headers, origin: own })).status).toBe(403);
      // The brake goes by the visitor's address, not by the proxy's.
      for (let k = 0; k < 8; k++) await post(own, email, 'wrong', headers);
      expect((await post(own, email, 'wrong', headers)).status).toBe(429);
      const elsewhere = { ...headers, 'x-forwarded-for': '203.0.113.8' };
      expect((await post(own, email, 'a long password', elsewhere)).status).toBe(303);
    } finally {
      await stopServer(server);
    }
  });
});
