import { describe, expect, it } from 'vitest';
import { barXml, problemFrom, type TestNote } from '../../../tests/helpers/music';
import type { Ink } from '../fingering/problem/ink';
import { LeftPlanner } from '../fingering/left/lattice/planLeft';
import { ringsReport } from './report';
import { type Ring, ringsOf } from './ring';

const ringsIn = (notes: readonly TestNote[], ink: Ink = new Map()): readonly Ring[] => {
  const problem = problemFrom(barXml(notes));
  const plan = new LeftPlanner(problem).plan(ink);
  return ringsOf(problem, plan.states);
};
const inked = (...marks: readonly (readonly [string, number, number])[]): Ink =>
  new Map(marks.map(([uid, finger, string]) => [uid, { finger, string, pluck: null }]));

// Source: handbook, "What really rings".
describe('what really rings', () => {
  it('an open string rings on after its written end, a stopped note does not', () => {
    const [open, stopped] = ringsIn([
      { midi: 40, onset: 0, length: 2 },
      { midi: 65, onset: 2, length: 2 },
      { midi: 67, onset: 6, length: 2 },
    ]);
    expect(open).toMatchObject({ soundsUntilTicks: 8, free: true, end: 'endOfPiece' });
    expect(stopped).toMatchObject({ soundsUntilTicks: 4, free: false, end: 'written' });
  });
  it('an open string stops when it is played again', () => {
    const [open] = ringsIn([
      { midi: 40, onset: 0, length: 2 },
      { midi: 41, onset: 4, length: 2 },
    ]);
    expect(open).toMatchObject({ soundsUntilTicks: 4, end: 'stringUsed' });
  });
  it('a held note ends when its finger, its string or the hand is needed elsewhere', () => {
    const notes: TestNote[] = [
      // So little is left of it that letting go is less than handing it to another finger.
      { midi: 48, onset: 0, length: 3, voice: 2 },
      { midi: 60, onset: 0, length: 2 },
      { midi: 67, onset: 2, length: 2 },
    ];
    const taken = ringsIn(notes, inked(['n1', 3, 5], ['n3', 3, 1]));
    expect(taken.find((ring) => ring.uid === 'n1')).toMatchObject({
      soundsUntilTicks: 2,
      end: 'fingerNeeded',
    });
    const far = ringsIn(
      [notes[0]!, notes[1]!, { midi: 76, onset: 2, length: 2 }],
      inked(['n1', 3, 5], ['n3', 4, 1]),
    );
    expect(far.find((ring) => ring.uid === 'n1')).toMatchObject({ soundsUntilTicks: 2, end: 'handMoves' });
  });
  it('a barre that is laid silences the strings under it', () => {
    const rings = ringsIn(
      [
        { midi: 50, onset: 0, length: 2 },
        { midi: 41, onset: 2, length: 4 },
        { midi: 60, onset: 2, length: 4 },
      ],
      inked(['n2', 1, 6], ['n3', 1, 2]),
    );
    expect(rings[0]).toMatchObject({ soundsUntilTicks: 2, end: 'barre' });
  });
});

describe('the report of a voice', () => {
  const ring = (over: Partial<Ring>): Ring => ({
    strike: 0,
    uid: 'n1',
    voice: '1',
    string: 1,
    fret: 0,
    free: false,
    onsetTicks: 0,
    writtenEndTicks: 4,
    soundsUntilTicks: 4,
    end: 'written',
    ...over,
  });
  it('counts what is cut and what goes on, in quarters, and the share that sounds', () => {
    const report = ringsReport(
      [
        ring({ soundsUntilTicks: 2 }),
        ring({ onsetTicks: 4, writtenEndTicks: 8, soundsUntilTicks: 10 }),
        ring({ voice: '2', soundsUntilTicks: 4 }),
      ],
      2,
    );
    expect(report.voices).toEqual([
      { voice: '1', legato: 0.75, cutQuarters: 1, overhangQuarters: 1 },
      { voice: '2', legato: 1, cutQuarters: 0, overhangQuarters: 0 },
    ]);
    expect(report.legato).toBeCloseTo(1 - 2 / 12);
  });
  it('measures how long open strings sound into each other', () => {
    const report = ringsReport(
      [
        ring({ free: true, soundsUntilTicks: 6 }),
        ring({ free: true, onsetTicks: 2, writtenEndTicks: 4, soundsUntilTicks: 8 }),
        ring({ onsetTicks: 2, soundsUntilTicks: 8 }),
      ],
      2,
    );
    expect(report.openOverlapQuarters).toBe(2);
  });
});
