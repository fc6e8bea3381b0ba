/** Copies that are handed out: kept to the byte, with the state that they show; requests that say nothing of use. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { FORMAT_IDS, FORMATS } from '../../src/core/copy/formats';
import { type CopyOptions, PLAIN_COPY } from '../../src/core/copy/paper';
import { closePool } from '../../src/lib/server/db';
import { barXml } from '../helpers/music';
import { address, asOwner, importAs, newStudio } from './world';

let cookie = '';
let editionId = '';

beforeAll(async () => {
  ({ cookie } = await newStudio('cedar'));
  const notes = [64, 62, 60, 62].map((midi, onset) => ({ midi, onset, length: 1 }));
  const pieceId = await importAs(cookie, 'a walk.musicxml', barXml(notes));
  const { rows } = await asOwner((client) =>
    client.query<{ id: string }>('SELECT id FROM editions WHERE piece_id = $1', [pieceId]),
  );
  editionId = rows[0]!.id;
});
afterAll(closePool);

const post = (path: string, body: unknown) =>
  fetch(`${address}/api/editions/${editionId}/${path}`, {
    method: 'POST',
    headers: { cookie, origin: address, 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
const wanted = (options: Partial<CopyOptions> = {}) => ({
  options: { ...PLAIN_COPY, ...options },
  countedBars: '',
});
const listed = async () =>
  (await (await fetch(`${address}/api/editions/${editionId}/copies`, { headers: { cookie } })).json()) as {
    id: string;
    seq: number;
    forWhom: string;
    fileName: string;
    marks: { id: string; text: string }[];
  }[];
const bytesOf = async (id: string) =>
  Buffer.from(await (await fetch(`${address}/api/copies/${id}`, { headers: { cookie } })).arrayBuffer());

const ink = (finger: number, seenSeq: number) =>
  post('gestures', {
    seenSeq,
    gestures: [
      {
        id: crypto.randomUUID(),
        operations: [{ v: 2, target: 'n2', attribute: 'finger', before: null, after: finger }],
      },
    ],
  });

describe('a copy that is handed out', () => {
  it('is fetched again as it was, whatever has been inked since', async () => {
    expect(
      (await post('copies', { ...wanted({ density: 'full' }), forWhom: 'Mira’s Thursday' })).status,
    ).toBe(201);
    const [first] = await listed();
    expect(first).toMatchObject({ seq: 0, forWhom: 'Mira’s Thursday' });
    expect(first!.fileName).toMatch(/^a walk, every note, \d{4}-\d\d-\d\d\.pdf$/);
    const before = await bytesOf(first!.id);
    expect(before.subarray(0, 5).toString()).toBe('%PDF-');

    expect((await ink(4, 0)).status).toBe(200);
    expect((await post('copies', wanted({ density: 'full' }))).status).toBe(201);
    const [second, again] = await listed();
    expect(again!.id).toBe(first!.id);
    expect(second!.seq).toBe(1);
    expect(Buffer.compare(await bytesOf(first!.id), before)).toBe(0);
    expect(Buffer.compare(await bytesOf(second!.id), before)).not.toBe(0);
    const fingerOf = (copy: typeof first) => copy!.marks.find(({ id }) => id === 'finger:n2')!.text;
    expect(fingerOf(second)).toBe('4');
    expect(fingerOf(first)).not.toBe('4');
  });
});

describe('files', () => {
  it.each(FORMAT_IDS)('%s comes under a name of its kind', async (format) => {
    const answer = await post('copy', { ...wanted(), format });
    expect(answer.status).toBe(200);
    expect(answer.headers.get('content-type')).toBe(FORMATS[format].type);
    const name = decodeURIComponent(answer.headers.get('content-disposition')!.split("''")[1]!);
    expect(name.endsWith(`.${FORMATS[format].extension}`)).toBe(true);
    expect((await answer.arrayBuffer()).byteLength).toBeGreaterThan(40);
  });
});

describe('a request that cannot be meant', () => {
  it.each([
    ['no JSON at all', 'x'],
    ['another paper', wanted({ paper: 'a3' as never })],
    ['something unknown to include', wanted({ include: ['pictures of cats' as never] })],
    ['another kind of file', { ...wanted(), format: 'exe' }],
  ])('%s is refused with a sentence and keeps nothing', async (_what, body) => {
    const before = (await listed()).length;
    for (const path of ['copy', 'copies']) {
      const answer = await post(path, body);
      expect(answer.status).toBe(400);
      expect(((await answer.json()) as { message: string }).message).toMatch(/paper, staff, density/);
    }
    expect(await listed()).toHaveLength(before);
  });
});
