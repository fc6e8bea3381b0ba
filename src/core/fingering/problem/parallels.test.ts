import { describe, expect, it } from 'vitest';
import { barXml, problemFrom, type TestNote } from '../../../../tests/helpers/music';

const pairs = (rows: readonly (readonly number[])[], from = 0): TestNote[] =>
  rows.flatMap((row, k) => row.map((midi) => ({ midi, onset: from + k, length: 1 })));

/** Pitch from which each pitch comes, in the order of strikes; null for none. */
const comesFrom = (notes: readonly TestNote[]) => {
  const { strikes } = problemFrom(barXml(notes));
  return strikes.map(({ parallelFrom }) => (parallelFrom === null ? null : strikes[parallelFrom]!.midi));
};

describe('parallels', () => {
  it('are thirds, sixths and tenths that go on the same way', () => {
    expect(
      comesFrom(
        pairs([
          [60, 64],
          [62, 65],
          [64, 67],
        ]),
      ),
    ).toEqual([null, null, 60, 64, 62, 65]);
    expect(
      comesFrom(
        pairs([
          [57, 66],
          [59, 67],
          [61, 69],
        ]),
      ),
    ).toEqual([null, null, 57, 66, 59, 67]);
  });
  it('are chords of one form, too', () => {
    expect(
      comesFrom(
        pairs([
          [57, 61, 66],
          [59, 62, 67],
          [61, 64, 69],
        ]),
      ).slice(3),
    ).toEqual([57, 61, 66, 59, 62, 67]);
  });
  it('want two moves in a row', () => {
    expect(
      comesFrom(
        pairs([
          [60, 64],
          [62, 65],
        ]),
      ),
    ).toEqual([null, null, null, null]);
  });
  it('are no voices in contrary motion, no leaps and no other intervals', () => {
    for (const rows of [
      [
        [60, 64],
        [59, 65],
        [57, 67],
      ],
      [
        [60, 64],
        [67, 71],
        [60, 64],
      ],
      [
        [60, 67],
        [62, 69],
        [64, 71],
      ],
    ])
      expect(comesFrom(pairs(rows)).every((from) => from === null)).toBe(true);
  });
  it('over a bass are pairs of their own', () => {
    const bass = { midi: 40, onset: 0, length: 3, voice: 2 };
    expect(
      comesFrom([
        bass,
        ...pairs([
          [60, 64],
          [62, 65],
          [64, 67],
        ]),
      ]),
    ).toEqual([null, null, null, 60, 64, 62, 65]);
  });
  it('go on over a drone between them', () => {
    const drone = [0, 1, 2, 3, 4].map((k) => ({ midi: 76, onset: k + 0.5, length: 0.5, voice: 2 }));
    const withDrone = [
      ...pairs([
        [60, 64],
        [62, 65],
        [64, 67],
      ]).map((note) => ({ ...note, length: 0.5 })),
      ...drone,
    ];
    expect(
      comesFrom(withDrone.map((note) => ({ ...note, onset: 2 * note.onset, length: 1 }))).filter(Boolean),
    ).toEqual([60, 64, 62, 65]);
  });
});
