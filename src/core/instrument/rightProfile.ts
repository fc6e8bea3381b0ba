/** How fast one right hand plays. Times in ms. */
import { z } from 'zod';

export const RIGHT_FINGERS = ['p', 'i', 'm', 'a', 'c'] as const;
export type RightFinger = (typeof RIGHT_FINGERS)[number];

/** Two of them in turn, the one nearer to the thumb first. */
export const RIGHT_PAIRS = ['pi', 'pm', 'pa', 'pc', 'im', 'ia', 'ic', 'ma', 'mc', 'ac'] as const;
export type RightPair = (typeof RIGHT_PAIRS)[number];

export interface RightProfile {
  /** From a stroke of a finger to the next of the same finger, at its fastest. */
  readonly strokeMs: Readonly<Record<RightFinger, number>>;
  /** From a stroke of one to a stroke of the other, at their fastest. */
  readonly pairMs: Readonly<Record<RightPair, number>>;
  /** From a stroke of the plectrum to the next one back, and to one in the same direction. */
  readonly plectrumMs: number;
  readonly plectrumAgainMs: number;
}

const ms = z.number().positive().max(2000);
const byKey = <K extends string>(keys: readonly K[]) =>
  z.strictObject(Object.fromEntries(keys.map((key) => [key, ms])) as Record<K, typeof ms>);

export const rightProfileSchema = z.strictObject({
  strokeMs: byKey(RIGHT_FINGERS),
  pairMs: byKey(RIGHT_PAIRS),
  plectrumMs: ms,
  plectrumAgainMs: ms,
});

/**
 * An adult who has practised for some years. None of these values was measured, all are from memory: i and m
 * alternate sixteenths at about ♩ = 150 (100 ms), m and a less well, c worst; p repeats eighths of a quick bass.
 */
export const PRACTISED_RIGHT: RightProfile = {
  strokeMs: { p: 150, i: 190, m: 190, a: 220, c: 300 },
  pairMs: { pi: 70, pm: 70, pa: 75, pc: 100, im: 95, ia: 100, ic: 120, ma: 115, mc: 130, ac: 170 },
  plectrumMs: 75,
  plectrumAgainMs: 150,
};

/** The same hand, every time multiplied. */
export const slower = (profile: RightProfile, factor: number): RightProfile => {
  const times = <K extends string>(row: Readonly<Record<K, number>>) =>
    Object.fromEntries(
      Object.entries<number>(row).map(([key, value]) => [key, Math.round(value * factor)]),
    ) as Record<K, number>;
  return {
    strokeMs: times(profile.strokeMs),
    pairMs: times(profile.pairMs),
    plectrumMs: Math.round(profile.plectrumMs * factor),
    plectrumAgainMs: Math.round(profile.plectrumAgainMs * factor),
  };
};
