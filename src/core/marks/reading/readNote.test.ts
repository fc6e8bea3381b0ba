/** The reading rule against chords and passages as every method teaches them: common practice. */
import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '../../instrument/tuning';
import { NOTHING_SAID, type Place, positionAfter, readNote, type Reading, type Said } from './readNote';

const START: Reading = { position: 1, barre: null, busy: [], taken: new Set(), shared: null, before: null };
const read = (midi: number, reading: Partial<Reading> = {}, said: Partial<Said> = {}) =>
  readNote(midi, STANDARD_TUNING, { ...NOTHING_SAID, ...said }, { ...START, ...reading });

/** A chord from the lowest note up, each note seeing those before it, as "string/fret/finger". */
function readChord(midis: readonly number[], position = 1): readonly string[] {
  const read: Place[] = [];
  for (const midi of midis) {
    const place = readNote(midi, STANDARD_TUNING, NOTHING_SAID, {
      ...START,
      position,
      busy: read.filter(({ fret }) => fret > 0),
      taken: new Set(read.map(({ string }) => string)),
    });
    if (place) read.push(place);
  }
  return read.map(({ string, fret, finger }) => `${string}/${fret}/${finger}`);
}

describe('a student who is told nothing', () => {
  it.each([
    ['C major', [48, 52, 55, 60], ['5/3/3', '4/2/2', '3/0/0', '2/1/1']],
    ['A minor', [45, 52, 57, 60], ['5/0/0', '4/2/2', '3/2/3', '2/1/1']],
    ['E major', [40, 47, 52, 56], ['6/0/0', '5/2/2', '4/2/3', '3/1/1']],
    ['E minor', [40, 47, 52, 55], ['6/0/0', '5/2/2', '4/2/3', '3/0/0']],
  ])('plays %s in first position as it is taught', (_name, midis, places) => {
    expect(readChord(midis)).toEqual(places);
  });

  it('plays open strings in first position and stays under the hand elsewhere', () => {
    expect(read(59)).toMatchObject({ string: 2, fret: 0, finger: 0 });
    expect(read(59, { position: 4 })).toMatchObject({ string: 3, fret: 4, finger: 1 });
    expect(read(64, { position: 9 })).toMatchObject({ string: 3, fret: 9, finger: 1 });
    expect(read(40, { position: 9 })).toMatchObject({ string: 6, fret: 0, finger: 0 });
  });

  it('does not know a note that lies nowhere under the hand', () => {
    expect(read(76)).toBeNull();
  });

  it('keeps a pitch where it was, while the hand is there and the finger free', () => {
    const before = { string: 3, fret: 4, finger: 3 };
    expect(read(59, { position: 2, before })).toEqual(before);
    expect(read(59, { position: 9, before })).not.toEqual(before);
    const busy = [{ string: 5, fret: 3, finger: 3 }];
    expect(read(59, { position: 2, before, busy })).not.toEqual(before);
  });

  it('takes the next finger where the own one is busy', () => {
    expect(read(62, { busy: [{ string: 6, fret: 3, finger: 3 }] })).toMatchObject({
      string: 2,
      fret: 3,
      finger: 4,
    });
  });

  it('lays the first finger under a barre, as often as it is needed', () => {
    const busy = [{ string: 5, fret: 5, finger: 1 }];
    expect(read(64, { position: 5, barre: 5, busy })).toMatchObject({ string: 2, fret: 5, finger: 1 });
  });
});

describe('what is printed', () => {
  it('a numeral moves the hand as little as it has to', () => {
    expect(read(67, {}, { finger: 1 })).toMatchObject({ string: 1, fret: 3, finger: 1 });
    expect(read(67, { position: 7 }, { finger: 2 })).toMatchObject({ string: 2, fret: 8, finger: 2 });
  });

  it('a string alone is taken with the finger that lies over it', () => {
    expect(read(64, { position: 4 }, { string: 2 })).toMatchObject({ string: 2, fret: 5, finger: 2 });
    expect(read(64, { position: 5 }, { string: 1 })).toMatchObject({ string: 1, fret: 0, finger: 0 });
  });

  it('an impossible sign is no place', () => {
    expect(read(40, {}, { finger: 3 })).toBeNull();
    expect(read(40, {}, { string: 1 })).toBeNull();
  });
});

describe('the position after a moment', () => {
  it('stays for a stretch or a squeeze of one fret, and goes along with more', () => {
    expect(positionAfter(2, [{ string: 3, fret: 2, finger: 2 }])).toBe(2);
    expect(positionAfter(2, [{ string: 3, fret: 7, finger: 1 }])).toBe(7);
    expect(positionAfter(5, [{ string: 1, fret: 0, finger: 0 }])).toBe(5);
  });
});
