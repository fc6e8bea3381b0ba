import { describe, expect, it } from 'vitest';
import { CONCERT_FRETBOARD, withCapo } from '../../../instrument/fretboard';
import { DEFAULT_PLAYER } from '../../../instrument/hands';
import { STANDARD_TUNING } from '../../../instrument/tuning';
import { leftWeights } from '../rules/weights';
import { type Geometry, handTables, placeId } from './handTables';
import { MOST_RANGES } from './shiftTable';

const geometry: Geometry = {
  fretboard: CONCERT_FRETBOARD,
  hand: DEFAULT_PLAYER.hand,
  weights: leftWeights('balanced', DEFAULT_PLAYER.hand),
  tuning: STANDARD_TUNING,
};
/** Not by `toBe`, which would compare all that lies in them. */
const isShared = (a: Geometry, b: Geometry) => handTables(a) === handTables(b);

/** Fingers 1 and 4 over five frets. */
const costOfStretch = (board: Geometry) =>
  handTables(board).pairCost(
    placeId({ string: 6, fret: 1, finger: 1 }),
    placeId({ string: 5, fret: 5, finger: 4 }),
  );

describe('tables of a hand', () => {
  it('are found again for an equal hand, however it is written', () => {
    const copy = structuredClone(geometry);
    expect(isShared(copy, geometry)).toBe(true);
  });

  it('are others for another instrument, hand or weight', () => {
    const { hand, weights } = geometry;
    const others = [
      { ...geometry, fretboard: withCapo(CONCERT_FRETBOARD, 3) },
      { ...geometry, hand: { ...hand, dependence: { ...hand.dependence, '34': 2 } } },
      { ...geometry, weights: { ...weights, stretch: 1 } },
    ];
    for (const other of others) expect(isShared(geometry, other)).toBe(false);
  });

  it('say what the instrument makes of a stretch: above a capo it is shorter', () => {
    const capo = { ...geometry, fretboard: withCapo(CONCERT_FRETBOARD, 3) };
    expect(costOfStretch(geometry)).toBeGreaterThan(costOfStretch(capo));
  });

  it('are made anew before they run out of room for ranges', () => {
    const tables = handTables(geometry);
    for (let low = 1; tables.ranges.length < MOST_RANGES / 2; low++) tables.rangeId(low, low + (low % 5));
    expect(handTables(geometry) === tables).toBe(false);
    expect(handTables(geometry).ranges.length).toBe(0);
  });
});
