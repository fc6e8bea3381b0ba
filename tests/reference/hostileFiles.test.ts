/** Files that are wrong or meant to hurt: each is refused with a sentence, or read as music; nothing is thrown. */
import { zipSync, strToU8 } from 'fflate';
import { describe, expect, it } from 'vitest';
import { importScore } from '../../src/foreign/importScore';
import { LIMITS } from '../../src/core/formats/limits';
import { importErrorText } from '../../src/core/messages/en';
import { pieceSummarySchema, summaryOf } from '../../src/lib/pieceSummary';
import { barXml, documentXml, noteXml, randomFrom } from '../helpers/music';
import { MEI, SEEDS, spoilt } from '../helpers/spoilt';

const NOTE = { midi: 64, onset: 0, length: 2 };
const bytesOf = (text: string) => new TextEncoder().encode(text);

/** Nothing but a piece that can be stored and shown, or a refusal with its sentence. */
async function read(text: string | Uint8Array, name: string): Promise<string> {
  const result = await importScore(typeof text === 'string' ? bytesOf(text) : text, name, null);
  if (!result.ok) {
    expect(importErrorText(result.error).length).toBeGreaterThan(20);
    return result.error.code;
  }
  const summary = summaryOf(result.value.read);
  expect(pieceSummarySchema.safeParse(JSON.parse(JSON.stringify(summary))).success).toBe(true);
  for (const { onsetTicks, durationTicks, soundingMidi } of result.value.read.notes)
    expect([onsetTicks, durationTicks, soundingMidi].every(Number.isFinite)).toBe(true);
  return 'read';
}

const withDuration = (duration: string) =>
  documentXml([noteXml(NOTE).replace('<duration>2</duration>', `<duration>${duration}</duration>`)]);
const withPitch = (from: string, to: string) => barXml([NOTE]).replace(from, to);

describe('numbers that no music has', () => {
  it.each(['1e308', 'Infinity', 'NaN', '-4', '0', '1e9', '', 'two'])(
    'a duration of “%s”',
    async (duration) => {
      expect(await read(withDuration(duration), 'a.musicxml')).toBe('duration');
    },
  );

  it.each(['1e-320', '1e9', '-3', '0.01', 'fast'])('a tempo of “%s” is none', async (tempo) => {
    const xml = barXml([NOTE]).replace(/tempo="\d+"/, `tempo="${tempo}"`);
    const result = await importScore(bytesOf(xml), 'a.musicxml', null);
    expect(result.ok && result.value.read.tempos[0]!.assumed).toBe(true);
  });

  it.each(['toString', '__proto__', 'H', ''])('a step “%s”', async (step) => {
    expect(await read(withPitch('<step>E</step>', `<step>${step}</step>`), 'a.musicxml')).toBe('pitch');
  });

  it.each(['1e21', '99', '-7', '4.5'])('an octave %s', async (octave) => {
    expect(await read(withPitch('<octave>4</octave>', `<octave>${octave}</octave>`), 'a.musicxml')).toBe(
      'pitch',
    );
  });

  it('a repeat a hundred thousand times is a repeat', async () => {
    const times = '<barline location="right"><repeat direction="backward" times="100000"/></barline>';
    const result = await importScore(bytesOf(documentXml([noteXml(NOTE) + times])), 'a.musicxml', null);
    expect(result.ok && result.value.read.measures[0]!.repeatTimes).toBe(16);
  });

  it.each(['A999999999999999999999999', 'A/0', 'A1e300'])('an ABC length %s', async (note) => {
    await read(`X:1\nL:1/4\nK:C\n${note} B c d|\n`, 'a.abc');
  });
});

describe('more than any score', () => {
  it('of empty elements in a small archive', async () => {
    const inner = documentXml(['<print/>'.repeat(LIMITS.elements + 1) + noteXml(NOTE)]);
    const archive = zipSync({ 'score.musicxml': strToU8(inner) });
    expect(archive.length).toBeLessThan(50_000);
    expect(await read(archive, 'a.mxl')).toBe('tooMuch');
  });

  it('of elements inside each other', async () => {
    const deep = '<a>'.repeat(20_000) + '</a>'.repeat(20_000);
    expect(await read(documentXml([deep]), 'a.musicxml')).toBe('tooMuch');
    expect(await read(`<?xml version="1.0"?><mei>${deep}</mei>`, 'a.mei')).toBe('tooMuch');
  });

  it('of bars', async () => {
    const bars = Array.from({ length: LIMITS.bars + 1 }, () => noteXml({ ...NOTE, length: 8 }));
    expect(await read(documentXml(bars), 'a.musicxml')).toBe('tooMuch');
    const abc = `X:1\nL:1/4\nK:C\n${'EEEE|\n'.repeat(8_000)}`;
    expect(await read(abc, 'a.abc')).toBe('tooMuch');
  });

  it('of notes', async () => {
    const grace = `<note><grace/><pitch><step>E</step><octave>4</octave></pitch><voice>1</voice></note>`;
    expect(await read(documentXml([grace.repeat(LIMITS.notes + 1) + noteXml(NOTE)]), 'a.musicxml')).toBe(
      'tooMuch',
    );
  });

  it('of ABC text', async () => {
    expect(await read(`X:1\nK:C\n${'E'.repeat(LIMITS.letters)}\n`, 'a.abc')).toBe('tooMuch');
  });
});

describe('MEI that the engraver cannot make music of', () => {
  it('is read where it is right', async () => expect(await read(MEI, 'a.mei')).toBe('read'));

  it.each([
    ['dots="0"', 'dots="99999"'],
    ['dots="0"', 'dots="x"'],
    ['num="3"', 'num="0"'],
    ['numbase="2"', 'numbase="-1"'],
    ['dur="2"', 'dur="none"'],
    ['oct="4" dur="2"', 'oct="1e30" dur="2"'],
    ['meter.count="4"', 'meter.count="0"'],
  ])('%s as %s', async (from, to) => {
    expect(['mei', 'read', 'duration', 'pitch', 'outside']).toContain(
      await read(MEI.replace(from, to), 'a.mei'),
    );
    // Whatever happened to the engraver, the next file is read.
    expect(await read(MEI, 'a.mei')).toBe('read');
  });
});

const FUZZED = Number(process.env.OCULON_FUZZ ?? 200);

describe('files spoilt by chance', () => {
  it.each([
    ['a.musicxml', SEEDS.musicxml, FUZZED],
    ['a.abc', SEEDS.abc, FUZZED],
    ['a.mei', MEI, FUZZED / 6],
  ] as const)('%s are read or refused', async (name, text, count) => {
    const random = randomFrom(20);
    const outcomes = new Set<string>();
    for (let n = 0; n < count; n++) outcomes.add(await read(spoilt(text, random), name));
    expect(outcomes.size).toBeGreaterThan(2);
  });
});
