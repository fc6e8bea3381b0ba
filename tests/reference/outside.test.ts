/** Files with notes that no guitar has: read with those notes marked, and offered at pitches where more of it fits. */
import { describe, expect, it } from 'vitest';
import { transpositionsOf } from '../../src/core/fingering/choices/transpositions';
import { Planner } from '../../src/core/fingering/planner';
import { correctionSplices } from '../../src/core/formats/musicxml/correctionSplices';
import { applySplices } from '../../src/core/formats/musicxml/splice';
import { readScore } from '../../src/core/formats/musicxml/readScore';
import { CONCERT_FRETBOARD } from '../../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../../src/core/instrument/hands';
import { midiOf } from '../../src/core/music/pitch';
import { type Corrections, NO_CORRECTIONS } from '../../src/core/score/corrections';
import { documentXml, noteXml, randomFrom } from '../helpers/music';

const xmlOf = (bars: readonly (readonly number[])[], fifths = 0) =>
  documentXml(
    bars.map((midis) => midis.map((midi) => noteXml({ midi, onset: 0, length: 2 })).join('')),
  ).replace(/<\/divisions>/, `</divisions><key><fifths>${fifths}</fifths></key>`);
const transposed = (semitones: number): Corrections => ({
  ...NO_CORRECTIONS,
  piece: { transpose: semitones },
});

function documentOf(xml: string, corrections: Corrections = NO_CORRECTIONS) {
  const read = readScore(xml, { corrections });
  if (!read.ok) throw new Error(JSON.stringify(read.error));
  return read.value;
}

const writtenAt = (xml: string, semitones: number) =>
  applySplices(xml, correctionSplices(documentOf(xml, transposed(semitones)), NO_CORRECTIONS.notes).splices);

/** The bass goes to C2 in the second bar: no usual tuning reaches it. */
const LOW = xmlOf([
  [48, 55, 60, 64],
  [36, 55, 60, 64],
  [43, 55, 59, 62],
  [48, 55, 60, 64],
]);

describe('a file with a note outside the guitar', () => {
  it('is read; the note is named, not played, and ways out are offered', () => {
    const { score } = documentOf(LOW);
    expect(score.notes).toHaveLength(16);
    expect(score.tuningId).toBe('standard');
    expect(score.notices).toEqual([{ code: 'outside', measureIndex: 1, measure: '2', count: 1 }]);
    const plan = new Planner(score, CONCERT_FRETBOARD, ADULT_MEDIUM).plan(new Map());
    const outside = plan.findings.filter(({ code }) => code === 'outside');
    expect(outside).toEqual([expect.objectContaining({ uids: ['n5'], lowest: 'E2' })]);
    const remedies = outside.flatMap((finding) => ('remedies' in finding ? finding.remedies : []));
    expect(remedies.map(({ kind, value }) => [kind, value])).toEqual([
      ['noteOctaveUp', 'C3'],
      ['leaveOut', true],
    ]);
    // Everything else is fingered, and the price is one that can be compared.
    expect(plan.notes.filter(({ string }) => string === null).map(({ uid }) => uid)).toEqual(['n5']);
    expect(plan.cost).toBe(plan.lowerBound);
    expect(plan.cost).toBeLessThan(2000);
  });

  it('is refused only where nothing can be played', () => {
    expect(readScore(xmlOf([[90, 92, 95, 96]]))).toMatchObject({
      ok: false,
      error: { code: 'outside', measure: '1' },
    });
  });

  it('is offered where it fits: fewest notes outside first, then nearest, the present pitch on top', () => {
    const rows = transpositionsOf(documentOf(LOW).score, ADULT_MEDIUM, 3);
    expect(rows[0]).toEqual({ semitones: 0, fifths: 0, outside: 1 });
    // C2 needs four semitones up to be the open sixth string.
    expect(rows.slice(1).map(({ semitones, outside }) => [semitones, outside])).toEqual([
      [4, 0],
      [5, 0],
      [6, 0],
    ]);
  });

  it('says the sixth is tuned to D where that reaches a note, and only there', () => {
    expect(documentOf(xmlOf([[38, 55, 60, 64]])).score.tuningId).toBe('sixth-to-d');
    expect(documentOf(xmlOf([[38, 36, 60, 64]])).score.tuningId).toBe('sixth-to-d');
    expect(documentOf(xmlOf([[36, 55, 60, 64]])).score.tuningId).toBe('standard');
  });
});

describe('a transposed piece', () => {
  it('is the same music so many semitones higher, in the document as in the score (random pieces and keys)', () => {
    const random = randomFrom(77);
    for (let round = 0; round < 60; round++) {
      const midis = Array.from({ length: 4 }, () =>
        Array.from({ length: 4 }, () => 50 + Math.floor(random() * 14)),
      );
      const xml = xmlOf(midis, Math.floor(random() * 9) - 4);
      const semitones = Math.floor(random() * 13) - 6;
      const plain = documentOf(xml);
      const moved = documentOf(xml, transposed(semitones));
      expect(moved.score.notes.map(({ soundingMidi }) => soundingMidi)).toEqual(
        plain.score.notes.map(({ soundingMidi }) => soundingMidi + semitones),
      );
      const again = documentOf(writtenAt(xml, semitones));
      expect(again.score.notes.map(({ pitch }) => midiOf(pitch))).toEqual(
        plain.score.notes.map(({ pitch }) => midiOf(pitch) + semitones),
      );
      expect(again.score.keys).toEqual(moved.score.keys);
      expect(again.score.notes.map(({ pitch }) => pitch)).toEqual(
        moved.score.notes.map(({ pitch }) => pitch),
      );
    }
  });

  it('writes an accidental where the key does not say it, and none where it does', () => {
    const major = xmlOf([[62, 66, 69, 74]], 2);
    // D major to C major, and to E flat: the key says all.
    for (const [semitones, fifths] of [
      [-2, 0],
      [1, -3],
    ] as const) {
      const text = writtenAt(major, semitones);
      expect(text).toContain(`<fifths>${fifths}</fifths>`);
      expect(text).not.toContain('<accidental>');
    }
    // A leading note in minor stays one: G sharp in A minor is F sharp in G minor, and its sign is written.
    const minor = writtenAt(xmlOf([[57, 56, 57, 64]]), -2);
    expect(minor).toContain('<fifths>-2</fifths>');
    expect(minor.match(/<accidental>[a-z]+<\/accidental>/g)).toEqual(['<accidental>sharp</accidental>']);
  });

  it('drops what the file prints of strings and fingers, which belongs to the old pitch', () => {
    const printed = xmlOf([[60, 62, 64, 65]]).replace(
      '</note>',
      '<notations><technical><fingering>3</fingering><string>5</string></technical></notations></note>',
    );
    expect(documentOf(printed).score.notes[0]!.printed).toMatchObject({ finger: 3, string: 5 });
    expect(documentOf(printed, transposed(2)).score.notes[0]!.printed).toMatchObject({
      finger: null,
      string: null,
    });
  });
});
