import { describe, expect, it } from 'vitest';
import { acrossMm, CONCERT_FRETBOARD, fingertipMm, fretDistanceMm } from './fretboard';
import { handProfileSchema, movementMs } from './handProfile';
import { ADULT_MEDIUM } from './hands';

describe('the fretboard', () => {
  // Handbook, "The instrument in millimetres", rounded there to 0.01 mm.
  it.each([
    [1, 36.48],
    [2, 70.92],
    [3, 103.42],
    [4, 134.09],
    [5, 163.05],
    [7, 216.18],
    [9, 263.51],
    [12, 325.0],
  ])('fret %i of a 650 mm scale lies at %f mm', (fret, mm) => {
    expect(fretDistanceMm(fret, 650)).toBeCloseTo(mm, 2);
  });

  it('four frets from I are as wide as five from V (handbook)', () => {
    expect(fretDistanceMm(4, 650) - fretDistanceMm(1, 650)).toBeCloseTo(97.6, 1);
    expect(fretDistanceMm(9, 650) - fretDistanceMm(5, 650)).toBeCloseTo(100.5, 1);
  });

  it('a fingertip stands behind the wire and inside its fret', () => {
    for (let fret = 1; fret <= 19; fret++) {
      expect(fingertipMm(fret, 650)).toBeLessThan(fretDistanceMm(fret, 650));
      expect(fingertipMm(fret, 650)).toBeGreaterThan(fretDistanceMm(fret - 1, 650));
    }
  });

  it('strings lie 43 mm apart in all at the nut and 58 mm at the saddle', () => {
    expect(acrossMm(6, 0, CONCERT_FRETBOARD)).toBeCloseTo(43, 6);
    expect(acrossMm(6, 650, CONCERT_FRETBOARD)).toBeCloseTo(58, 6);
  });
});

describe('the hand', () => {
  it("can go 62 mm in 180 ms (the desk's example), tightly, and an octave in half a second", () => {
    expect(movementMs(62, ADULT_MEDIUM)).toBeGreaterThan(0.6 * 180);
    expect(movementMs(62, ADULT_MEDIUM)).toBeLessThan(180);
    expect(movementMs(325, ADULT_MEDIUM)).toBeLessThan(500);
  });

  it('takes b longer for each doubling of the distance (Fitts 1954)', () => {
    expect(movementMs(96, ADULT_MEDIUM) - movementMs(48, ADULT_MEDIUM)).toBeCloseTo(
      ADULT_MEDIUM.movementPerBitMs,
      6,
    );
    expect(movementMs(0, ADULT_MEDIUM)).toBe(0);
  });

  it('the ready-made profile passes its own schema; a reach that is upside down does not', () => {
    expect(handProfileSchema.safeParse(ADULT_MEDIUM).success).toBe(true);
    const reach = { ...ADULT_MEDIUM.reach, '12': { atEaseMm: 90, atMostMm: 50 } };
    expect(handProfileSchema.safeParse({ ...ADULT_MEDIUM, reach }).success).toBe(false);
  });
});
