/** Newer files of a piece, editions as files, and what the background makes ready. */
import { gunzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { EngravedPage } from '../../src/core/engraving/page';
import { closePool } from '../../src/lib/server/db';
import { documentXml, noteXml } from '../helpers/music';
import { address, asOwner, editionOf, importAs, postFile, newStudio, untilThere, versionOf } from './world';

let cookie: string;
let studioId: string;
beforeAll(async () => {
  ({ cookie, id: studioId } = await newStudio('cedar'));
});
afterAll(closePool);

const bar = (midis: readonly number[]) =>
  midis.map((midi) => noteXml({ midi, onset: 0, length: 2 })).join('');
const OLD = documentXml([bar([60, 62, 64, 65]), bar([67, 65, 64, 62]), bar([60, 64, 67, 72])]);
/** A new first bar; the second bar's third note changed; ids and bar numbers are another program's. */
const NEWER = documentXml([
  bar([48, 50, 52, 53]),
  bar([60, 62, 64, 65]),
  bar([67, 65, 63, 62]),
  bar([60, 64, 67, 72]),
]).replace(/<note>/g, () => `<note id="x${Math.random().toString(36).slice(2)}">`);

const mark = (target: string, attribute: string, value: unknown) => ({
  v: 2,
  target,
  attribute,
  before: null,
  after: value,
});

async function ink(editionId: string, operations: readonly object[], seenSeq = 0) {
  const answer = await fetch(`${address}/api/editions/${editionId}/gestures`, {
    method: 'POST',
    headers: { cookie, 'content-type': 'application/json' },
    body: JSON.stringify({ seenSeq, gestures: [{ id: crypto.randomUUID(), operations }] }),
  });
  expect(answer.status).toBe(200);
}

const sourceBytes = async (pieceId: string): Promise<readonly string[]> => {
  const { rows } = await asOwner((client) =>
    client.query<{ source: Buffer }>(
      'SELECT source FROM score_versions WHERE piece_id = $1 ORDER BY number',
      [pieceId],
    ),
  );
  return rows.map((row) => row.source.toString());
};

describe('a newer file', () => {
  it('keeps every mark on its note, lists those without one, and keeps the old file', async () => {
    const pieceId = await importAs(cookie, 'old.musicxml', OLD);
    await ink(await editionOf(pieceId), [
      mark('n2', 'finger', 3),
      mark('n7', 'finger', 2),
      mark('n12', 'pluck', 'a'),
      mark('n12', 'string', 1),
    ]);
    const answer = await postFile(cookie, `/api/pieces/${pieceId}/versions`, 'newer.musicxml', NEWER);
    expect(answer.status).toBe(201);
    expect(answer.body).toMatchObject({
      carried: 3,
      barsAdded: ['1'],
      barsGone: [],
      notesAdded: 5,
      notesGone: 1,
      lost: [{ uid: 'n7', bar: '2', note: 'E4', attribute: 'finger', value: 2 }],
    });
    expect(await sourceBytes(pieceId)).toEqual([OLD, NEWER]);
    const { rows } = await asOwner((client) =>
      client.query<{ note_uids: string[]; bar_uids: string[] }>(
        'SELECT note_uids, bar_uids FROM score_versions WHERE piece_id = $1 AND number = 2',
        [pieceId],
      ),
    );
    const fresh = rows[0]!.note_uids.filter((uid) => Number(uid.slice(1)) > 12);
    expect(rows[0]!.note_uids.slice(4, 8)).toEqual(['n1', 'n2', 'n3', 'n4']);
    expect(fresh).toHaveLength(5);
    expect(rows[0]!.bar_uids).toEqual(['b4', 'b1', 'b2', 'b3']);
  });

  it('asks about marks whose note is not certain, and one step back undoes all of it', async () => {
    const pieceId = await importAs(cookie, 'old.musicxml', OLD);
    const editionId = await editionOf(pieceId);
    await ink(editionId, [mark('n2', 'finger', 3), mark('n7', 'finger', 2), mark('n12', 'string', 1)]);
    // The second note gets another length; the third bar's last note goes, and with it its mark.
    const changed = documentXml([
      [60, 62, 64].map((midi, k) => noteXml({ midi, onset: 0, length: [2, 4, 2][k]! })).join(''),
      bar([67, 65, 64, 62]),
      bar([60, 64, 67]),
    ]);
    const answer = await postFile(cookie, `/api/pieces/${pieceId}/versions`, 'newer.musicxml', changed);
    expect(answer).toMatchObject({ status: 201, body: { carried: 1 } });
    const { check, lost } = answer.body as { check: { to: string }[]; lost: object[] };
    expect(check).toEqual([
      expect.objectContaining({
        from: 'n2',
        doubt: 'length',
        bar: '1',
        note: 'D4',
        attribute: 'finger',
        value: 3,
      }),
    ]);
    expect(lost).toEqual([expect.objectContaining({ uid: 'n12', attribute: 'string', value: 1 })]);
    const { to } = check[0]!;

    // The report waits until it has been read.
    const versionId = await versionOf(pieceId);
    const deskText = async () => (await fetch(`${address}/desk/${pieceId}`, { headers: { cookie } })).text();
    expect(await deskText()).toContain('reportRead:false');
    const del = (path: string) =>
      fetch(address + path, { method: 'DELETE', headers: { cookie, origin: address } });
    expect((await del(`/api/versions/${versionId}/report`)).status).toBe(200);
    expect(await deskText()).toContain('reportRead:true');

    // Taken over, and the mark without a note dropped; then all of it undone.
    await ink(
      editionId,
      [
        mark(to, 'finger', 3),
        { ...mark('n2', 'finger', null), before: 3 },
        { ...mark('n12', 'string', null), before: 1 },
      ],
      1,
    );
    expect((await del(`/api/pieces/${pieceId}/versions?number=2`)).status).toBe(200);
    const file = await fetch(`${address}/api/editions/${editionId}/file`, { headers: { cookie } });
    const { marks, score } = (await file.json()) as { marks: object[]; score: { fileName: string } };
    expect(score.fileName).toBe('old.musicxml');
    expect(marks).toHaveLength(3);
    expect(marks).toEqual(
      expect.arrayContaining([
        expect.objectContaining({ target: 'n2', attribute: 'finger', value: 3 }),
        expect.objectContaining({ target: 'n7', attribute: 'finger', value: 2 }),
        expect.objectContaining({ target: 'n12', attribute: 'string', value: 1 }),
      ]),
    );
    // Once is enough, and the next newer file gets names of its own.
    expect((await del(`/api/pieces/${pieceId}/versions?number=2`)).status).toBe(422);
    const again = await postFile(cookie, `/api/pieces/${pieceId}/versions`, 'newer.musicxml', changed);
    expect((again.body as unknown as { check: { to: string }[] }).check[0]!.to).not.toBe(to);
    expect(await sourceBytes(pieceId)).toHaveLength(3);
  });

  it('of another piece is refused and changes nothing', async () => {
    const pieceId = await importAs(cookie, 'old.musicxml', OLD);
    const other = documentXml([bar([45, 46, 49, 51]), bar([76, 78, 73, 75])]);
    const answer = await postFile(cookie, `/api/pieces/${pieceId}/versions`, 'other.musicxml', other);
    expect(answer).toMatchObject({
      status: 422,
      body: { message: expect.stringMatching(/another piece/) as unknown },
    });
    expect(await sourceBytes(pieceId)).toEqual([OLD]);
  });

  it('that cannot be read is refused and changes nothing', async () => {
    const pieceId = await importAs(cookie, 'old.musicxml', OLD);
    const answer = await postFile(
      cookie,
      `/api/pieces/${pieceId}/versions`,
      'cut.musicxml',
      NEWER.slice(0, 400),
    );
    expect(answer.status).toBe(422);
    expect(await sourceBytes(pieceId)).toEqual([OLD]);
  });

  it('sent twice at once gives one version or two in a row, never two of a number', async () => {
    const pieceId = await importAs(cookie, 'old.musicxml', OLD);
    const send = () => postFile(cookie, `/api/pieces/${pieceId}/versions`, 'newer.musicxml', NEWER);
    const answers = await Promise.all([send(), send()]);
    expect(answers.some((answer) => answer.status === 201)).toBe(true);
    const made = answers.filter((answer) => answer.status === 201).length;
    expect(await sourceBytes(pieceId)).toHaveLength(1 + made);
  });
});

describe('a score of several parts', () => {
  const two = OLD.replace(
    '</part-list>',
    '<score-part id="P2"><part-name>Flute</part-name></score-part></part-list>',
  ).replace(
    '</score-partwise>',
    OLD.slice(OLD.indexOf('<part id="P1">'), OLD.indexOf('</score-partwise>'))
      .replace('P1', 'P2')
      .replace(/<octave>4/g, '<octave>5') + '</score-partwise>',
  );
  it('gives the guitar, says which parts there are, and gives another one when asked', async () => {
    const first = await postFile(cookie, '/api/pieces', 'duo.musicxml', two);
    expect(first).toMatchObject({ status: 201, body: { partIndex: 0 } });
    expect((first.body['parts'] as { name: string }[]).map((part) => part.name)).toEqual(['Guitar', 'Flute']);
    const second = await postFile(cookie, '/api/pieces', 'duo.musicxml', two, 1);
    expect(second.body['partIndex']).toBe(1);
    const third = await postFile(cookie, '/api/pieces', 'duo.musicxml', two, 7);
    expect(third).toMatchObject({
      status: 422,
      body: { message: expect.stringMatching(/no part 8/) as unknown },
    });
  });
});

describe('an edition as a file', () => {
  it('goes out, comes in as a new piece with all its marks, and gives the same file again', async () => {
    const pieceId = await importAs(cookie, 'old.musicxml', OLD);
    const editionId = await editionOf(pieceId);
    await ink(editionId, [
      mark('n2', 'finger', 3),
      mark('n3', 'pitch', 'F4'),
      mark('b2', 'chord', 'G7'),
      mark('piece', 'tempo', 72),
    ]);
    await postFile(cookie, `/api/pieces/${pieceId}/versions`, 'newer.musicxml', NEWER);
    const read = async (id: string) =>
      (await fetch(`${address}/api/editions/${id}/file`, { headers: { cookie } })).json();
    const file = (await read(editionId)) as Record<string, unknown>;
    const answer = await postFile(cookie, '/api/pieces', 'mine.oculon.json', JSON.stringify(file));
    expect(answer.status).toBe(201);
    expect(await read(await editionOf(answer.body['id'] as string))).toEqual(file);
  });

  it('that is broken is refused with the place, and nothing is stored', async () => {
    const count = () =>
      asOwner((client) => client.query('SELECT 1 FROM pieces WHERE studio_id = $1', [studioId]));
    const before = await count();
    for (const [text, place] of [
      ['{', /no JSON/],
      ['{"format":"oculon-edition","version":9}', /newer than this/],
      ['{"format":"oculon-edition","version":2,"title":"x","score":{}}', /score\.kind/],
      ['[]', /no edition/],
    ] as const) {
      const answer = await postFile(cookie, '/api/pieces', 'bad.json', text);
      expect(answer).toMatchObject({
        status: 422,
        body: { message: expect.stringMatching(place) as unknown },
      });
    }
    const after = await count();
    expect(after.rowCount).toBe(before.rowCount);
  });

  it('lends its marks to another file of the same piece, and never over ink that is there', async () => {
    const first = await importAs(cookie, 'old.musicxml', OLD);
    await ink(await editionOf(first), [mark('n1', 'finger', 3), mark('n12', 'finger', 4)]);
    const file = await (
      await fetch(`${address}/api/editions/${await editionOf(first)}/file`, { headers: { cookie } })
    ).text();
    const second = await importAs(cookie, 'newer.musicxml', NEWER);
    const editionId = await editionOf(second);
    await ink(editionId, [mark('n16', 'finger', 1)]);
    const answer = await postFile(cookie, `/api/editions/${editionId}/marks`, 'lent.json', file);
    expect(answer).toEqual({ status: 201, body: { taken: 1, lost: 0 } });
    const exported = (await (
      await fetch(`${address}/api/editions/${editionId}/file`, { headers: { cookie } })
    ).json()) as {
      marks: { target: string; value: unknown }[];
    };
    expect(exported.marks.map(({ target, value }) => [target, value]).sort()).toEqual([
      ['n16', 1],
      ['n5', 3],
    ]);
  });
});

describe('the background', () => {
  it('makes page, picture and plan of an imported piece, and the page holds every note', async () => {
    const pieceId = await importAs(cookie, 'ready.musicxml', OLD);
    const row = await untilThere(
      `SELECT g.content, g.first_line, l.content AS plan, l.summary FROM score_versions v
       JOIN pages g ON g.version_id = v.id JOIN plans l ON l.version_id = v.id WHERE v.piece_id = $1`,
      pieceId,
    );
    const page = JSON.parse(gunzipSync(row['content'] as Buffer).toString()) as {
      page: { notes: unknown[] };
    };
    expect(page.page.notes).toHaveLength(12);
    expect(row['first_line']).toMatch(/^<svg /);
    const plan = JSON.parse(gunzipSync(row['plan'] as Buffer).toString()) as {
      notes: unknown[];
      cost: number;
    };
    expect(plan.notes).toHaveLength(12);
    expect(row['summary']).toMatchObject({ unplayable: 0 });
    const version = await versionOf(pieceId);
    const picture = await fetch(`${address}/api/versions/${version}/first-line`, { headers: { cookie } });
    expect(picture.headers.get('content-type')).toBe('image/svg+xml');
    expect(picture.headers.get('content-security-policy')).toContain("default-src 'none'");
  });

  it('has the first systems of a long piece at once, and all of a short one', async () => {
    const long = documentXml(Array.from({ length: 60 }, (_, k) => bar([60, 62 + (k % 3), 64, 65])));
    const pieceId = await importAs(cookie, 'long.musicxml', long);
    const keys = await asOwner((client) =>
      client.query<{ content_key: string }>(
        `SELECT g.content_key FROM pages g JOIN score_versions v ON v.id = g.version_id WHERE v.piece_id = $1`,
        [pieceId],
      ),
    );
    expect(keys.rows.map((row) => row.content_key)).toContainEqual(expect.stringMatching(/^beginning /));
    const beginning = keys.rows.find((row) => row.content_key.startsWith('beginning '))!;
    const path = `/api/versions/${await versionOf(pieceId)}/page/${encodeURIComponent(beginning.content_key)}`;
    const page = (await (await fetch(address + path, { headers: { cookie } })).json()) as {
      page: { notes: unknown[] };
      score: { notes: unknown[] };
    };
    expect([page.page.notes.length, page.score.notes.length]).toEqual([24 * 4, 60 * 4]);
    const short = await importAs(cookie, 'short.musicxml', OLD);
    const there = await asOwner((client) =>
      client.query(
        `SELECT 1 FROM pages g JOIN score_versions v ON v.id = g.version_id WHERE v.piece_id = $1`,
        [short],
      ),
    );
    expect(there.rowCount).toBe(1);
  });

  it('takes ABC and MEI, keeps the file as it came, and reads the MusicXML it became', async () => {
    const tune = 'X:1\nT:Small Gate\nM:4/4\nL:1/4\nK:C clef=treble-8\nCDEF|GABc|]\n';
    const pieceId = await importAs(cookie, 'gate.abc', tune);
    expect(await sourceBytes(pieceId)).toEqual([tune]);
    const version = await versionOf(pieceId);
    const read = (as: string) =>
      fetch(`${address}/api/versions/${version}/document${as}`, { headers: { cookie } });
    expect(await (await read('?as=imported')).text()).toBe(tune);
    expect(await (await read('')).text()).toContain('<score-partwise');
    const shelf = await (await fetch(`${address}/shelf`, { headers: { cookie } })).text();
    expect(shelf).toContain('Small Gate');
  });

  it('lets no markup of a file through: title, words and lyrics are text', async () => {
    const evil = '&lt;script&gt;alert(1)&lt;/script&gt;&lt;img src=x onerror=alert(2)&gt;';
    const xml = OLD.replace('<part-list>', `<work><work-title>${evil}</work-title></work><part-list>`)
      .replace(
        '<note>',
        `<direction><direction-type><words>${evil}</words></direction-type></direction><note>`,
      )
      .replace('</note>', `<lyric><text>${evil}</text></lyric></note>`);
    const pieceId = await importAs(cookie, 'evil.musicxml', xml);
    const row = await untilThere(
      'SELECT g.content, g.first_line FROM score_versions v JOIN pages g ON g.version_id = v.id WHERE v.piece_id = $1',
      pieceId,
    );
    const { page } = JSON.parse(gunzipSync(row['content'] as Buffer).toString()) as {
      page: Pick<EngravedPage, 'glyphs' | 'systems'>;
    };
    const drawn = page.systems.flatMap(({ svg, tempos }) => [svg, ...tempos.map((words) => words.svg)]);
    expect(drawn.join('')).toContain('&lt;');
    for (const text of [page.glyphs, ...drawn, row['first_line'] as string])
      expect(text).not.toMatch(/<script|<img|onerror=(?!alert\(2\)&gt;)/);
    const shelf = await (await fetch(`${address}/shelf`, { headers: { cookie } })).text();
    expect(shelf).not.toContain('<script>alert(1)');
    expect(shelf).not.toContain('<img src=x');
  });
});
