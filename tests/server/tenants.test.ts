/** No one sees another studio's data: every table and every route is tried as somebody else, and as nobody. */
import pg from 'pg';
import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { closePool, withTransaction } from '../../src/lib/server/db';
import { PLAIN_COPY } from '../../src/core/copy/paper';
import { barXml } from '../helpers/music';
import { address, asOwner, importAs, newStudio } from './world';

const TABLES = [
  'studios',
  'users',
  'sessions',
  'pieces',
  'score_versions',
  'pages',
  'plans',
  'editions',
  'gestures',
  'snapshots',
  'copies',
  'routines',
  'milestones',
];

interface Studio {
  readonly id: string;
  readonly cookie: string;
  readonly pieceId: string;
  readonly editionId: string;
  readonly versionId: string;
  readonly pageKey: string;
  readonly copyId: string;
  readonly routineId: string;
  readonly milestoneId: string;
  readonly plan: { readonly seq: number; readonly key: string };
}

let mine: Studio;
let theirs: Studio;

async function makeStudio(name: string): Promise<Studio> {
  const { id, cookie } = await newStudio(name);
  const pieceId = await importAs(cookie, `${name}.musicxml`, barXml([{ midi: 60, onset: 0, length: 2 }]));
  const edition = await asOwner((client) =>
    client.query<{ id: string }>('SELECT id FROM editions WHERE piece_id = $1', [pieceId]),
  );
  const editionId = edition.rows[0]!.id;
  const prepared = await untilPrepared(cookie, pieceId);
  await append(cookie, editionId);
  await asOwner((client) =>
    client.query(`INSERT INTO snapshots (studio_id, edition_id, seq, registers) VALUES ($1, $2, 1, '[]')`, [
      id,
      editionId,
    ]),
  );
  const copyId = await handOut(cookie, editionId);
  const routineId = await makeRoutine(cookie);
  const milestoneId = await nameState(cookie, editionId);
  return { id, cookie, pieceId, editionId, copyId, routineId, milestoneId, ...prepared };
}

const copyWanted = JSON.stringify({ options: PLAIN_COPY, countedBars: '', forWhom: 'a student' });
const asJson = { 'content-type': 'application/json' };

async function handOut(cookie: string, editionId: string): Promise<string> {
  const answer = await fetch(`${address}/api/editions/${editionId}/copies`, {
    method: 'POST',
    headers: { cookie, origin: address, ...asJson },
    body: copyWanted,
  });
  return ((await answer.json()) as { id: string }).id;
}

async function nameState(cookie: string, editionId: string): Promise<string> {
  const answer = await fetch(`${address}/api/editions/${editionId}/milestones`, {
    method: 'POST',
    headers: { cookie, origin: address, ...asJson },
    body: JSON.stringify({ name: 'before the lesson' }),
  });
  return ((await answer.json()) as { id: string }).id;
}

const routineWanted = JSON.stringify({ title: 'Morning', items: [] });

async function makeRoutine(cookie: string): Promise<string> {
  const answer = await fetch(`${address}/api/routines`, {
    method: 'POST',
    headers: { cookie, origin: address, ...asJson },
    body: routineWanted,
  });
  return ((await answer.json()) as { id: string }).id;
}

/** The shelf asks for page and plan in the background; here they are waited for. */
async function untilPrepared(cookie: string, pieceId: string) {
  for (let attempt = 0; attempt < 200; attempt++) {
    await fetch(`${address}/shelf`, { headers: { cookie } });
    const { rows } = await asOwner((client) =>
      client.query<{ id: string; content_key: string; head_seq: number; plan_key: string }>(
        `SELECT v.id, g.content_key, l.head_seq, l.plan_key FROM score_versions v
         JOIN pages g ON g.version_id = v.id JOIN plans l ON l.version_id = v.id WHERE v.piece_id = $1`,
        [pieceId],
      ),
    );
    const row = rows[0];
    if (row) {
      return {
        versionId: row.id,
        pageKey: row.content_key,
        plan: { seq: row.head_seq, key: row.plan_key },
      };
    }
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('page and plan were not prepared');
}

const gesture = () => ({
  id: crypto.randomUUID(),
  operations: [{ v: 1, noteUid: 'n1', attribute: 'finger', before: null, after: 1 }],
});

const append = (cookie: string, editionId: string) =>
  fetch(`${address}/api/editions/${editionId}/gestures`, {
    method: 'POST',
    headers: { cookie, 'content-type': 'application/json' },
    body: JSON.stringify({ seenSeq: 0, gestures: [gesture()] }),
  });

beforeAll(async () => {
  mine = await makeStudio('alder');
  theirs = await makeStudio('birch');
  const file = await fetch(`${address}/api/editions/${mine.editionId}/file`, {
    headers: { cookie: mine.cookie },
  });
  editionText = await file.text();
});
afterAll(closePool);

describe('the database', () => {
  it.each(TABLES)('shows %s of one studio only', async (table) => {
    const column = table === 'studios' ? 'id' : 'studio_id';
    const seen = await withTransaction(mine.id, (tx) =>
      tx.query<{ owner: string }>(`SELECT ${column} AS owner FROM ${table}`),
    );
    expect(seen.rows.length).toBeGreaterThan(0);
    expect(new Set(seen.rows.map((row) => row.owner))).toEqual(new Set([mine.id]));
  });

  it.each(TABLES)('shows nothing of %s when no studio is set', async (table) => {
    const client = new pg.Client({ connectionString: process.env.OCULON_DATABASE_URL });
    await client.connect();
    expect((await client.query(`SELECT 1 FROM ${table}`)).rows).toEqual([]);
    await client.end();
  });

  it('has row-level security on every table but the list of migrations', async () => {
    const tables = await asOwner((client) =>
      client.query<{ relname: string; relrowsecurity: boolean }>(
        `SELECT relname, relrowsecurity FROM pg_class WHERE relkind = 'r' AND relnamespace = 'public'::regnamespace`,
      ),
    );
    const open = tables.rows.filter((row) => !row.relrowsecurity).map((row) => row.relname);
    expect(open).toEqual(['migrations']);
    expect(
      tables.rows
        .map((row) => row.relname)
        .filter((name) => name !== 'migrations')
        .sort(),
    ).toEqual([...TABLES].sort());
  });

  it('refuses a row that points into another studio', async () => {
    const insert = withTransaction(mine.id, (tx) =>
      tx.query('INSERT INTO editions (studio_id, piece_id) VALUES ($1, $2)', [mine.id, theirs.pieceId]),
    );
    await expect(insert).rejects.toMatchObject({ code: '23503' });
    const foreign = withTransaction(mine.id, (tx) =>
      tx.query('INSERT INTO editions (studio_id, piece_id) VALUES ($1, $2)', [theirs.id, theirs.pieceId]),
    );
    await expect(foreign).rejects.toMatchObject({ code: '42501' });
  });

  it('keeps its background jobs with a role that sees no studio', async () => {
    const client = new pg.Client({ connectionString: process.env.OCULON_TEST_JOBS_URL });
    await client.connect();
    for (const table of TABLES)
      await expect(client.query(`SELECT 1 FROM ${table}`)).rejects.toMatchObject({ code: '42501' });
    await client.end();
  });

  it('is used by a role that owns nothing and cannot change source bytes', async () => {
    const owned = await asOwner((client) =>
      client.query(
        `SELECT 1 FROM pg_class c JOIN pg_roles r ON r.oid = c.relowner WHERE r.rolname = 'oculon_app'`,
      ),
    );
    expect(owned.rows).toEqual([]);
    const change = withTransaction(mine.id, (tx) => tx.query(`UPDATE score_versions SET source = ''`));
    await expect(change).rejects.toMatchObject({ code: '42501' });
  });
});

const formWith = (name: string, content: string) => {
  const form = new FormData();
  form.set('file', new File([content], name));
  return form;
};

/** Of mine; the same music as theirs, so that only the tenant can be the reason for a refusal. */
let editionText = '';

/** Every route with a way to ask it for `studio`'s data. A route without a row here fails the last test. */
const ROUTES: Readonly<Record<string, (studio: Studio) => readonly [string, RequestInit]>> = {
  '/': () => ['/', {}],
  '/sign-in': () => ['/sign-in', {}],
  '/healthz': () => ['/healthz', {}],
  '/readyz': () => ['/readyz', {}],
  '/sign-out': () => ['/sign-out', {}],
  '/shelf': () => ['/shelf', {}],
  '/drills': () => ['/drills', {}],
  '/routines': () => ['/routines', {}],
  '/api/routines': () => ['/api/routines', { method: 'POST', headers: asJson, body: routineWanted }],
  '/api/routines/[routineId]': (studio) => [
    `/api/routines/${studio.routineId}`,
    { method: 'PUT', headers: asJson, body: routineWanted },
  ],
  '/api/routines/[routineId]/page': (studio) => [`/api/routines/${studio.routineId}/page`, {}],
  '/desk/[pieceId]': (studio) => [`/desk/${studio.pieceId}`, {}],
  '/api/pieces': () => ['/api/pieces', { method: 'POST' }],
  '/survey/[pieceId]': (studio) => [`/survey/${studio.pieceId}`, {}],
  '/copy/[pieceId]': (studio) => [`/copy/${studio.pieceId}`, {}],
  '/api/editions/[editionId]/copy': (studio) => [
    `/api/editions/${studio.editionId}/copy`,
    { method: 'POST', headers: asJson, body: copyWanted },
  ],
  '/api/editions/[editionId]/copies': (studio) => [`/api/editions/${studio.editionId}/copies`, {}],
  '/api/copies/[copyId]': (studio) => [`/api/copies/${studio.copyId}`, {}],
  '/api/pieces/[pieceId]': (studio) => [
    `/api/pieces/${studio.pieceId}`,
    { method: 'PATCH', headers: asJson, body: JSON.stringify({ tags: ['exam'] }) },
  ],
  '/api/editions/[editionId]/milestones': (studio) => [`/api/editions/${studio.editionId}/milestones`, {}],
  '/api/milestones/[milestoneId]': (studio) => [
    `/api/milestones/${studio.milestoneId}`,
    { method: 'DELETE' },
  ],
  '/api/editions/[editionId]/registers': (studio) => [
    `/api/editions/${studio.editionId}/registers?seq=1`,
    {},
  ],
  '/api/editions/[editionId]/changes': (studio) => [
    `/api/editions/${studio.editionId}/changes`,
    { signal: AbortSignal.timeout(20_000) },
  ],
  '/api/pieces/[pieceId]/versions': (studio) => [
    `/api/pieces/${studio.pieceId}/versions`,
    { method: 'POST', body: formWith('newer.musicxml', barXml([{ midi: 60, onset: 0, length: 2 }])) },
  ],
  '/api/versions/[versionId]/report': (studio) => [
    `/api/versions/${studio.versionId}/report`,
    { method: 'DELETE' },
  ],
  '/api/versions/[versionId]/document': (studio) => [`/api/versions/${studio.versionId}/document`, {}],
  '/api/versions/[versionId]/first-line': (studio) => [`/api/versions/${studio.versionId}/first-line`, {}],
  '/api/versions/[versionId]/page/[key]': (studio) => [
    `/api/versions/${studio.versionId}/page/${studio.pageKey}`,
    {},
  ],
  '/api/editions/[editionId]/plan/[versionId]': (studio) => [
    `/api/editions/${studio.editionId}/plan/${studio.versionId}?seq=${studio.plan.seq}&key=${encodeURIComponent(studio.plan.key)}`,
    {},
  ],
  '/api/editions/[editionId]/file': (studio) => [`/api/editions/${studio.editionId}/file`, {}],
  '/api/editions/[editionId]/marks': (studio) => [
    `/api/editions/${studio.editionId}/marks`,
    { method: 'POST', body: formWith('edition.json', editionText) },
  ],
  '/api/editions/[editionId]/gestures': (studio) => [
    `/api/editions/${studio.editionId}/gestures`,
    {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ seenSeq: 1, gestures: [gesture()] }),
    },
  ],
};

const ask = (route: string, studio: Studio, cookie: string | null) => {
  const [path, init] = ROUTES[route]!(studio);
  const headers = {
    ...(init.headers as Record<string, string>),
    origin: address,
    ...(cookie ? { cookie } : {}),
  };
  return fetch(address + path, { ...init, headers, redirect: 'manual' });
};

const OF_A_STUDIO = Object.keys(ROUTES).filter((route) => route.includes('['));
const OPEN = ['/', '/sign-in', '/healthz', '/readyz'];

describe('the routes', () => {
  it.each(OF_A_STUDIO)('%s answers its own studio and not another one', async (route) => {
    expect((await ask(route, mine, mine.cookie)).status).toBeLessThan(300);
    const foreign = await ask(route, theirs, mine.cookie);
    expect(foreign.status).toBe(404);
    expect(await foreign.text()).not.toContain(theirs.editionId);
  });

  it.each(Object.keys(ROUTES).filter((route) => !OPEN.includes(route)))(
    '%s sends nobody away',
    async (route) => {
      const answer = await ask(route, mine, null);
      if (route.startsWith('/api/')) expect(answer.status).toBe(401);
      else
        expect([answer.status, answer.headers.get('location')]).toEqual([
          303,
          expect.stringMatching(/^\/sign-in($|\?to=%2F)/),
        ]);
      const forged = await ask(route, mine, 'oculon_session=forged');
      expect(forged.status).toBe(answer.status);
    },
  );

  it('the shelf lists its own pieces', async () => {
    const page = await (await ask('/shelf', mine, mine.cookie)).text();
    expect(page).toContain(mine.pieceId);
    expect(page).not.toContain(theirs.pieceId);
  });

  it('all stand in the table above', () => {
    const root = fileURLToPath(new URL('../../src/routes/', import.meta.url));
    const folders = (folder: string): string[] =>
      readdirSync(folder).flatMap((name) => {
        const path = join(folder, name);
        if (statSync(path).isDirectory()) return folders(path);
        return /^\+(page|server)(\.server)?\.(ts|svelte)$/.test(name) ? [folder] : [];
      });
    const routes = new Set(folders(root).map((folder) => `/${folder.slice(root.length)}`));
    expect([...routes].sort()).toEqual(Object.keys(ROUTES).sort());
  });
});
