import { describe, expect, it } from 'vitest';
import { CLEF_8, documentXml, noteXml, scoreOrThrow } from '../../../../tests/helpers/music';
import { CONCERT_FRETBOARD } from '../../instrument/fretboard';
import { ADULT_MEDIUM } from '../../instrument/hands';
import { stepTo } from '../left/rules/step';
import { Planner } from '../planner';
import { movedFigures } from './movedFigures';
import { problemOf } from './problem';
import { bareStrikesOf } from './strikes';

const OPEN = [40, 45, 50, 55, 59, 64];

/** Eighths, a bar for each row; null a rest. */
const piece = (bars: readonly (readonly number[])[]) =>
  scoreOrThrow(
    documentXml(
      bars.map((midis) => midis.map((midi, onset) => noteXml({ midi, onset, length: 1 })).join('')),
      CLEF_8,
    ),
  );

const movingIn = (bars: readonly (readonly number[])[]) => {
  const score = piece(bars);
  return movedFigures(bareStrikesOf(score), score.measures, (midi) => OPEN.includes(midi)).map(({ moving }) =>
    moving.map(({ midi }) => midi),
  );
};

/** A diminished shape by minor thirds under an open bass, p i m a m i and two more. */
const diminished = (by: number) => [40, 59, 62, 68, 62, 59, 62, 68].map((midi, k) => (k ? midi + by : midi));
/** Sixths on strings 4 and 2 between three open strings. */
const sixths = (low: number, high: number) => [45, low, 55, high, 64, low, 55, high];

describe('figures that move along the neck', () => {
  it('are read where their notes move together over what stays', () => {
    expect(movingIn([diminished(0), diminished(3), diminished(6)])).toEqual(
      [0, 3, 6].map((by) => [59, 62, 68, 62, 59, 62, 68].map((midi) => midi + by)),
    );
    expect(movingIn([sixths(52, 61), sixths(54, 62), sixths(55, 64)])).toEqual([
      [52, 61, 52, 61],
      [54, 62, 54, 62],
      [55, 64, 55, 64],
    ]);
  });

  it.each([
    ['one move is no row', [diminished(0), diminished(3), diminished(3)]],
    [
      'a line that moves is no shape',
      [0, 2, 4].map((by) => [0, 2, 4, 5, 7, 5, 4, 2].map((n) => 52 + n + by)),
    ],
    [
      'chords that share notes are led, not moved',
      [
        [45, 57, 60, 64, 60, 57, 60, 64],
        [50, 57, 62, 65, 62, 57, 62, 65],
        [52, 56, 59, 64, 59, 56, 59, 64],
      ],
    ],
    [
      'what stays must be open',
      [
        [42, 57, 61, 66, 61, 57, 61, 66],
        [47, 59, 62, 66, 62, 59, 62, 66],
        [42, 60, 64, 66, 64, 60, 64, 66],
      ],
    ],
    ['another rhythm ends it', [diminished(0), diminished(3).slice(0, 6), diminished(6)]],
  ])('%s', (_name, bars) => expect(movingIn(bars)).toEqual([]));

  it('let a bass go its own way: it is no drone', () => {
    const over = (bass: number, by: number) => [bass, ...diminished(by).slice(1)];
    const bars = [over(40, 0), over(45, 3), over(43, 6)];
    expect(movingIn(bars)).toHaveLength(3);
    const { strikes } = problemOf(piece(bars), CONCERT_FRETBOARD, ADULT_MEDIUM);
    for (const { inMove, manner } of strikes.filter(({ midi }) => midi < 50)) {
      expect(inMove).toBeNull();
      expect(manner).not.toBe('drone');
    }
  });

  it('are not read in chords that follow each other: those are parallels', () => {
    const sixth = (low: number, onset: number) =>
      noteXml({ midi: low, onset, length: 2 }) + noteXml({ midi: low + 9, onset, length: 2 }, true);
    const bars = [52, 54, 56].map((low) =>
      [0, 2, 4, 6].map((onset) => sixth(low + (onset / 2) * 2, onset)).join(''),
    );
    const score = scoreOrThrow(documentXml(bars, CLEF_8));
    expect(movedFigures(bareStrikesOf(score), score.measures, () => false)).toEqual([]);
  });

  // Handbook 13: the same figure a step higher keeps its fingers and strings; in three keys.
  it.each([0, 1, 2])('keep strings and fingers, %i semitones up', (up) => {
    const score = piece([0, 3, 6, 3].map((by) => diminished(by + up)));
    const plan = new Planner(score, CONCERT_FRETBOARD, ADULT_MEDIUM).plan(new Map());
    const shapes = [0, 1, 2, 3].map((bar) =>
      score.notes
        .filter(({ measureIndex, soundingMidi }) => measureIndex === bar && soundingMidi > 40)
        .map(({ uid }) => plan.notes.find((note) => note.uid === uid)!)
        .map(({ string, finger }) => `${string}.${finger}`)
        .join(' '),
    );
    expect(new Set(shapes).size).toBe(1);
  });

  it('leave its string to a drone, also at the drone’s own pitch', () => {
    const score = piece([sixths(52, 61), sixths(54, 62), sixths(55, 64), sixths(57, 66)]);
    const plan = new Planner(score, CONCERT_FRETBOARD, ADULT_MEDIUM).plan(new Map());
    for (const note of score.notes.filter(({ soundingMidi }) => [55, 64].includes(soundingMidi))) {
      const { string, fret } = plan.notes.find(({ uid }) => uid === note.uid)!;
      const place = (note.onsetTicks / (score.ticksPerQuarter / 2)) % 8;
      // Third and fifth of the figure are the drones; second and fourth move.
      if ([2, 4, 6].includes(place)) expect([string, fret]).toEqual([note.soundingMidi === 55 ? 3 : 1, 0]);
      else expect(fret).toBeGreaterThan(0);
    }
  });

  it('are grips: each round is laid whole and lies until the next', () => {
    const problem = problemOf(
      piece([diminished(0), diminished(3), diminished(6)]),
      CONCERT_FRETBOARD,
      ADULT_MEDIUM,
    );
    const { strikes, moments } = problem;
    const moving = strikes.filter(({ inMove }) => inMove === 'moves');
    expect(new Set(moving.map(({ grip }) => grip)).size).toBe(3);
    for (const one of moving) expect(one.manner).not.toBe('drone');
    // After the open bass of the second bar, while which the hand goes, with its first stopped note.
    const [, bass] = strikes.filter(({ midi }) => midi === 40);
    const taken = moments[moments.findIndex(({ tick }) => tick === bass!.onsetTicks) + 1]!;
    expect(taken.struck.map((index) => strikes[index]!.midi)).toEqual([62]);
    expect(taken.laid.map((index) => strikes[index]!.midi)).toEqual([65, 71]);
    const placed = [...taken.struck, ...taken.laid];
    expect(placed.map((index) => strikes[strikes[index]!.parallelFrom!]!.midi)).toEqual([59, 62, 68]);
    // Each of them is led to by the shape before it, also those that are struck later: leaving a string is paid for all.
    const before = moments[taken.index - 1]!;
    const columns = [...before.held, ...before.struck, ...before.laid];
    const { links } = stepTo(problem, columns, taken);
    expect(links.filter(({ kind }) => kind === 'moved').map(({ to }) => to)).toEqual([0, 1, 2]);
    // The shape before it lies until then.
    expect(strikes.filter(({ grip, endTicks }) => grip === 0 && endTicks === taken.tick)).toHaveLength(3);
  });
});
