/** The first account, a backup, and a studio that is the same after it was put back: by the commands themselves. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, it } from 'vitest';
import { startCluster } from '../../scripts/run/cluster';
import { asOwner, prepareDatabase } from '../../scripts/run/database';
import { ROOT } from '../../scripts/run/paths';

const folder = mkdtempSync(join(tmpdir(), 'oculon-keep-'));
const first = join(folder, 'first');
const second = join(folder, 'second');
const file = join(folder, 'studio.backup');
afterAll(() => rmSync(folder, { recursive: true, force: true }));

function oculon(args: readonly string[], input = '') {
  const { DATABASE_URL: _none, ...env } = process.env;
  const done = spawnSync(join(ROOT, 'oculon'), args, { input, encoding: 'utf8', env });
  return { code: done.status, output: done.stdout + done.stderr };
}

const TABLES = 'studios users sessions pieces score_versions editions gestures snapshots pages plans'.split(
  ' ',
);

/** Every row of every table, in an order of its own. */
async function everything(data: string) {
  const cluster = await startCluster(data);
  try {
    return await asOwner(cluster.ownerUrl, async (client) => {
      const rows: Record<string, unknown> = {};
      for (const table of TABLES)
        rows[table] = (await client.query(`SELECT * FROM ${table} AS t ORDER BY t::text`)).rows;
      return rows;
    });
  } finally {
    cluster.stop();
  }
}

const account = ['--studio', 'Lime Street', '--teacher', 'Ada Linde', '--email', 'Ada@lime.example'];

it('admin makes a studio and its teacher, once, with a password that is long enough', async () => {
  expect(oculon(['admin', ...account, '--data', first], 'short\n')).toMatchObject({ code: 2 });
  const made = oculon(['admin', ...account, '--data', first], 'seven calm herons\n');
  expect(made.output).toContain('can sign in as Ada@lime.example');
  expect(made.code).toBe(0);
  const again = oculon(['admin', ...account, '--data', first], 'seven calm herons\n');
  expect([again.code, again.output]).toEqual([2, expect.stringContaining('signs in here already')]);
  const { studios, users } = await everything(first);
  expect(studios).toEqual([expect.objectContaining({ name: 'Lime Street' })]);
  expect(users).toEqual([expect.objectContaining({ email: 'ada@lime.example', display_name: 'Ada Linde' })]);
});

it('a new password ends the sessions of before', async () => {
  const before = (await everything(first)).users as { password_hash: string }[];
  const done = oculon(
    ['admin', '--email', 'ada@lime.example', '--new-password', '--data', first],
    'nine calm herons\n',
  );
  expect(done.code).toBe(0);
  const after = (await everything(first)).users as { password_hash: string }[];
  expect(after[0]!.password_hash).not.toBe(before[0]!.password_hash);
  const nobody = oculon(
    ['admin', '--email', 'x@y.example', '--new-password', '--data', first],
    'nine calm herons',
  );
  expect([nobody.code, nobody.output]).toEqual([2, expect.stringContaining('Nobody signs in as')]);
});

it('a studio put back elsewhere is the same to the last row, and never over another unasked', async () => {
  const cluster = await startCluster(first);
  await asOwner(cluster.ownerUrl, async (client) => {
    const { rows } = await client.query<{ studio_id: string; id: string }>('SELECT studio_id, id FROM users');
    const { studio_id: studio, id: user } = rows[0]!;
    const piece = await client.query<{ id: string }>(
      `INSERT INTO pieces (studio_id, title, summary, created_by) VALUES ($1, 'A piece', '{}', $2) RETURNING id`,
      [studio, user],
    );
    await client.query(
      `INSERT INTO score_versions (studio_id, piece_id, number, file_name, kind, source, part_index, next_note, next_bar, created_by)
       VALUES ($1, $2, 1, 'a.musicxml', 'musicxml', '\\x00ff10', 0, 1, 1, $3)`,
      [studio, piece.rows[0]!.id, user],
    );
    const edition = await client.query<{ id: string }>(
      'INSERT INTO editions (studio_id, piece_id, head_seq) VALUES ($1, $2, 1) RETURNING id',
      [studio, piece.rows[0]!.id],
    );
    await client.query(
      `INSERT INTO gestures (studio_id, edition_id, seq, gesture_id, user_id, operations)
       VALUES ($1, $2, 1, gen_random_uuid(), $3, '[]')`,
      [studio, edition.rows[0]!.id, user],
    );
  });
  cluster.stop();
  const before = await everything(first);

  const kept = oculon(['backup', file, '--data', first]);
  expect(kept.output).toContain('studio.backup');
  expect(statSync(file).mode & 0o077).toBe(0);
  expect(oculon(['backup', file, '--data', first]).output).toContain('is there already');
  expect(oculon(['restore', file, '--data', second]).code).toBe(0);
  expect(await everything(second)).toEqual(before);

  const over = oculon(['restore', file, '--data', second]);
  expect([over.code, over.output]).toEqual([2, expect.stringContaining('Lime Street')]);
  oculon(
    ['admin', '--studio', 'Other', '--teacher', 'B', '--email', 'b@lime.example', '--data', second],
    'seven calm herons',
  );
  expect(oculon(['restore', file, '--replace', '--data', second]).code).toBe(0);
  expect(await everything(second)).toEqual(before);
  // What was put back works: the roles, their rights and the jobs are there.
  const there = await startCluster(second);
  const urls = await prepareDatabase(there.ownerUrl, second);
  expect(await asOwner(urls.app, (client) => client.query('SELECT 1 FROM pieces'))).toMatchObject({
    rowCount: 0,
  });
  expect(
    await asOwner(urls.jobs, (client) => client.query('SELECT 1 FROM graphile_worker.jobs')),
  ).toMatchObject({
    rowCount: 0,
  });
  there.stop();
});

it('what is no backup, or damaged, or of a newer Oculon is refused and changes nothing', async () => {
  const before = await everything(second);
  const broken = join(folder, 'broken.backup');
  writeFileSync(broken, readFileSync(file).subarray(0, 3000));
  const text = join(folder, 'text.backup');
  writeFileSync(text, 'no backup');
  for (const one of [broken, text, join(folder, 'nothing')]) {
    const refused = oculon(['restore', one, '--replace', '--data', second]);
    expect(refused.code).toBe(2);
    expect(refused.output).toMatch(/no backup|no file/);
  }
  const cluster = await startCluster(first);
  await asOwner(cluster.ownerUrl, (client) =>
    client.query(`INSERT INTO migrations (name, run_on) VALUES ('9999_from-the-future', now())`),
  );
  const newer = join(folder, 'newer.backup');
  const { backupTo } = await import('../../scripts/run/backup');
  backupTo(newer, cluster.ownerUrl);
  cluster.stop();
  const refused = oculon(['restore', newer, '--replace', '--data', second]);
  expect([refused.code, refused.output]).toEqual([2, expect.stringContaining('9999_from-the-future')]);
  expect(await everything(second)).toEqual(before);
  expect(existsSync(`${newer}.partial`)).toBe(false);
});
