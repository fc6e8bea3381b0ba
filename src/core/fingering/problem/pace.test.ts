import { describe, expect, it } from 'vitest';
import type { Texture } from '../../figures/texture';
import type { TempoMark } from '../../music/tempo';
import type { Moment } from './problem';
import { reckonedTempos } from './pace';

const TICKS_PER_QUARTER = 4;
const mark = (tick: number, quartersPerMinute: number): TempoMark => ({
  tick,
  quartersPerMinute,
  assumed: false,
});
const momentsAt = (ticks: readonly number[], quartersPerMinute: number): readonly Moment[] =>
  ticks.map((tick, index) => ({
    index,
    tick,
    timeMs: (tick * 60_000) / (quartersPerMinute * TICKS_PER_QUARTER),
    struck: [],
    held: [],
    taken: [],
    laid: [],
  }));
const EIGHTHS = [0, 2, 4, 6, 8, 10, 12, 14];
const all = (texture: Texture, ticks = EIGHTHS) => ({ figures: [], textures: ticks.map(() => texture) });

/** Ms from eighth to eighth. */
const eighthsOf = (marks: readonly TempoMark[]) =>
  marks.map(({ quartersPerMinute }) => 30_000 / quartersPerMinute);

describe('time as the left hand reckons it', () => {
  it.each([40, 60, 96, 144, 200])('is the same for a broken chord at ♩ = %i', (tempo) => {
    const marks = reckonedTempos([mark(0, tempo)], momentsAt(EIGHTHS, tempo), all('brokenChord'));
    expect(eighthsOf(marks)).toEqual([expect.closeTo(250, 6)]);
  });

  it.each([
    // Eighths at ♩ = 180 are quick (167 ms), at 160 not yet (188 ms).
    [180, 125],
    [160, 250],
    [120, 250],
    // 353 ms against 357.
    [85, 250],
    [84, 500],
    [40, 1000],
  ])('is quick or slow for a line: eighths at ♩ = %i count %i ms', (tempo, ms) => {
    const marks = reckonedTempos([mark(0, tempo)], momentsAt(EIGHTHS, tempo), all('line'));
    expect(eighthsOf(marks)).toEqual([expect.closeTo(ms, 6)]);
  });

  it('keeps proportions: a long note in a figure stays as long as it is written', () => {
    const ticks = [0, 2, 4, 12, 14, 16];
    const marks = reckonedTempos([mark(0, 77)], momentsAt(ticks, 77), all('brokenChord', ticks));
    expect(marks).toHaveLength(1);
  });

  it('begins anew with another texture, and at a tempo of its own inside one', () => {
    const textures = EIGHTHS.map((_, k): Texture => (k < 4 ? 'brokenChord' : 'line'));
    const marks = reckonedTempos([mark(0, 90)], momentsAt(EIGHTHS, 90), { figures: [], textures });
    expect(marks.map(({ tick }) => tick)).toEqual([0, 8]);
    // Twice as slow from tick 4 on: the hand has twice the time, too.
    const slower = reckonedTempos([mark(0, 120), mark(10, 60)], momentsAt(EIGHTHS, 120), all('brokenChord'));
    expect(slower.map(({ tick }) => tick)).toEqual([0, 10]);
    expect(slower[0]!.quartersPerMinute).toBeCloseTo(2 * slower[1]!.quartersPerMinute, 6);
  });

  it('is that of parallels where they are, whatever the right hand makes of them', () => {
    const figure = { texture: 'parallels' as const, fromMoment: 0, toMoment: 7 };
    const marks = reckonedTempos([mark(0, 150)], momentsAt(EIGHTHS, 150), {
      figures: [figure as never],
      textures: EIGHTHS.map(() => 'tremolo' as const),
    });
    expect(eighthsOf(marks)).toEqual([expect.closeTo(500, 6)]);
  });

  it('of nothing is nothing else', () => {
    expect(reckonedTempos([mark(0, 60)], [], { figures: [], textures: [] })).toEqual([mark(0, 60)]);
  });
});
