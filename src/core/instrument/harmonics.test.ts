import { describe, expect, it } from 'vitest';
import { fretDistanceMm } from './fretboard';
import { harmonicSemitones, NATURAL_NODES, placesSounding, placesTouching } from './harmonics';
import { STANDARD_TUNING } from './tuning';

describe('natural harmonics (handbook, "Harmonics")', () => {
  it.each([
    [2, 1200],
    [3, 1901.96],
    [4, 2400],
    [5, 2786.31],
  ])('order %i sounds %f cents above the open string (1200 · log2 n)', (order, cents) =>
    expect(100 * harmonicSemitones(order)).toBeCloseTo(cents, 1),
  );

  it.each(NATURAL_NODES)('order $order is touched near the wire of fret $fret', ({ order, fret }) => {
    const wireMm = fretDistanceMm(fret, 650);
    const touches = Array.from({ length: order - 1 }, (_, k) => (650 * (k + 1)) / order);
    const nearest = Math.min(...touches.map((touchMm) => Math.abs(touchMm - wireMm)));
    // The handbook's touch points lie up to 4.1 mm from their wires (order 5 at fret 4: 130.0 against 134.1).
    expect(nearest).toBeLessThan(4.2);
  });

  it('E4 as a harmonic: fifth string at fret 7, its octave at fret 12 of the first', () => {
    expect(placesSounding(64, STANDARD_TUNING)).toContainEqual({ string: 5, fret: 7 });
    expect(placesSounding(76, STANDARD_TUNING)).toContainEqual({ string: 1, fret: 12 });
    expect(placesSounding(64, STANDARD_TUNING)).toContainEqual({ string: 6, fret: 5 });
  });

  it('written at the touched fret', () =>
    expect(placesTouching(71, STANDARD_TUNING)).toContainEqual({ string: 1, fret: 7 }));
});
