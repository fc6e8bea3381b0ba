import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '../instrument/tuning';
import { ringingSeconds } from './ringingSeconds';

const rings = (...row: readonly (number | null)[]) => ringingSeconds(row, STANDARD_TUNING);
/** F sharp, b and a of B7 at the nut: strings 1, 2 and 3. */
const [FIS, B, A] = [66, 59, 57];

describe('seconds of a broken chord', () => {
  it('ring where they come round beside the same leap, to and fro', () => {
    expect(rings(A, B, FIS, A, B, FIS)).toEqual([true, false, false, true, false]);
    expect(rings(FIS, B, A, B, FIS, B, A, B)).toEqual([false, true, true, false, false, true, true]);
  });
  it('ring again beside no leap, once they are known to', () => {
    expect(rings(A, B, FIS, B, A, B, A, B)).toEqual([true, false, false, true, true, true, true]);
  });
  it('are a line where they do not come again, or come again beside steps only', () => {
    expect(rings(A, B, FIS, 64, 62, 60)).toEqual([false, false, false, false, false]);
    expect(rings(57, 59, 60, 57, 59, 60)).toEqual([false, false, false, false, false]);
  });
  it('are a line on one string: d and c, e and d flat of the second', () => {
    expect(rings(60, 62, 67, 60, 62, 67)).toEqual([false, false, false, false, false]);
  });
  it('are a line where the leap goes to one of their strings', () => {
    // b, c sharp and d sharp: the last lies on the second string, like b.
    expect(rings(57, 59, 62, 57, 59, 62)).toEqual([false, false, false, false, false]);
  });
  it('are not looked for across chords, nor higher than the first position', () => {
    expect(rings(A, B, null, A, B, null)).toEqual([false, false, false, false, false]);
    expect(rings(69, 71, 78, 69, 71, 78)).toEqual([false, false, false, false, false]);
  });
});
