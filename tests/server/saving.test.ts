/** Import and saving over HTTP: bytes unchanged, bad input stores nothing, acknowledged means committed. */
import { beforeAll, describe, expect, it } from 'vitest';
import { replay, storedGestureSchema } from '../../src/core/fingering/edition/operation';
import { DEMO_ACCOUNT } from '../../src/lib/demoAccount';
import { barXml } from '../helpers/music';
import { address, asOwner, editionOf, importAs, sendFile, signInAs, versionOf } from './world';

let cookie: string;
beforeAll(async () => {
  cookie = await signInAs(DEMO_ACCOUNT.email, DEMO_ACCOUNT.password);
});

const xml = barXml([
  { midi: 60, onset: 0, length: 2 },
  { midi: 62, onset: 2, length: 2 },
]).replace(/></g, '>\r\n<');

async function newEdition(): Promise<string> {
  const pieceId = await importAs(cookie, 'two notes.musicxml', xml);
  const { rows } = await asOwner((client) =>
    client.query<{ id: string }>('SELECT id FROM editions WHERE piece_id = $1', [pieceId]),
  );
  return rows[0]!.id;
}

const gesture = (noteUid: string, before: number | null, after: number | null) => ({
  id: crypto.randomUUID(),
  operations: [{ v: 1, noteUid, attribute: 'finger', before, after }],
});

async function append(editionId: string, seenSeq: number, gestures: readonly object[]) {
  const answer = await fetch(`${address}/api/editions/${editionId}/gestures`, {
    method: 'POST',
    headers: { cookie, 'content-type': 'application/json' },
    body: JSON.stringify({ seenSeq, gestures }),
  });
  return { status: answer.status, body: (await answer.json()) as Record<string, unknown> };
}

/** What a history makes, by the core's own replay. */
const replayed = (gestures: readonly object[]) => [
  ...replay(gestures.map((one) => storedGestureSchema.parse(one))).registers,
];

const stored = async (editionId: string) =>
  (
    await asOwner((client) =>
      client.query('SELECT seq FROM gestures WHERE edition_id = $1 ORDER BY seq', [editionId]),
    )
  ).rows.map((row: { seq: number }) => row.seq);

describe('import', () => {
  it('stores the bytes unchanged', async () => {
    const id = await importAs(cookie, 'bytes.musicxml', xml);
    const version = await versionOf(id);
    const source = await fetch(`${address}/api/versions/${version}/document`, { headers: { cookie } });
    expect(await source.text()).toBe(xml);
    expect(source.headers.get('cache-control')).toContain('immutable');
  });

  it.each([
    ['notes.txt', xml, /no kind of file/],
    ['empty.musicxml', '', /empty/],
    ['cut.musicxml', xml.slice(0, 300), /not well-formed/],
    ['page.xml', '<html/>', /<html>/],
    [
      'high.musicxml',
      xml.replaceAll('<octave>4</octave>', '<octave>8</octave>'),
      /Bar 1, voice 1 \(line \d+\): C8 lies outside/,
    ],
    ['broken.mxl', 'PK\u0003\u0004 broken', /cannot be unpacked/],
  ])('%s gets one sentence and stores nothing', async (name, content, sentence) => {
    const count = () =>
      asOwner(
        async (client) =>
          (
            await client.query(
              'SELECT 1 FROM pieces WHERE studio_id = (SELECT studio_id FROM users WHERE email = $1)',
              [DEMO_ACCOUNT.email],
            )
          ).rowCount,
      );
    const before = await count();
    const answer = await sendFile(cookie, name, content);
    expect(answer.status).toBe(422);
    expect(((await answer.json()) as { message: string }).message).toMatch(sentence);
    expect(await count()).toBe(before);
  });
});

describe('saving', () => {
  it('numbers gestures one after the other', async () => {
    const edition = await newEdition();
    const answer = await append(edition, 0, [gesture('n1', null, 1), gesture('n2', null, 3)]);
    expect(answer).toEqual({ status: 200, body: { kind: 'saved', headSeq: 2 } });
    expect(await stored(edition)).toEqual([1, 2]);
  });

  it('does not store a gesture twice when its answer was lost', async () => {
    const edition = await newEdition();
    const first = gesture('n1', null, 1);
    await append(edition, 0, [first]);
    const again = await append(edition, 0, [first, gesture('n2', null, 3)]);
    expect(again.body).toEqual({ kind: 'saved', headSeq: 2 });
    expect(await stored(edition)).toEqual([1, 2]);
  });

  /** The server takes operations of the first form and gives them in the newest. */
  const newest = (first: {
    id: string;
    operations: readonly { noteUid: string; before: unknown; after: unknown }[];
  }) => ({
    id: first.id,
    operations: first.operations.map(({ noteUid, before, after }) => ({
      v: 2,
      target: noteUid,
      attribute: 'finger',
      before,
      after,
    })),
  });

  it('answers with what the client has not seen, and stores nothing then', async () => {
    const edition = await newEdition();
    const first = gesture('n1', null, 1);
    await append(edition, 0, [first]);
    const late = await append(edition, 0, [gesture('n1', null, 4)]);
    expect(late).toEqual({
      status: 409,
      body: { kind: 'behind', headSeq: 1, missing: [{ seq: 1, gesture: newest(first) }] },
    });
    expect(await stored(edition)).toEqual([1]);
  });

  it('keeps every gesture of many that come at once, each with a number of its own', async () => {
    const edition = await newEdition();
    let refused = 0;
    const insist = async (one: object) => {
      for (let seen = 0; ;) {
        const answer = await append(edition, seen, [one]);
        if (answer.status === 200) return;
        refused++;
        seen = answer.body['headSeq'] as number;
      }
    };
    await Promise.all(Array.from({ length: 12 }, () => insist(gesture('n1', null, 1))));
    expect(await stored(edition)).toEqual(Array.from({ length: 12 }, (_, k) => k + 1));
    expect(refused).toBeGreaterThan(0);
  });

  it.each([
    ['a finger that no hand has', { seenSeq: 0, gestures: [gesture('n1', null, 7)] }],
    [
      'an operation without its before',
      {
        seenSeq: 0,
        gestures: [
          { id: crypto.randomUUID(), operations: [{ v: 1, noteUid: 'n1', attribute: 'finger', after: 1 }] },
        ],
      },
    ],
    ['something else', { hello: 1 }],
  ])('refuses %s', async (_what, body) => {
    const edition = await newEdition();
    const answer = await append(edition, 0, (body as { gestures: object[] }).gestures ?? [body]);
    expect(answer.status).toBe(400);
    expect(await stored(edition)).toEqual([]);
  });
});

describe('what a database cannot keep, or has lost', () => {
  const operation = (after: unknown) => ({ v: 2, target: 'n1', attribute: 'finger', before: null, after });

  it.each([
    ['a character 0', { v: 2, target: 'b1', attribute: 'chord', before: null, after: 'A\0m' }],
    ['half a character', { v: 2, target: 'b1', attribute: 'chord', before: null, after: 'A\ud800' }],
  ])('%s is refused', async (_what, one) => {
    const edition = await newEdition();
    const answer = await append(edition, 0, [{ id: crypto.randomUUID(), operations: [one] }]);
    expect(answer.status).toBe(400);
    expect(await stored(edition)).toEqual([]);
  });

  it('one id twice in a request is refused, a number beyond the database as well', async () => {
    const edition = await newEdition();
    const one = gesture('n1', null, 1);
    expect((await append(edition, 0, [one, { ...gesture('n2', null, 2), id: one.id }])).status).toBe(400);
    expect((await append(edition, 2 ** 40, [one])).status).toBe(400);
    expect(await stored(edition)).toEqual([]);
  });

  it('a gesture sent again in capitals is the same gesture', async () => {
    const edition = await newEdition();
    const one = gesture('n1', null, 1);
    expect((await append(edition, 0, [{ ...one, id: one.id.toUpperCase() }])).status).toBe(200);
    expect((await append(edition, 0, [one])).status).toBe(200);
    expect(await stored(edition)).toEqual([1]);
  });

  it('a desk that has seen more than the server knows is told all that it knows', async () => {
    const edition = await newEdition();
    const [first, second] = [gesture('n1', null, 1), gesture('n2', null, 2)];
    expect((await append(edition, 0, [first])).status).toBe(200);
    const answer = await append(edition, 5, [second]);
    expect(answer.status).toBe(409);
    expect(answer.body).toMatchObject({
      kind: 'restored',
      headSeq: 1,
      history: [{ gesture: { id: first.id } }],
    });
    expect(await stored(edition)).toEqual([1]);
  });

  it('a long history is read from its last snapshot, which is what all of it makes', async () => {
    const pieceId = await importAs(cookie, 'long history.musicxml', xml);
    const editionId = await editionOf(pieceId);
    const many = Array.from({ length: 450 }, (_, k) => gesture('n1', k === 0 ? null : k % 5, (k + 1) % 5));
    // One that no longer fits is left out whole, before a snapshot as after it.
    many.splice(120, 0, gesture('n2', 4, 1));
    expect((await append(editionId, 0, many.slice(0, 199))).status).toBe(200);
    expect((await append(editionId, 199, many.slice(199, 451))).body).toMatchObject({ headSeq: 451 });
    const { rows } = await asOwner((client) =>
      client.query('SELECT seq, registers FROM snapshots WHERE edition_id = $1', [editionId]),
    );
    expect(rows).toEqual([{ seq: 451, registers: replayed(many) }]);
    expect((await append(editionId, 451, [gesture('n2', null, 3)])).status).toBe(200);
    const exported = await fetch(`${address}/api/editions/${editionId}/file`, { headers: { cookie } });
    const { marks } = (await exported.json()) as { marks: { target: string; value: number }[] };
    expect(marks.map(({ target, value }) => [target, value])).toEqual([
      ['n1', 450 % 5],
      ['n2', 3],
    ]);
    // Undoing beyond the snapshot is a gesture as any other.
    expect((await append(editionId, 452, [gesture('n1', 450 % 5, 4)])).body).toMatchObject({ headSeq: 453 });
    const desk = await (await fetch(`${address}/desk/${pieceId}`, { headers: { cookie } })).text();
    expect(desk.split(many[3]!.id)).toHaveLength(1);
    expect(await stored(editionId)).toHaveLength(453);
  });

  it('a stored gesture of any size is read: the piece opens, and more is saved', async () => {
    const edition = await newEdition();
    const operations = Array.from({ length: 25_000 }, (_, k) => ({
      ...operation(k % 2 === 0 ? 1 : null),
      before: k % 2 === 0 ? null : 1,
    }));
    const pieceId = await asOwner(async (client) => {
      const { rows } = await client.query<{ studio_id: string; piece_id: string; created_by: string }>(
        `SELECT e.studio_id, e.piece_id, p.created_by FROM editions e JOIN pieces p ON p.id = e.piece_id WHERE e.id = $1`,
        [edition],
      );
      const { studio_id, piece_id, created_by } = rows[0]!;
      await client.query(
        `INSERT INTO gestures (studio_id, edition_id, seq, gesture_id, user_id, operations)
         VALUES ($1, $2, 1, $3, $4, $5)`,
        [studio_id, edition, crypto.randomUUID(), created_by, JSON.stringify(operations)],
      );
      await client.query('UPDATE editions SET head_seq = 1 WHERE id = $1', [edition]);
      return piece_id;
    });
    for (const path of [`/desk/${pieceId}`, `/survey/${pieceId}`]) {
      const answer = await fetch(`${address}${path}`, { headers: { cookie } });
      expect([path, answer.status]).toEqual([path, 200]);
    }
    expect((await append(edition, 1, [gesture('n2', null, 2)])).status).toBe(200);
  });
});

describe('the server', () => {
  it('says that it lives and that it is ready', async () => {
    expect(await (await fetch(`${address}/healthz`)).text()).toBe('ok');
    expect((await fetch(`${address}/readyz`)).status).toBe(200);
  });

  it('sends whoever comes by another name of the machine to its own', async () => {
    const { port } = new URL(address);
    const answer = await fetch(`http://127.0.0.1:${port}/sign-in`, { redirect: 'manual' });
    expect(answer.status).toBe(307);
    expect(answer.headers.get('location')).toBe(`${address}/sign-in`);
  });

  it('takes no write from a page of somebody else', async () => {
    const edition = await newEdition();
    const answer = await fetch(`${address}/api/editions/${edition}/gestures`, {
      method: 'POST',
      headers: { cookie, 'content-type': 'application/json', origin: 'https://elsewhere.example' },
      body: JSON.stringify({ seenSeq: 0, gestures: [gesture('n1', null, 1)] }),
    });
    expect(answer.status).toBe(403);
    expect(await stored(edition)).toEqual([]);
  });

  it('lets nobody keep the pages of somebody who is signed in', async () => {
    const answer = await fetch(`${address}/shelf`, { headers: { cookie } });
    expect(answer.headers.get('cache-control')).toContain('no-store');
  });
});

describe('sign-in', () => {
  it('keeps the password as argon2id and the session token as a hash', async () => {
    const users = await asOwner((client) =>
      client.query<{ password_hash: string }>('SELECT password_hash FROM users'),
    );
    for (const row of users.rows) expect(row.password_hash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
    const token = cookie.split('=')[1]!;
    const sessions = await asOwner((client) =>
      client.query<{ token_hash: Buffer }>('SELECT token_hash FROM sessions'),
    );
    expect(sessions.rows.some((row) => row.token_hash.toString('utf8').includes(token))).toBe(false);
  });

  it('lets nobody in with a wrong password or an unknown address', async () => {
    await expect(signInAs(DEMO_ACCOUNT.email, 'wrong')).rejects.toThrow('sign-in answered');
    await expect(signInAs('nobody@ostenfold.example', DEMO_ACCOUNT.password)).rejects.toThrow(
      'sign-in answered',
    );
  });

  it('serves every page with a content security policy that allows no foreign origin', async () => {
    const answer = await fetch(`${address}/sign-in`);
    const policy = answer.headers.get('content-security-policy') ?? '';
    expect(policy).toContain(`default-src 'self'`);
    expect(policy).toContain(`frame-ancestors 'none'`);
    expect(policy).not.toMatch(/https?:|\*|unsafe-eval'(?<!wasm-unsafe-eval')/);
  });
});
