import Ajv2020 from 'ajv/dist/2020';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { documentXml, noteXml, scoreOrThrow } from '../../../../tests/helpers/music';
import type { Registers } from '../../fingering/edition/registers';
import { editionFile, editionJsonSchema, readEditionFile } from './editionFile';

const read = scoreOrThrow(
  documentXml([noteXml({ midi: 60, onset: 0, length: 3 }) + noteXml({ midi: 62, onset: 3, length: 5 })]),
);
const registers = new Map<string, string | number | boolean>([
  ['n1 finger', 3],
  ['n2 pitch', 'Eb4'],
  ['n2 mustRing', true],
  ['b1 chord', 'Am'],
  ['piece capo', 2],
]) as Registers;
const score = {
  kind: 'musicxml',
  fileName: 'a.musicxml',
  source: 'AAEC',
  document: null,
  part: 0,
  noteNames: null,
  barNames: null,
} as const;
const file = editionFile({ title: 'Small Gate', score, read, registers });

const V1 = {
  format: 'oculon-edition',
  version: 1,
  title: 'Old',
  score: { fileName: 'old.musicxml', source: 'AAEC' },
  fingering: [
    { note: 'n1', finger: 2, string: null, pluck: 'm' },
    { note: 'n2', finger: null, string: 6, pluck: null },
  ],
};

describe('the open format of editions', () => {
  it('comes back as it went', () => {
    const again = readEditionFile(JSON.stringify(file));
    expect(again).toEqual({ ok: true, value: file });
    expect(file.notes.map((note) => [note.onset, note.duration])).toEqual([
      ['0', '3/2'],
      ['3/2', '5/2'],
    ]);
  });

  it('upcasts the first version', () => {
    const result = readEditionFile(JSON.stringify(V1));
    if (!result.ok) throw new Error();
    expect(result.value).toMatchObject({ version: 2, score: { kind: 'musicxml', part: 0, noteNames: null } });
    expect(result.value.marks).toEqual([
      { target: 'n1', attribute: 'finger', value: 2 },
      { target: 'n1', attribute: 'pluck', value: 'm' },
      { target: 'n2', attribute: 'string', value: 6 },
    ]);
  });

  it.each([
    [{ ...file, marks: [{ target: 'n1', attribute: 'finger', value: 7 }] }, 'marks.0'],
    [{ ...file, marks: [{ target: 'b1', attribute: 'finger', value: 1 }] }, 'marks.0'],
    [{ ...file, score: { ...score, source: 'no base64!' } }, 'score.source'],
    [{ ...file, extra: 1 }, 'the file'],
    [{ ...V1, fingering: [{ note: 'x' }] }, 'fingering.0.note'],
  ])('refuses what does not fit, with the place (%#)', (bad, place) => {
    expect(readEditionFile(JSON.stringify(bad))).toMatchObject({
      ok: false,
      error: { code: 'edition', place },
    });
  });

  describe('the published schema', () => {
    const published = JSON.parse(
      readFileSync(new URL('../../../../docs/formats/oculon-edition-2.schema.json', import.meta.url), 'utf8'),
    ) as object;
    const validate = new Ajv2020({ strict: false }).compile(published);

    it('is the one that the code has', () => expect(published).toEqual(editionJsonSchema()));
    it('takes what is written, by an independent validator (Ajv)', () => {
      expect(validate(file), JSON.stringify(validate.errors)).toBe(true);
    });
    it('refuses what it should', () => {
      expect(validate({ ...file, version: 3 })).toBe(false);
      expect(validate({ ...file, marks: [{ target: 'n1', attribute: 'perfume', value: 1 }] })).toBe(false);
      expect(validate({ ...file, score: { ...score, part: -1 } })).toBe(false);
    });
  });
});
