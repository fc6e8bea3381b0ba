import { describe, expect, it } from 'vitest';
import { documentXml, noteXml, scoreOrThrow } from '../../../tests/helpers/music';
import { barsOf, breathAround, notesIn, rangeBetween, rangeOfBars, wholeRange } from './range';
import { alongVoice, byBar, throughSounding, toEnd } from './ways';

/** Two bars: a tune in eighths with a rest, over two long basses; eighths, notes named n1, n2 … by document. */
const bar = (midis: readonly (number | null)[], bass: number, voice2 = 2) => {
  const tune = midis
    .map((midi, k) =>
      midi === null
        ? `<note><rest/><duration>1</duration><voice>1</voice><type>eighth</type></note>`
        : noteXml({ midi, onset: k, length: 1 }),
    )
    .join('');
  return `${tune}<backup><duration>${midis.length}</duration></backup>${noteXml({ midi: bass, onset: 0, length: 8, voice: voice2 })}`;
};
const score = scoreOrThrow(
  documentXml([bar([64, 66, 67, null, 71, 69, 67, 66], 40), bar([64, 62, 60, 59, 57, 55, 54, 52], 45)]),
);
const names = new Map(score.notes.map((note) => [note.uid, note.soundingMidi]));
const uidOf = (midi: number, from = 0) =>
  score.notes.find((n) => n.soundingMidi === midi && n.onsetTicks >= from)!.uid;
const midi = (uid: string | null) => (uid === null ? null : names.get(uid));

describe('ways from note to note', () => {
  it('stay in the voice, over rests and bar lines', () => {
    let at: string | null = uidOf(64);
    const tune: (number | null | undefined)[] = [];
    while (at) {
      tune.push(midi(at));
      at = alongVoice(score, at, 1);
    }
    expect(tune).toEqual([64, 66, 67, 71, 69, 67, 66, 64, 62, 60, 59, 57, 55, 54, 52]);
    expect(midi(alongVoice(score, uidOf(40), 1))).toBe(45);
    expect(alongVoice(score, uidOf(45), 1)).toBeNull();
    expect(midi(alongVoice(score, uidOf(45), -1))).toBe(40);
  });

  it('go by the bar: to its beginning first, then to the one before', () => {
    expect(midi(byBar(score, uidOf(66), 1))).toBe(64);
    const late = uidOf(59);
    const start = byBar(score, late, -1)!;
    expect(midi(start)).toBe(64);
    expect(midi(byBar(score, start, -1))).toBe(64);
    expect(byBar(score, start, -1)).not.toBe(start);
    expect(byBar(score, start, 1)).toBeNull();
  });

  it('reach both ends', () => {
    expect(midi(toEnd(score, uidOf(71), 'last'))).toBe(52);
    expect(midi(toEnd(score, uidOf(45), 'first'))).toBe(40);
    expect(midi(toEnd(score, null, 'first'))).toBe(64);
  });

  it('go through what sounds, held notes too', () => {
    const g = uidOf(67);
    expect(midi(throughSounding(score, g, -1))).toBe(40);
    expect(throughSounding(score, g, 1)).toBeNull();
    expect(midi(throughSounding(score, uidOf(40), 1))).toBe(64);
  });
});

describe('a range', () => {
  const at = (uid: string) => score.notes.find((note) => note.uid === uid)!;
  it('lies between two notes, whichever comes first, in all voices or one', () => {
    const range = rangeBetween(at(uidOf(69)), at(uidOf(66)));
    expect(notesIn(score, range).map(({ soundingMidi }) => soundingMidi)).toEqual([66, 67, 71, 69]);
    expect(notesIn(score, { ...wholeRange(score), voice: '2' }).map((n) => n.soundingMidi)).toEqual([40, 45]);
  });
  it('knows its bars', () => {
    expect(barsOf(score, wholeRange(score))).toEqual({ first: 0, last: 1 });
    expect(barsOf(score, rangeOfBars(score, 1, 1))).toEqual({ first: 1, last: 1 });
  });
  it('ends a phrase at rests', () => {
    const voice = at(uidOf(64)).voice;
    expect(notesIn(score, { ...breathAround(score, 0, voice), voice }).map((n) => n.soundingMidi)).toEqual([
      64, 66, 67,
    ]);
    const after = breathAround(score, at(uidOf(71)).onsetTicks, voice);
    expect(notesIn(score, { ...after, voice })).toHaveLength(12);
  });
});
