/** Lines and pages against every other way to break them. */
import { describe, expect, it } from 'vitest';
import { randomFrom } from '../../../tests/helpers/music';
import { breakLines, LEAST_BAR, type NaturalBar } from './breakLines';
import { type Block, breakPages } from './breakPages';

const ROOM = { width: 100, head: 6 };

/** How well a way to break is liked, told apart from the search: the same costs written a second time. */
function lineCost(bars: readonly NaturalBar[], firsts: readonly number[]): number {
  return firsts.reduce((sum, from, k) => {
    const end = firsts[k + 1] ?? bars.length;
    const own = bars.slice(from, end);
    const natural = own.reduce((all, bar) => all + bar.width, 0);
    const free = ROOM.width - ROOM.head;
    const squeezed =
      natural * 0.9 > free || (Math.min(...own.map(({ width }) => width)) / natural) * free < LEAST_BAR;
    if (squeezed && own.length > 1) return Infinity;
    const filled = (ROOM.head + natural) / ROOM.width;
    if (end === bars.length && filled < 1) return sum + 10 + (filled < 0.56 ? 20_000 * (0.56 - filled) : 0);
    const by = free / natural - 1;
    const ends = own.at(-1)!.ends;
    const bonus = end === bars.length || !ends ? 0 : ends === 'section' ? -90 : -45;
    return sum + 10 + 100 * Math.abs(by / (by < 0 ? 0.1 : 0.35)) ** 3 + bonus;
  }, 0);
}

/** Every set of places that contains the first. */
const waysToBreak = (count: number): readonly (readonly number[])[] =>
  Array.from({ length: 1 << (count - 1) }, (_, set) => [
    0,
    ...Array.from({ length: count - 1 }, (_, k) => k + 1).filter((k) => ((set >> (k - 1)) & 1) === 1),
  ]);

describe('systems', () => {
  it('are broken as the best of all ways', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const random = randomFrom(seed);
      const bars = Array.from({ length: 2 + Math.floor(random() * 10) }, (): NaturalBar => ({
        width: 8 + random() * 40,
        ends: random() < 0.2 ? 'section' : random() < 0.2 ? 'phrase' : null,
      }));
      const best = Math.min(...waysToBreak(bars.length).map((firsts) => lineCost(bars, firsts)));
      expect(lineCost(bars, breakLines(bars, ROOM))).toBeCloseTo(best, 6);
    }
  });

  it('end where the music does: sixteen bars in lines of four', () => {
    const bars = Array.from({ length: 16 }, (_, k): NaturalBar => ({
      width: 21,
      ends: k % 4 === 3 ? 'phrase' : null,
    }));
    expect(breakLines(bars, ROOM)).toEqual([0, 4, 8, 12]);
  });

  it('give a bar that is too wide a line of its own, and a last line at least half of one', () => {
    const wide = [30, 400, 30, 30].map((width): NaturalBar => ({ width, ends: null }));
    expect(breakLines(wide, ROOM)).toContain(1);
    expect(breakLines(wide, ROOM)).toContain(2);
    const five = Array.from({ length: 5 }, (): NaturalBar => ({ width: 23, ends: null }));
    expect(5 - breakLines(five, ROOM).at(-1)!).toBeGreaterThan(1);
  });
});

describe('pages', () => {
  const block = (height: number, restsAtEnd = false): Block => ({ height, restsAtEnd });
  const room = { first: 90, other: 100, gap: 2 };

  it('leave no system alone at the end', () => {
    const firsts = breakPages(
      Array.from({ length: 9 }, () => block(20)),
      room,
    );
    expect(9 - firsts.at(-1)!).toBeGreaterThan(1);
  });

  it('turn where there is a rest, if the pages stay full enough', () => {
    const blocks = [20, 20, 20, 20, 20, 20, 20].map((height, k) => block(height, k === 2));
    expect(breakPages(blocks, room)[1]).toBe(3);
    expect(
      breakPages(
        blocks.map(({ height }) => block(height)),
        room,
      )[1],
    ).toBe(4);
  });

  it('hold what fits, and a system that is higher than a page by itself', () => {
    const heights = [30, 150, 30, 30, 30];
    const firsts = breakPages(
      heights.map((height) => block(height)),
      room,
    );
    expect(firsts).toContain(1);
    expect(firsts).toContain(2);
    expect(breakPages([], room)).toEqual([0]);
  });
});
