import { describe, expect, it } from 'vitest';
import { CONCERT_FRETBOARD, withCapo } from '../../../instrument/fretboard';
import { DEFAULT_PLAYER } from '../../../instrument/hands';
import { STANDARD_TUNING } from '../../../instrument/tuning';
import { placeId } from '../rules/place';
import type { HandSetting } from '../rules/rule';
import { leftWeights } from '../rules/weights';
import { SHIFT } from '../rules/shift';
import { costTables } from './costTables';

const setting: HandSetting = {
  fretboard: CONCERT_FRETBOARD,
  hand: DEFAULT_PLAYER.hand,
  weights: leftWeights('balanced', DEFAULT_PLAYER.hand),
  tuning: STANDARD_TUNING,
};

describe('tables of a hand', () => {
  it('are found again for an equal hand, however it is written', () => {
    expect(isShared(structuredClone(setting), setting)).toBe(true);
  });

  it('are others for another instrument, hand or weight', () => {
    const { hand, weights } = setting;
    const others = [
      { ...setting, fretboard: withCapo(CONCERT_FRETBOARD, 3) },
      { ...setting, hand: { ...hand, dependence: { ...hand.dependence, '34': 2 } } },
      { ...setting, weights: { ...weights, stretch: 1 } },
    ];
    for (const other of others) expect(isShared(setting, other)).toBe(false);
  });

  it('say what the instrument makes of a stretch: above a capo a wider one can be held', () => {
    const [low, high] = [
      placeId({ string: 6, fret: 1, finger: 1 }),
      placeId({ string: 5, fret: 6, finger: 4 }),
    ];
    const capo = { ...setting, fretboard: withCapo(CONCERT_FRETBOARD, 5) };
    expect(costTables(setting).fit(low, high)).toBe(false);
    expect(costTables(capo).fit(low, high)).toBe(true);
  });

  it('are made anew when they have grown too large', () => {
    const tables = costTables(setting);
    const table = tables.carriedTable(SHIFT);
    for (let ms = 1; !tables.isFull; ms++) for (let code = 0; code < 500; code++) table.rowOf(code, ms);
    expect(costTables(setting) === tables).toBe(false);
    expect(costTables(setting).isFull).toBe(false);
  });
});

/** Not by `toBe`, which would compare all that lies in them. */
function isShared(a: HandSetting, b: HandSetting): boolean {
  return costTables(a) === costTables(b);
}
