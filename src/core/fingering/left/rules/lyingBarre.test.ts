import { describe, expect, it } from 'vitest';
import { anchorId } from './anchor';
import { lyingAfter } from './lyingBarre';
import { placeId } from './place';
import { barreOver, NO_STAND, standAt, standOn } from './stand';

/** Half a barre at V, over strings 1 to 3. */
const HALF_AT_FIVE = barreOver(5, 1, 3);
const AT_FIVE = anchorId(5, 5);
const at = (string: number, fret: number, finger: number) => placeId({ string, fret, finger });
const after = (places: readonly number[], index: number = NO_STAND, anchor = AT_FIVE) =>
  lyingAfter(HALF_AT_FIVE, { index, anchor, places });

describe('a barre that lies (handbook 13, "Barre")', () => {
  it('is written as one number over all of its strings', () => {
    expect(standAt(HALF_AT_FIVE)).toMatchObject({
      fret: 5,
      firstString: 1,
      lastString: 3,
      strings: [1, 2, 3],
    });
  });
  it('lies on while one of its strings sounds, or none', () => {
    expect(after([at(2, 5, 1)], standOn(at(2, 5, 1)))).toBe(HALF_AT_FIVE);
    expect(after([])).toBe(HALF_AT_FIVE);
  });
  it('lies on under open strings beside it and under fingers further up', () => {
    expect(after([at(5, 0, 0), at(1, 8, 4)])).toBe(HALF_AT_FIVE);
  });
  it('is one over three strings or more: a smaller one is lifted in passing', () => {
    const two = barreOver(5, 1, 2);
    const own = { anchor: AT_FIVE, places: [at(1, 5, 1), at(2, 5, 1)] };
    expect(lyingAfter(NO_STAND, { ...own, index: two })).toBe(NO_STAND);
    expect(lyingAfter(NO_STAND, { ...own, index: HALF_AT_FIVE })).toBe(HALF_AT_FIVE);
  });
  it('ends at a note nutwards of it, at an open one under it, and where another finger lies under it', () => {
    expect(after([at(6, 4, 2)])).toBe(NO_STAND);
    expect(after([at(1, 0, 0)])).toBe(NO_STAND);
    expect(after([at(2, 5, 2)])).toBe(NO_STAND);
  });
  it('ends where finger 1 is needed elsewhere, or the hand moves', () => {
    expect(after([at(5, 5, 1)], standOn(at(5, 5, 1)))).toBe(NO_STAND);
    expect(after([at(2, 7, 1)], standOn(at(2, 7, 1)), anchorId(7, 7))).toBe(NO_STAND);
    expect(after([at(2, 8, 4)], NO_STAND, anchorId(6, 6))).toBe(NO_STAND);
  });
  it('keeps its width while a smaller one would do, and takes that of a wider one', () => {
    expect(after([at(1, 5, 1), at(2, 5, 1)], barreOver(5, 1, 2))).toBe(HALF_AT_FIVE);
    const full = [1, 2, 3, 4, 5].map((string) => at(string, 5, 1));
    expect(after(full, barreOver(5, 1, 5))).toBe(barreOver(5, 1, 5));
  });
});
