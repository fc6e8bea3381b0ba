import { describe, expect, it } from 'vitest';
import { barXml, problemFrom } from '../../../../tests/helpers/music';
import { agedFingers, agedThumb, NO_FINGERS, NO_THUMB, PLACE_PARTS } from './memory';
import { plainSetting } from './setting';
import { LONGEST_FINGERS_MEMORY_MS, LONGEST_THUMB_MEMORY_MS } from './terms';
import { walkPlaced } from './walk';

describe('what the right hand remembers', () => {
  const last = { bits: 1, place: 3 * PLACE_PARTS, string: 3, ageMs: 0 };

  it('fades: after a while the fingers may be anywhere', () => {
    const before = { ...NO_FINGERS, last };
    expect(agedFingers(before, LONGEST_FINGERS_MEMORY_MS / 4).last).toMatchObject({ place: last.place });
    expect(agedFingers(before, LONGEST_FINGERS_MEMORY_MS)).toEqual(NO_FINGERS);
  });

  it('fades for the thumb, too', () => {
    const before = { ...NO_THUMB, thumb: { string: 5, ageMs: 0 } };
    expect(agedThumb(before, LONGEST_THUMB_MEMORY_MS / 2).thumb).toMatchObject({ string: 5 });
    expect(agedThumb(before, LONGEST_THUMB_MEMORY_MS)).toEqual(NO_THUMB);
  });

  /** i on the third string, then i on the first so many eighths later, at a quarter a second. */
  const wayAfter = (eighths: number): number => {
    const problem = problemFrom(
      barXml(
        [
          { midi: 55, onset: 0, length: 1 },
          { midi: 64, onset: eighths, length: 1 },
        ],
        60,
      ),
    );
    const placed = problem.moments.map(({ struck }, k) =>
      struck.map((strike) => ({
        strike,
        place: { string: k === 0 ? 3 : 1, fret: 0, finger: 0 },
        slurred: false,
      })),
    );
    return walkPlaced(problem, plainSetting(problem), placed, [['i'], ['i']])[1]!.way;
  };

  // Common practice: a displacement costs inside a line; after a long rest the hand is simply put where it is needed.
  it('makes a displacement cost inside a line, and nothing after a long rest', () => {
    expect(wayAfter(1)).toBeGreaterThan(wayAfter(2));
    expect(wayAfter(2)).toBeGreaterThan(0);
    expect(wayAfter(4)).toBe(0);
  });
});
