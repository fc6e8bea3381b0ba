import { describe, expect, it } from 'vitest';
import { barXml, problemFrom, type TestNote } from '../../../../tests/helpers/music';

const row = (midis: readonly number[], every: number, from: number, voice: number): TestNote[] =>
  midis.map((midi, k) => ({ midi, onset: from + every * k, length: 1, voice }));

/** Pitches that are drones somewhere, from the lowest. */
const drones = (notes: readonly TestNote[]) =>
  [
    ...new Set(
      problemFrom(barXml(notes))
        .strikes.filter(({ manner }) => manner === 'drone')
        .map(({ midi }) => midi),
    ),
  ].sort((a, b) => a - b);

describe('drones (handbook 13, "pedal")', () => {
  it('are a pitch that comes again and again in its line', () => {
    expect(drones([...row([64, 64, 64, 64], 2, 1, 1), ...row([57, 59, 60, 59], 2, 0, 2)])).toEqual([64]);
  });
  it('are the pitch to which a line comes back between notes that move', () => {
    expect(drones(row([71, 64, 69, 64, 67, 64, 66, 64], 1, 0, 1))).toContain(64);
  });
  it('are open trebles that come again over every note of a low tune, struck together or one by one', () => {
    const tune = row([52, 54, 57, 59], 3, 0, 2);
    const pairs = [0, 3, 6, 9].flatMap((at) => [
      ...row([55, 55], 1, at + 1, 1),
      ...row([59, 59], 1, at + 1, 1),
    ]);
    expect(drones([...tune, ...pairs])).toEqual([55, 59]);
    const broken = [0, 3, 6, 9].flatMap((at) => row([55, 64], 1, at + 1, 1));
    expect(drones([...tune, ...broken])).toEqual([55, 64]);
  });
  it('are not the notes of an accompaniment that no open strings can give', () => {
    const tune = row([45, 47, 48, 50], 3, 0, 2);
    expect(drones([...tune, ...[0, 3, 6, 9].flatMap((at) => row([60, 64], 1, at + 1, 1))])).toEqual([]);
  });
  it('are no note that only belongs to chords that move', () => {
    const tune = row([45, 47, 48, 50], 2, 0, 2);
    const chords = [68, 69, 71, 69].flatMap((midi, k) => [
      ...row([midi], 1, 2 * k + 1, 1),
      ...row([64], 1, 2 * k + 1, 1),
    ]);
    expect(drones([...tune, ...chords])).toEqual([]);
  });
});
