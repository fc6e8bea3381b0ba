/** MEI and ABC: what comes in by way of MusicXML is what Verovio makes of the same music. */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readScore } from '../../src/core/formats/musicxml/readScore';
import { importErrorText } from '../../src/core/messages/en';
import type { Score } from '../../src/core/score/model';
import { readSource } from '../../src/foreign/readSource';
import { loadEngraver } from '../../src/workers/engrave';

const folder = new URL('../../demo/', import.meta.url);
const bytes = (text: string) => new TextEncoder().encode(text);

async function scoreFrom(text: string, fileName: string): Promise<Score> {
  const source = await readSource(bytes(text), fileName);
  if (!source.ok) throw new Error(importErrorText(source.error));
  const document = readScore(source.value.source.text);
  if (!document.ok) throw new Error(importErrorText(document.error));
  return document.value.score;
}

const notesOf = (score: Score) =>
  score.notes.map((note) => [
    note.soundingMidi,
    note.onsetTicks / score.ticksPerQuarter,
    note.durationTicks / score.ticksPerQuarter,
    note.voice,
  ]);

describe('MEI', () => {
  it.each(readdirSync(folder))('%s, written as MEI by Verovio, gives the same score', async (name) => {
    const text = readFileSync(new URL(name, folder), 'utf8');
    const engraver = await loadEngraver();
    engraver.setOptions({ xmlIdSeed: 7 });
    engraver.loadData(text);
    const direct = await scoreFrom(text, name);
    const converted = await scoreFrom(engraver.getMEI({}), name.replace('.musicxml', '.mei'));
    expect(notesOf(converted)).toEqual(notesOf(direct));
    expect(converted.title).toBe(direct.title);
    expect(converted.slurs).toHaveLength(direct.slurs.length);
    expect(converted.keys.map((key) => key.fifths)).toEqual(direct.keys.map((key) => key.fifths));
    expect(converted.measures.map((bar) => [bar.repeatStart, bar.repeatEnd, bar.ending])).toEqual(
      direct.measures.map((bar) => [bar.repeatStart, bar.repeatEnd, bar.ending]),
    );
  });

  it('without music is refused in one sentence', async () => {
    const result = await readSource(bytes('<?xml version="1.0"?><mei xmlns="x"><music/></mei>'), 'a.mei');
    expect(result).toMatchObject({ ok: false, error: { code: 'mei' } });
  });
});

/** Invented. */
const TUNE = `X:1
T:Ferry Steps
M:3/4
L:1/8
Q:1/4=96
K:Gm clef=treble-8
|: (3GAB (c2 d2)|{/c}d4-[dB]2 |1 "Gm"^F2 z4 :|2 =E6 |]
[M:2/4][K:D] .d2 !4!f2|c2 =c2|]
`;

/** Without what Verovio's reader of ABC does not know: graces, ties of chords, changes of key. Invented. */
const PLAIN = `X:1
T:Weir Steps
M:3/4
L:1/8
K:Gm clef=treble-8
GAB c d2|^FGA =B c2|G,2 B2 d2|E4 _e2|D6|]
`;

describe('ABC', () => {
  it('gives the notes that Verovio hears in the same text', async () => {
    const score = await scoreFrom(PLAIN, 'ferry.abc');
    const engraver = await loadEngraver();
    engraver.setOptions({ xmlIdSeed: 7, expandNever: true, inputFrom: 'abc' });
    // Verovio does not know octave clefs in ABC; the tune is read without, an octave higher.
    engraver.loadData(PLAIN.replace(' clef=treble-8', ''));
    const heard = (engraver.renderToTimemap({}) as readonly { on?: string[]; qstamp: number }[]).flatMap(
      ({ on, qstamp }) =>
        (on ?? []).map((id) => [
          (engraver.getMIDIValuesForElement(id) as { pitch: number }).pitch - 12,
          qstamp,
        ]),
    );
    engraver.setOptions({ inputFrom: 'auto' });
    const own = score.notes.map((note) => [note.soundingMidi, note.onsetTicks / score.ticksPerQuarter]);
    expect(own.length).toBeGreaterThan(15);
    expect(own).toEqual(heard);
  });

  it('takes voices that nobody named for those of one player, named ones for parts', async () => {
    const two = (names: readonly [string, string]) =>
      `X:1\nM:3/4\nL:1/4\nK:Am\nV:1${names[0]}\ne d c|B3|\nV:2${names[1]}\nA,3|E,3|\n`;
    const score = await scoreFrom(two(['', '']), 'two.abc');
    const rows = score.notes.map((note) => [note.measureIndex, note.voice, note.soundingMidi]);
    expect(rows.filter(([bar]) => bar === 0).map(([, , midi]) => midi)).toEqual(
      expect.arrayContaining([64, 62, 60, 45]),
    );
    expect(rows).toHaveLength(6);
    expect(new Set(rows.map(([, voice]) => voice)).size).toBe(2);
    const named = await scoreFrom(two([' name="Flute"', ' name="Guitar"']), 'two.abc');
    expect(named.notes.length).toBeLessThan(6);
  });

  it('keeps title, tempo, metre, key, repeats, endings, slurs, graces, fingers and ties', async () => {
    const score = await scoreFrom(TUNE, 'ferry.abc');
    expect(score.title).toBe('Ferry Steps');
    expect(score.tempos).toEqual([{ tick: 0, quartersPerMinute: 96, assumed: false }]);
    expect(score.metres.map(({ beats, beatType }) => `${beats}/${beatType}`)).toEqual(['3/4', '2/4']);
    expect(score.keys.map((key) => [key.fifths, key.mode])).toEqual([
      [-2, 'minor'],
      [2, 'major'],
    ]);
    expect(score.measures.map((bar) => [bar.repeatStart, bar.repeatEnd, bar.ending])).toEqual([
      [true, false, null],
      [false, false, null],
      [false, true, '1'],
      [false, false, '2'],
      [false, false, null],
      [false, false, null],
    ]);
    expect(score.slurs).toHaveLength(1);
    const names = score.notes.map((note) => `${note.pitch.step}${note.pitch.alter}${note.grace ? 'g' : ''}`);
    expect(names).toEqual(
      ['G0', 'A0', 'B-1', 'C0', 'D0', 'C0g', 'D0', 'B-1', 'F1', 'E0', 'D0', 'F1', 'C1', 'C0'].map(String),
    );
    expect(score.notes.filter((note) => note.tiedUids.length > 0)).toHaveLength(1);
    expect(score.notes.find((note) => note.printed.finger === 4)?.pitch.step).toBe('F');
    expect(score.notes.some((note) => note.tags.includes('staccato'))).toBe(true);
    expect(score.notes.slice(0, 3).map((note) => note.durationTicks / score.ticksPerQuarter)).toEqual([
      1 / 3,
      1 / 3,
      1 / 3,
    ]);
  });

  it('is refused with its line when a sign is not ABC or when it holds two tunes', async () => {
    const bad = await readSource(bytes(TUNE.replace('.d2', '`#d2')), 'a.abc');
    expect(bad).toMatchObject({ ok: false, error: { code: 'abc', line: 8 } });
    const two = await readSource(bytes(`${TUNE}\n${TUNE.replace('X:1', 'X:2')}`), 'a.abc');
    expect(two).toMatchObject({ ok: false, error: { code: 'abc', line: 10 } });
    expect(await readSource(bytes('hello'), 'a.abc')).toMatchObject({ ok: false, error: { code: 'abc' } });
  });
});
