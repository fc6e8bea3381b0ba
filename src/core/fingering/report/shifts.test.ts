import { describe, expect, it } from 'vitest';
import { documentXml, noteXml, scoreOrThrow } from '../../../../tests/helpers/music';
import { movementMs } from '../../instrument/handProfile';
import { CONCERT_FRETBOARD } from '../../instrument/fretboard';
import { ADULT_MEDIUM } from '../../instrument/hands';
import { FINDINGS } from '../../messages/en';
import { Planner } from '../planner';

const START = '<barline location="left"><repeat direction="forward"/></barline>';
const END = '<barline location="right"><repeat direction="backward"/></barline>';
const ending = (number: number, type: 'start' | 'stop', after = '') =>
  `<barline location="${type === 'start' ? 'left' : 'right'}"><ending number="${number}" type="${type}"/>${after}</barline>`;
const tempo = (bpm: number) => `<direction><sound tempo="${bpm}"/></direction>`;

/** Four notes of an eighth each. */
const bar = (midis: readonly number[], before = '', after = '') =>
  `${before}${midis.map((midi, n) => noteXml({ midi, onset: n, length: 1 })).join('')}${after}`;

/** Playable low on the neck only. */
const LOW = [41, 42, 41, 42];
/** Playable high on the neck only. */
const HIGH = [80, 82, 80, 82];

const planOf = (...bars: readonly string[]) =>
  new Planner(scoreOrThrow(documentXml(bars)), CONCERT_FRETBOARD, ADULT_MEDIUM).plan(new Map());

describe('the time that a teacher is told', () => {
  it('is by the metronome, though the hand reckons both tempos alike', () => {
    const windowAt = (bpm: number) => planOf(bar(LOW, tempo(bpm)), bar(HIGH)).shifts[0]!.windowMs;
    // Eighths of 500 and of 400 ms: both are slow to the hand.
    expect(windowAt(60)).toBeGreaterThan(windowAt(75));
    expect(windowAt(75) / windowAt(60)).toBeCloseTo(60 / 75, 2);
  });
});

describe('shifts on jumps', () => {
  it('a repeat that begins low and ends high shifts back in the time between', () => {
    const { shifts } = planOf(bar(LOW, tempo(60) + START), bar(HIGH, '', END));
    const [on, back] = shifts;
    expect(shifts.map(({ jump }) => jump)).toEqual([null, 'back']);
    expect([back!.fromPosition, back!.toPosition]).toEqual([on!.toPosition, on!.fromPosition]);
    expect([back!.fromUid, back!.toUid, back!.arrivesTicks]).toEqual(['n8', 'n1', 8]);
    // The way is said in whole mm.
    const [least, most] = [-0.5, 0.5].map((mm) => movementMs(back!.distanceMm + mm, ADULT_MEDIUM));
    expect(back!.neededMs).toBeGreaterThanOrEqual(Math.floor(least!));
    expect(back!.neededMs).toBeLessThanOrEqual(Math.ceil(most!));
  });

  it('too fast a way back is a finding of its own', () => {
    const { findings } = planOf(bar(LOW, tempo(240) + START), bar(HIGH, '', END));
    const texts = findings.flatMap((one) =>
      one.code === 'shiftTooFast' ? [FINDINGS.shiftTooFast(one)] : [],
    );
    expect(texts).toHaveLength(2);
    expect(texts[1]).toMatch(
      /^Where the passage is repeated, the shift back to this note has \d+ ms and needs/,
    );
  });

  it('from one ending nobody shifts to the next: the hand comes from before both', () => {
    const { shifts } = planOf(
      bar(LOW, tempo(60) + START),
      bar(HIGH, ending(1, 'start'), ending(1, 'stop', '<repeat direction="backward"/>')),
      bar(LOW, ending(2, 'start'), ending(2, 'stop')),
    );
    expect(shifts.map(({ jump, fromUid, toUid }) => [jump, fromUid, toUid])).toEqual([
      [null, 'n4', 'n5'],
      ['back', 'n8', 'n1'],
    ]);
    const high = planOf(
      bar(LOW, tempo(60) + START),
      bar(LOW, ending(1, 'start'), ending(1, 'stop', '<repeat direction="backward"/>')),
      bar(HIGH, ending(2, 'start'), ending(2, 'stop')),
    );
    expect(high.shifts.map(({ jump, fromUid, toUid }) => [jump, fromUid, toUid])).toEqual([
      ['on', 'n4', 'n9'],
    ]);
  });
});
