/**
 * Movement times against the measurements of P. M. Fitts, "The information capacity of the human motor system in
 * controlling the amplitude of movement", Journal of Experimental Psychology 47 (1954), Table 1, stylus of 1 oz (from
 * memory): mean times in ms by width and distance of the targets in inches; and against the line through them,
 * MT = 12.8 + 94.7 ID, r = 0.983, as reviews of the law publish it (from memory).
 */
import { describe, expect, it } from 'vitest';
import { movementMs } from '../../src/core/instrument/handProfile';
import { ADULT_MEDIUM } from '../../src/core/instrument/hands';

const TABLE = [
  { widthInch: 0.25, times: { 2: 392, 4: 484, 8: 580, 16: 731 } },
  { widthInch: 0.5, times: { 2: 281, 4: 372, 8: 469, 16: 595 } },
  { widthInch: 1, times: { 2: 212, 4: 260, 8: 357, 16: 481 } },
  { widthInch: 2, times: { 2: 180, 4: 203, 8: 279, 16: 388 } },
] as const;
const rows = TABLE.flatMap(({ widthInch, times }) =>
  Object.entries(times).map(([distance, ms]) => ({ widthInch, distanceInch: Number(distance), ms })),
);

const INCH = 25.4;
const handAt = (startMs: number, perBitMs: number, widthMm: number) => ({
  ...ADULT_MEDIUM,
  movementStartMs: startMs,
  movementPerBitMs: perBitMs,
  targetWidthMm: widthMm,
});

describe('aimed movements (Fitts 1954)', () => {
  it('have the index of difficulty of the worked example: 16 inches to a quarter of an inch is 7 bits', () => {
    expect(movementMs(16 * INCH, handAt(0, 1, 0.25 * INCH))).toBeCloseTo(7, 9);
    expect(movementMs(2 * INCH, handAt(0, 1, 2 * INCH))).toBeCloseTo(1, 9);
  });

  it('the line through the published times is the published line', () => {
    const bits = rows.map(({ widthInch, distanceInch }) => movementMs(distanceInch, handAt(0, 1, widthInch)));
    const mean = (values: readonly number[]) => values.reduce((sum, one) => sum + one, 0) / values.length;
    const [meanBits, meanMs] = [mean(bits), mean(rows.map(({ ms }) => ms))];
    const covariance = bits.reduce((sum, one, k) => sum + (one - meanBits) * (rows[k]!.ms - meanMs), 0);
    const slope = covariance / bits.reduce((sum, one) => sum + (one - meanBits) ** 2, 0);
    expect(slope).toBeCloseTo(94.7, 1);
    expect(meanMs - slope * meanBits).toBeCloseTo(12.8, 1);
  });

  it('with that line come within 15 % and 35 ms of every measured time of four bits and more', () => {
    const hard = rows.filter(({ widthInch, distanceInch }) => (2 * distanceInch) / widthInch >= 16);
    expect(hard).toHaveLength(10);
    for (const { widthInch, distanceInch, ms } of hard) {
      const predicted = movementMs(distanceInch * INCH, handAt(12.8, 94.7, widthInch * INCH));
      expect(Math.abs(predicted - ms)).toBeLessThan(Math.max(35, 0.15 * ms));
    }
  });
});
