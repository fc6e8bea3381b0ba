/**
 * Copies against the outside: PDF read by `pdfjs-dist`, MIDI by `@tonejs/midi` and compared with Verovio's own, ABC read
 * back by abcjs through the importer, MEI by Verovio, MusicXML against its XSD in `export.test.ts`.
 */
import { readFileSync } from 'node:fs';
import tonejs from '@tonejs/midi';
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Format } from '../../src/core/copy/formats';
import { type CopyOptions, PLAIN_COPY } from '../../src/core/copy/paper';
import { readScore } from '../../src/core/formats/musicxml/readScore';
import { soundingNotes } from '../helpers/soundingNotes';
import { importScore } from '../../src/foreign/importScore';
import { HANDLERS } from '../../src/lib/server/jobs/tasks';
import { loadEngraver } from '../../src/workers/engrave';
import { fingeredText } from '../../src/core/formats/musicxml/exportFingered';
import { pagesOf, prepareFingered } from '../../src/workers/prepareCopy';
import type { DocumentInput } from '../../src/workers/readInput';

const { Midi } = tonejs;
const demo = (name: string) => readFileSync(new URL(`../../demo/${name}.musicxml`, import.meta.url));

const inputOf = (name: string, registers: DocumentInput['registers'] = []): DocumentInput => ({
  bytes: new Uint8Array(demo(name)),
  partIndex: 0,
  uids: null,
  convertedFrom: null,
  registers,
});

const askOf = (
  name: string,
  options: Partial<CopyOptions> = {},
  registers: DocumentInput['registers'] = [],
) => ({
  input: inputOf(name, registers),
  options: { ...PLAIN_COPY, ...options },
  countedBars: '1-2',
  title: 'A Ferry & Others',
  imprint: '29 November 2026, change 7',
});

async function made(
  name: string,
  format: Format,
  options: Partial<CopyOptions> = {},
  registers: DocumentInput['registers'] = [],
): Promise<Uint8Array> {
  const ask = { ...askOf(name, options, registers), date: new Date(0), format, bars: '2-3' };
  return (await HANDLERS.copy(ask)).content;
}

interface ReadPdf {
  readonly pages: readonly {
    readonly widthPt: number;
    readonly heightPt: number;
    readonly words: string;
    readonly operators: ReadonlySet<number>;
    readonly fontsEmbedded: boolean;
  }[];
}

async function readPdf(bytes: Uint8Array): Promise<ReadPdf> {
  const pdf = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  const numbers = Array.from({ length: pdf.numPages }, (_, k) => k + 1);
  const pages = [];
  for (const number of numbers) {
    const page = await pdf.getPage(number);
    const { width, height } = page.getViewport({ scale: 1 });
    const list = await page.getOperatorList();
    const { items, styles } = await page.getTextContent();
    const fonts = Object.keys(styles).map((id) => page.commonObjs.get(id) as { missingFile?: boolean });
    pages.push({
      widthPt: width,
      heightPt: height,
      words: items.map((item) => ('str' in item ? item.str : '')).join(' '),
      operators: new Set(list.fnArray),
      fontsEmbedded: fonts.length > 0 && fonts.every((font) => font.missingFile === false),
    });
  }
  return { pages };
}

const mm = (points: number) => (points / 72) * 25.4;

describe('a copy as PDF', () => {
  const all: Partial<CopyOptions> = {
    include: ['tablature', 'chords', 'form', 'counting', 'remarks', 'legend', 'hotSpots', 'grips'],
    density: 'full',
  };
  let plain: ReadPdf;
  let whole: ReadPdf;
  beforeAll(async () => {
    plain = await readPdf(await made('mill-bridge-dance', 'pdf', { density: 'sparse' }));
    whole = await readPdf(
      await made(
        'mill-bridge-dance',
        'pdf',
        { ...all, paper: 'letter', orientation: 'landscape', staff: 'large' },
        [['b3 remark', 'Let the bass ring.']],
      ),
    );
  });

  it('has the size of its paper', () => {
    expect(mm(plain.pages[0]!.widthPt)).toBeCloseTo(210, 1);
    expect(mm(plain.pages[0]!.heightPt)).toBeCloseTo(297, 1);
    expect(mm(whole.pages[0]!.widthPt)).toBeCloseTo(279.4, 1);
    expect(mm(whole.pages[0]!.heightPt)).toBeCloseTo(215.9, 1);
  });

  it('is vectors and text with its fonts embedded, and no picture', () => {
    for (const { operators, fontsEmbedded } of [...plain.pages, ...whole.pages]) {
      expect(fontsEmbedded).toBe(true);
      expect(operators.has(OPS.constructPath)).toBe(true);
      for (const picture of [OPS.paintImageXObject, OPS.paintInlineImageXObject, OPS.paintImageMaskXObject])
        expect(operators.has(picture)).toBe(false);
    }
  });

  it('says what it is on every page', () => {
    whole.pages.forEach(({ words }, k) => {
      expect(words).toContain('A Ferry & Others');
      expect(words).toContain('29 November 2026, change 7');
      expect(words).toContain(`${k + 1} of ${whole.pages.length}`);
    });
  });

  it('has what was asked for and nothing else', () => {
    const words = whole.pages.map((page) => page.words).join(' ');
    for (const heading of [
      'Remarks',
      'Let the bass ring.',
      'Signs',
      'Hard places, step by step',
      'Chords and grips',
    ])
      expect(words).toContain(heading);
    const few = plain.pages.map((page) => page.words).join(' ');
    expect(few).toContain('Signs');
    for (const heading of ['Hard places', 'Chords and grips', 'Remarks']) expect(few).not.toContain(heading);
  });
});

describe('pages', () => {
  it('have every note once, with its numeral at full density and its fret in the tablature', async () => {
    const fingered = prepareFingered(askOf('mill-bridge-dance', { density: 'full', include: ['tablature'] }));
    const svg = (await pagesOf(fingered)).map((page) => page.svg).join('');
    const { notes } = fingered.exported.plan;
    for (const { uid, string, fret, finger } of notes) {
      expect(svg.match(new RegExp(` id="${uid}"`, 'g'))).toHaveLength(1);
      expect(svg).toMatch(new RegExp(`data-mark="finger" data-uid="${uid}"[^>]*>.*?>${finger}</text>`));
      expect([string, fret]).not.toContain(null);
    }
    expect(svg.match(/data-fret="/g)).toHaveLength(notes.length);
  });

  it('are the same for the same edition, to the last byte', async () => {
    const date = new Date(0);
    const ask = { ...askOf('slow-window', { density: 'teaching' }), date, format: 'pdf' as const, bars: '' };
    const [a, b] = [await HANDLERS.copy(ask), await HANDLERS.copy(ask)];
    expect(Buffer.compare(a.content, b.content)).toBe(0);
    expect(a.marks.length).toBeGreaterThan(10);
  });
});

describe('a picture', () => {
  it('shows its bars and no other, without a single text or font', async () => {
    const svg = new TextDecoder().decode(await made('mill-bridge-dance', 'svg'));
    expect(svg).not.toMatch(/<text|font-family|<image|<script/);
    const document = readScore(demo('mill-bridge-dance').toString('utf8'));
    if (!document.ok) throw new Error();
    const shown = [...svg.matchAll(/ id="(n\d+)"/g)].map((match) => match[1]);
    const { notes, measures } = document.value.score;
    const wanted = notes
      .filter(({ measureIndex }) => ['2', '3'].includes(measures[measureIndex]!.number))
      .map(({ uid }) => uid);
    expect(shown.sort()).toEqual(wanted.sort());
  });

  it('as PNG is as wide as it is on paper at 300 dots an inch', async () => {
    const png = await made('mill-bridge-dance', 'png');
    // Source: PNG specification (ISO/IEC 15948), signature and IHDR.
    expect([...png.slice(0, 8)]).toEqual([137, 80, 78, 71, 13, 10, 26, 10]);
    const width = new DataView(png.buffer, png.byteOffset).getUint32(16);
    expect(width).toBeGreaterThan((60 / 25.4) * 300);
    expect(width).toBeLessThan((200 / 25.4) * 300);
  });
});

describe.each(['late-ferry', 'rain-on-tin', 'weir-etude'])('%s for other programs', (name) => {
  const score = soundingNotes(demo(name).toString('utf8'));

  it('as MIDI has the notes, times and tempo that Verovio plays', async () => {
    const own = new Midi(await made(name, 'midi'));
    const engraver = await loadEngraver();
    engraver.setOptions({ xmlIdSeed: 7, expandNever: true });
    engraver.loadData(demo(name).toString('utf8'));
    const theirs = new Midi(Buffer.from(engraver.renderToMIDI(), 'base64'));
    const heard = (midi: InstanceType<typeof Midi>) =>
      midi.tracks
        .flatMap(({ notes }) => notes)
        .map(({ midi: pitch, ticks, durationTicks }) => ({
          name: `${pitch} ${(ticks / midi.header.ppq).toFixed(2)}`,
          length: durationTicks / midi.header.ppq,
        }))
        .sort((a, b) => a.name.localeCompare(b.name) || a.length - b.length);
    const [ours, verovios] = [heard(own), heard(theirs)];
    expect(ours.map((note) => note.name)).toEqual(verovios.map((note) => note.name));
    // Verovio lets go a tick of its coarser grid early.
    const otherwise = ours.filter(({ length }, k) => Math.abs(length - verovios[k]!.length) > 0.02);
    expect(otherwise).toEqual([]);
    expect(own.header.tempos[0]!.bpm).toBeCloseTo(theirs.header.tempos[0]!.bpm, 0);
    expect(own.header.timeSignatures[0]!.timeSignature).toEqual(
      theirs.header.timeSignatures[0]!.timeSignature,
    );
  });

  it('as MIDI by string has a channel for each string and the same notes', async () => {
    const midi = new Midi(await made(name, 'midiByString'));
    const channels = midi.tracks.filter(({ notes }) => notes.length > 0);
    for (const { name: string } of channels) expect(string).toMatch(/^string [1-6]$/);
    expect(new Set(channels.map(({ channel }) => channel)).size).toBe(channels.length);
    expect(channels.flatMap(({ notes }) => notes)).toHaveLength(score.length);
  });

  it('as ABC is read back with the same notes and the same fingers', async () => {
    const abc = await made(name, 'abc', { density: 'full' });
    const back = await importScore(abc, 'back.abc', null);
    if (!back.ok) throw new Error(back.error.code);
    const order = (a: string, b: string) => a.localeCompare(b);
    const text = new TextDecoder().decode(back.value.document ?? new Uint8Array());
    expect(
      soundingNotes(text, 'abc')
        .map((one) => one.key)
        .sort(order),
    ).toEqual(score.map((one) => one.key).sort(order));
    const fingers = (new TextDecoder().decode(abc).match(/![0-4]!/g) ?? []).length;
    expect(fingers).toBe(score.length);
  });

  it('as MEI is read by Verovio with the same notes and fingers', async () => {
    const mei = new TextDecoder().decode(await made(name, 'mei', { density: 'full' }));
    const engraver = await loadEngraver();
    expect(engraver.loadData(mei)).toBeTruthy();
    expect(mei.match(/<fing\b/g)).toHaveLength(score.length);
    expect(engraver.getMEI({}).match(/<note\b/g)!.length).toBeGreaterThanOrEqual(score.length);
  });

  it('at a density has the marks of the page and gives the original back without them', () => {
    const { exported, text } = prepareFingered(askOf(name, { density: 'sparse' }));
    const { document, plan, marks, source } = exported;
    const fingers = new Set(marks.filter(({ kind }) => kind === 'finger').map(({ uid }) => uid));
    const letters = new Set(marks.filter(({ kind }) => kind === 'pluck').map(({ uid }) => uid));
    const none = { fingers, strings: new Set<string>(), letters, positions: [] };
    const out = fingeredText(source, document, plan, { signs: none });
    expect(out.match(/<fingering>/g) ?? []).toHaveLength(fingers.size);
    expect(out.match(/<pluck>/g) ?? []).toHaveLength(letters.size);
    expect(out).not.toContain('<string>');
    expect(
      out
        .replace(/<notations><technical>.*?<\/technical><\/notations>/g, '')
        .replace(/<technical>(<(fingering|pluck)>[^<]*<\/\2>)*<\/technical>/g, '')
        .replace(
          /<direction placement="above"><direction-type><words>[^<]*<\/words><\/direction-type><direction-type><bracket[^>]*\/><\/direction-type><\/direction>/g,
          '',
        )
        .replace(
          /<direction placement="above"><direction-type><bracket[^>]*\/><\/direction-type><\/direction>/g,
          '',
        ),
    ).toBe(text);
  });

  it('as a table has a row for every note', async () => {
    const rows = new TextDecoder()
      .decode(await made(name, 'notes'))
      .trim()
      .split('\r\n');
    expect(rows).toHaveLength(score.length + 1);
    expect(rows[0]).toBe('bar,beat,voice,pitch,midi,string,fret,finger,letter,state');
    expect(rows.slice(1).every((row) => row.split(',').length === 10)).toBe(true);
    const hand = new TextDecoder()
      .decode(await made(name, 'hand'))
      .trim()
      .split('\r\n');
    expect(hand.length).toBeGreaterThan(5);
  });
});
