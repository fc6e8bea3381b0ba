/**
 * Newer files of the demo pieces, made by changing the files at random: bars taken out and put in, notes changed,
 * ids and bar numbers given anew. Note by note: no ink of an unchanged bar is lost, and none comes to another bar's music.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readScore } from '../../src/core/formats/musicxml/readScore';
import { alignScores } from '../../src/core/score/alignment/align';
import type { Score } from '../../src/core/score/model';
import { randomFrom } from '../helpers/music';

const folder = new URL('../../demo/', import.meta.url);
const MEASURE = /<measure .*?<\/measure>/gs;

function scoreOf(xml: string): Score {
  const document = readScore(xml);
  if (!document.ok) throw new Error(JSON.stringify(document.error));
  return document.value.score;
}

/** Bars by where they come from: an index of the old piece, or −1 for one that was changed or put in. */
interface Mutation {
  readonly xml: string;
  readonly origins: readonly number[];
}

function mutate(xml: string, seed: number): Mutation {
  const random = randomFrom(seed);
  const bars = (xml.match(MEASURE) ?? []).map((text, origin) => ({ text, origin }));
  const pick = () => 1 + Math.floor(random() * (bars.length - 2));
  for (let step = 0; step < 1 + Math.floor(random() * 4); step++) {
    const at = pick();
    const kind = random();
    if (kind < 0.35) bars.splice(at, 1);
    else if (kind < 0.7) {
      const text = bars[pick()]!.text.replace(
        /<octave>(\d)</g,
        (_all, octave: string) => `<octave>${octave === '4' ? 3 : 4}<`,
      );
      bars.splice(at, 0, { text, origin: -1 });
    } else {
      const text = bars[at]!.text.replace(
        /<step>([A-G])</,
        (_all, letter: string) => `<step>${letter === 'A' ? 'B' : 'A'}<`,
      );
      bars[at] = { text, origin: -1 };
    }
  }
  const renumbered = bars.map(({ text }, k) =>
    text
      .replace(/number="[^"]*"/, `number="${k + 1}"`)
      .replace(/<note( id="[^"]*")?>/g, () => `<note id="q${Math.floor(random() * 1e9)}">`),
  );
  const start = xml.search(MEASURE);
  const end = xml.lastIndexOf('</measure>') + '</measure>'.length;
  return {
    xml: xml.slice(0, start) + renumbered.join('\n') + xml.slice(end),
    origins: bars.map((bar) => bar.origin),
  };
}

/** All that a bar holds, as text. */
const musicOf = ({ notes, measures }: Score, bar: number): string =>
  notes
    .filter(({ measureIndex }) => measureIndex === bar)
    .map(
      ({ onsetTicks, durationTicks, soundingMidi, voice }) =>
        `${onsetTicks - measures[bar]!.startTicks} ${durationTicks} ${soundingMidi} ${voice}`,
    )
    .sort()
    .join();

describe.each(readdirSync(folder))('%s', (name) => {
  const xml = readFileSync(new URL(name, folder), 'utf8');
  const old = scoreOf(xml);
  it.each(Array.from({ length: 25 }, (_, seed) => seed + 1))('changed at random (seed %i)', (seed) => {
    const { xml: changed, origins } = mutate(xml, seed);
    const document = readScore(changed);
    // A changed letter can leave the guitar; that file is refused, and carries nothing.
    if (!document.ok) return expect(document.error.code).toBe('outside');
    const random = randomFrom(1000 + seed);
    const inked = new Set(old.notes.filter(() => random() < 0.3).map((note) => note.uid));
    const alignment = alignScores(old, document.value.score, inked);
    const found = new Set(alignment.notes.values());
    const kept = new Set(origins.filter((origin) => origin >= 0));
    const unchanged = [...inked].filter((uid) => {
      const note = old.notes.find((one) => one.uid === uid)!;
      return kept.has(note.measureIndex) && note.tiedUids.length === 0;
    });
    // Note by note: it is found again, unless its bar has a twin of which one went; which of the two nobody can say.
    const hasLostTwin = (bar: number) =>
      old.measures.some((_one, k) => k !== bar && !kept.has(k) && musicOf(old, k) === musicOf(old, bar));
    for (const uid of unchanged) {
      const { measureIndex } = old.notes.find((one) => one.uid === uid)!;
      expect(found.has(uid) || hasLostTwin(measureIndex)).toBe(true);
    }
    // And no ink comes to a bar that is there already for another one: where both hold the same music at most.
    const newer = document.value.score;
    for (const note of newer.notes) {
      const before = alignment.notes.get(note.uid);
      const origin = origins[note.measureIndex]!;
      if (before === undefined || !inked.has(before) || origin < 0) continue;
      const from = old.notes.find((one) => one.uid === before)!.measureIndex;
      expect(from === origin || musicOf(old, from) === musicOf(old, origin)).toBe(true);
    }
    // Ink goes unasked only to a note of the same voice, place and length.
    const placeIn = (
      { measures }: Score,
      { voice, onsetTicks, measureIndex, durationTicks }: Score['notes'][number],
    ) => [voice, onsetTicks - measures[measureIndex]!.startTicks, durationTicks].join(' ');
    for (const note of newer.notes) {
      const before = old.notes.find((one) => one.uid === alignment.notes.get(note.uid));
      if (before && inked.has(before.uid)) expect(placeIn(newer, note)).toBe(placeIn(old, before));
    }
    // A note is never given to two, and every pair is of one pitch.
    const midiOf = new Map(old.notes.map((note) => [note.uid, note.soundingMidi]));
    expect(found.size).toBe(alignment.notes.size);
    for (const note of newer.notes) {
      const before = alignment.notes.get(note.uid);
      if (before) expect(midiOf.get(before)).toBe(note.soundingMidi);
    }
  });
});
