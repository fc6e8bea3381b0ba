/** Corrections over the untouched source: what the score becomes, and what the engraver and an export get. */
import { describe, expect, it } from 'vitest';
import { documentXml, noteXml } from '../../../../tests/helpers/music';
import { NO_CORRECTIONS, type NoteCorrection, type PieceCorrection } from '../../score/corrections';
import { correctionSplices } from './correctionSplices';
import { readScore } from './readScore';
import { applySplices } from './splice';

const quarter = (midi: number, extra = '') => noteXml({ midi, onset: 0, length: 2, extra });
const XML = documentXml([quarter(60) + quarter(62) + quarter(62) + quarter(66), quarter(60).repeat(4)]);

const correctionsOf = (notes: Readonly<Record<string, NoteCorrection>>, piece: PieceCorrection = {}) => ({
  ...NO_CORRECTIONS,
  notes: new Map(Object.entries(notes)),
  piece,
});
function documentOf(notes: Readonly<Record<string, NoteCorrection>>, piece: PieceCorrection = {}, xml = XML) {
  const result = readScore(xml, { corrections: correctionsOf(notes, piece) });
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
}
/** The document as it would be exported, read again without any corrections. */
function reread(notes: Readonly<Record<string, NoteCorrection>>, xml = XML) {
  const { splices } = correctionSplices(documentOf(notes, {}, xml), correctionsOf(notes).notes);
  const text = applySplices(xml, splices);
  const result = readScore(text);
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return { text, score: result.value.score };
}

const flat = (score: {
  notes: readonly { soundingMidi: number; onsetTicks: number; durationTicks: number; voice: string }[];
  ticksPerQuarter: number;
}) =>
  score.notes.map((note) => [
    note.soundingMidi,
    note.onsetTicks / score.ticksPerQuarter,
    note.durationTicks / score.ticksPerQuarter,
    note.voice,
  ]);

describe('corrections of notes', () => {
  const cases: readonly (readonly [string, Readonly<Record<string, NoteCorrection>>])[] = [
    ['pitch', { n1: { pitch: { step: 'B', alter: -1, octave: 3 } } }],
    ['a tie', { n2: { tie: true } }],
    ['shorter', { n3: { length: { num: 1, den: 2 } } }],
    ['shorter by a triplet', { n3: { length: { num: 1, den: 3 } } }],
    ['voice', { n4: { voice: '2' } }],
    ['staccato', { n1: { staccato: true } }],
    [
      'several at once',
      {
        n1: { pitch: { step: 'D', alter: 1, octave: 4 }, staccato: true, length: { num: 3, den: 4 } },
        n2: { tie: true },
      },
    ],
  ];
  it.each(cases)('%s: the exported document reads as the corrected score', (_name, notes) => {
    const corrected = documentOf(notes).score;
    const again = reread(notes).score;
    expect(flat(again)).toEqual(flat(corrected));
    expect(again.notes.map((note) => note.tags)).toEqual(corrected.notes.map((note) => note.tags));
    expect(flat(corrected)).not.toEqual([]);
  });

  it('a pitch gets the accidental that it needs, and so does the note after it', () => {
    const xml = documentXml([quarter(60) + quarter(60) + quarter(60)]);
    const { text } = reread({ n1: { pitch: { step: 'C', alter: 1, octave: 4 } } }, xml);
    expect([...text.matchAll(/<accidental>(\w+)/g)].map((match) => match[1])).toEqual(['sharp', 'natural']);
  });

  it('a tie joins and a tie taken away parts', () => {
    expect(documentOf({ n2: { tie: true } }).score.notes.map((note) => note.tiedUids)).toEqual([
      [],
      ['n3'],
      [],
      [],
      [],
      [],
      [],
    ]);
    const tied = documentXml([quarter(60, '<tie type="start"/>') + quarter(60, '<tie type="stop"/>')]);
    expect(documentOf({}, {}, tied).score.notes).toHaveLength(1);
    expect(documentOf({ n1: { tie: false } }, {}, tied).score.notes).toHaveLength(2);
    expect(reread({ n1: { tie: false } }, tied).score.notes).toHaveLength(2);
  });

  it('a length has to end before the next note of its voice and in its bar', () => {
    for (const uid of ['n1', 'n4']) {
      const { score } = documentOf({ [uid]: { length: { num: 2, den: 1 } } });
      const note = score.notes.find((one) => one.uid === uid)!;
      expect(note.durationTicks / score.ticksPerQuarter).toBe(1);
    }
  });

  it('must ring and staccato stand at the note', () => {
    const { score } = documentOf({ n1: { mustRing: true }, n2: { staccato: true } });
    expect(score.notes[0]!.mustRing).toBe(true);
    expect(score.notes[1]!.tags).toContain('staccato');
  });

  it('without corrections nothing is spliced', () => {
    expect(correctionSplices(documentOf({}), new Map()).splices).toEqual([]);
  });
});

describe('corrections of the piece', () => {
  it('tuning, capo, tempo and octave', () => {
    const { score } = documentOf({}, { tuning: 'sixth-to-d', capo: 2, tempo: 132, octave: 12 });
    expect(score).toMatchObject({ tuningId: 'sixth-to-d', capo: 2 });
    expect(score.tempos[0]).toEqual({ tick: 0, quartersPerMinute: 132, assumed: false });
    expect(score.notes[0]!.soundingMidi).toBe(72);
    expect(score.assumptions).toContainEqual({ code: 'octave', reading: 'corrected' });
  });
  it('a later tempo keeps its ratio', () => {
    const xml = documentXml([`<sound tempo="60"/>${quarter(60)}<sound tempo="90"/>${quarter(60)}`]);
    expect(documentOf({}, { tempo: 80 }, xml).score.tempos.map((mark) => mark.quartersPerMinute)).toEqual([
      80, 120,
    ]);
  });
  it('that puts notes outside the instrument is refused with the place', () => {
    const result = readScore(XML, { corrections: correctionsOf({}, { octave: 24 }) });
    expect(result).toMatchObject({ ok: false, error: { code: 'outside', measure: '1' } });
  });
});
