import { describe, expect, it } from 'vitest';
import type { FingerStay, PlannedNote } from '../fingering/report/plan';
import { CONCERT_FRETBOARD } from '../instrument/fretboard';
import { boardPicture, gripsAt } from './fretboardPicture';

const stay = (
  finger: number,
  string: number,
  fret: number,
  fromTicks: number,
  toTicks: number,
): FingerStay => ({
  finger,
  string,
  fret,
  fromTicks,
  toTicks,
});
const note = (string: number, fret: number): PlannedNote => ({
  uid: `n${string}`,
  strike: 0,
  momentIndex: 0,
  string,
  fret,
  finger: fret === 0 ? 0 : 1,
  pluck: 'p',
  barre: null,
  soundsUntilTicks: 4,
});

const FINGERS = [stay(1, 2, 1, 0, 8), stay(2, 4, 2, 0, 8), stay(3, 5, 3, 0, 4), stay(4, 1, 7, 8, 12)];
const MOMENTS = [
  { ticks: 0, notes: [note(5, 3), note(3, 0)] },
  { ticks: 2, notes: [note(3, 0)] },
  { ticks: 4, notes: [note(4, 2)] },
  { ticks: 8, notes: [note(1, 7)] },
];

describe('grips', () => {
  it('are those of the moment and the next that differs', () => {
    const { here, next } = gripsAt(FINGERS, MOMENTS, 0);
    expect(here.stays.map(({ finger }) => finger)).toEqual([1, 2, 3]);
    expect(next).toMatchObject({ ticks: 4 });
    expect(gripsAt(FINGERS, MOMENTS, 3).next).toBeNull();
  });
});

describe('the fretboard as the player sees it', () => {
  const { here, next } = gripsAt(FINGERS, MOMENTS, 2);
  const picture = boardPicture(CONCERT_FRETBOARD, here, next, false);

  // Equal temperament: each fret is the twelfth root of two closer to the saddle than the one before.
  it('has its frets where equal temperament has them', () => {
    const widths = picture.wires.slice(1).map(({ x }, k) => x - picture.wires[k]!.x);
    for (const [k, width] of widths.entries())
      if (k > 0) expect(widths[k - 1]! / width).toBeCloseTo(2 ** (1 / 12), 9);
    expect(picture.wires.find(({ fret }) => fret === 0)?.x).toBe(0);
    // Source: 650 mm scale, first fret at 36.48 mm.
    expect(picture.wires.find(({ fret }) => fret === 1)?.x).toBeCloseTo(36.48, 2);
  });

  it('has the first string uppermost, the strings wider apart towards the body, every tip behind its fret', () => {
    const [first, last] = [picture.strings[0]!, picture.strings[5]!];
    expect(first.y1).toBeLessThan(last.y1);
    expect(last.y2 - first.y2).toBeGreaterThan(last.y1 - first.y1);
    for (const { fret, x } of [...picture.tips, ...picture.ghosts]) {
      expect(x).toBeLessThan(picture.wires.find((wire) => wire.fret === fret)!.x);
      expect(x).toBeGreaterThan(picture.wires.find((wire) => wire.fret === fret - 1)!.x);
    }
    expect(picture.ghosts.map(({ fret }) => fret)).toEqual([7]);
  });

  it('is mirrored for left-handers', () => {
    const other = boardPicture(CONCERT_FRETBOARD, here, next, true);
    for (const [k, tip] of picture.tips.entries()) {
      expect(other.tips[k]!.x).toBeCloseTo(picture.right - tip.x, 9);
      expect(other.tips[k]!.y).toBe(tip.y);
    }
  });

  it('marks open strings that are struck at the nut', () => {
    const start = gripsAt(FINGERS, MOMENTS, 0);
    const tips = boardPicture(CONCERT_FRETBOARD, start.here, start.next, false).tips;
    expect(tips.filter(({ finger }) => finger === 0)).toMatchObject([{ string: 3, struck: true }]);
  });
});
