/** What one player's left hand can reach and how fast both hands move. Lengths in mm, times in ms. */
import { z } from 'zod';
import { type RightProfile, rightProfileSchema } from './rightProfile';

export const FINGER_PAIRS = ['12', '23', '34', '13', '24', '14'] as const;
export type FingerPair = (typeof FINGER_PAIRS)[number];

export interface Reach {
  readonly atEaseMm: number;
  readonly atMostMm: number;
}

export interface HandProfile {
  readonly id: string;
  readonly reach: Readonly<Record<FingerPair, Reach>>;
  /** How much two fingers hinder each other in quick turn: 0 not at all, 1 most. Another matter than reach. */
  readonly dependence: Readonly<Record<FingerPair, number>>;
  readonly highestFret: number;
  /** How many strings finger 1 may bar; 1 forbids the barre, 3 or 4 allow a partial one. */
  readonly barreStringsAtMost: number;
  /** How many neighbouring strings 2, 3 or 4 may bar; 1 forbids it. */
  readonly smallBarreStringsAtMost: number;
  /** Aimed movement t = a + b · max(0, log2(2D / W)) (Fitts 1954). */
  readonly movementStartMs: number;
  readonly movementPerBitMs: number;
  readonly targetWidthMm: number;
  /** How fast the fingers of the other hand follow each other. */
  readonly right: RightProfile;
  /** Factors on the weights of the cost table, by term; a term that is not named counts as it stands. */
  readonly weights: Readonly<Record<string, number>>;
}

const reachSchema = z
  .object({ atEaseMm: z.number().positive(), atMostMm: z.number().positive() })
  .refine(
    (reach) => reach.atEaseMm < reach.atMostMm,
    'the reach at ease must be less than the reach at most',
  );

const byPair = <T extends z.ZodType>(value: T) =>
  z.strictObject({ '12': value, '23': value, '34': value, '13': value, '24': value, '14': value });

/** A profile as it comes from outside. */
export const handProfileSchema = z.strictObject({
  id: z.string().min(1),
  reach: byPair(reachSchema),
  dependence: byPair(z.number().min(0).max(1)),
  highestFret: z.int().min(4).max(19),
  barreStringsAtMost: z.int().min(1).max(6),
  smallBarreStringsAtMost: z.int().min(1).max(4),
  movementStartMs: z.number().min(0),
  movementPerBitMs: z.number().positive(),
  targetWidthMm: z.number().positive(),
  right: rightProfileSchema,
  weights: z.record(z.string(), z.number().min(0)),
});

/** The fingers must differ and `low` be the smaller. */
export const pairOf = (low: number, high: number) => `${low}${high}` as FingerPair;

/** Time in ms that a movement over `distanceMm` needs. Source: Fitts 1954. */
export function movementMs(distanceMm: number, hand: HandProfile): number {
  if (distanceMm <= 0) return 0;
  const bits = Math.max(0, Math.log2((2 * distanceMm) / hand.targetWidthMm));
  return hand.movementStartMs + hand.movementPerBitMs * bits;
}
