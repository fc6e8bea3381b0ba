/** What one left hand can reach and how fast it moves. Lengths in mm, times in ms. */
import { z } from 'zod';

export type FingerPair = '12' | '23' | '34' | '13' | '24' | '14';

export interface Reach {
  readonly atEaseMm: number;
  readonly atMostMm: number;
}

export interface HandProfile {
  readonly id: string;
  readonly reach: Readonly<Record<FingerPair, Reach>>;
  readonly highestFret: number;
  /** How many strings finger 1 may bar; 1 forbids the barre. */
  readonly barreStringsAtMost: number;
  /** Aimed movement t = a + b · max(0, log2(2D / W)) (Fitts 1954). */
  readonly movementStartMs: number;
  readonly movementPerBitMs: number;
  readonly targetWidthMm: number;
}

const reachSchema = z
  .object({ atEaseMm: z.number().positive(), atMostMm: z.number().positive() })
  .refine(
    (reach) => reach.atEaseMm < reach.atMostMm,
    'the reach at ease must be less than the reach at most',
  );

/** A profile as it comes from outside. */
export const handProfileSchema = z.strictObject({
  id: z.string().min(1),
  reach: z.strictObject({
    '12': reachSchema,
    '23': reachSchema,
    '34': reachSchema,
    '13': reachSchema,
    '24': reachSchema,
    '14': reachSchema,
  }),
  highestFret: z.int().min(4).max(19),
  barreStringsAtMost: z.int().min(1).max(6),
  movementStartMs: z.number().min(0),
  movementPerBitMs: z.number().positive(),
  targetWidthMm: z.number().positive(),
});

/**
 * An adult hand on a full-size instrument. The reaches are from memory: one finger per fret lies at ease from
 * the first position on (97.6 mm from fret 1 to 4 on 650 mm), five frets at most from there. a, b and W are
 * chosen so that a shift of 62 mm needs about 240 ms.
 */
export const ADULT_MEDIUM: HandProfile = {
  id: 'adult-medium',
  reach: {
    '12': { atEaseMm: 50, atMostMm: 95 },
    '23': { atEaseMm: 48, atMostMm: 68 },
    '34': { atEaseMm: 46, atMostMm: 68 },
    '13': { atEaseMm: 80, atMostMm: 122 },
    '24': { atEaseMm: 78, atMostMm: 112 },
    '14': { atEaseMm: 110, atMostMm: 150 },
  },
  highestFret: 17,
  barreStringsAtMost: 6,
  movementStartMs: 50,
  movementPerBitMs: 57,
  targetWidthMm: 12,
};

/** The fingers must differ and `low` be the smaller. */
export const pairOf = (low: number, high: number) => `${low}${high}` as FingerPair;

/** Time in ms that a movement over `distanceMm` needs. Source: Fitts 1954. */
export function movementMs(distanceMm: number, hand: HandProfile): number {
  if (distanceMm <= 0) return 0;
  const bits = Math.max(0, Math.log2((2 * distanceMm) / hand.targetWidthMm));
  return hand.movementStartMs + hand.movementPerBitMs * bits;
}
