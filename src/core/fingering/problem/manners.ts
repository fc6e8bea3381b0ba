/** How each note is sung, by its texture and its pace. Source: handbook 13, "Open strings" and "slow melody". */
import type { Reading } from '../../figures/reading';
import type { Texture } from '../../figures/texture';
import type { Spans } from '../../music/tempo';
import { parallelsAmong } from './parallels';
import { openMidi, STRINGS } from '../../instrument/tuning';
import { dronesAmong } from './drones';
import { isFigure } from './pace';
import type { NotatedPiece } from './problem';
import type { Manner, Strike } from './strike';

/** Below so many ms a note the colour of strings fades. */
const QUICK_MS = 250;

/** Quicker notes inside a slow melody are sung as any others. Handbook 13: about 400 ms a note and more. */
const SLOW_MS = 350;

/** A note that lasts longer leaves the hand time. From memory. */
const UNHURRIED_MS = 600;

/** In these no note is heard as one of a line on a string. */
const FIGURES: ReadonlySet<Texture> = new Set<Texture>(['brokenChord', 'tremolo', 'pedal', 'strum']);

/** @param reckoned time as the left hand reckons it, see `pace.ts` */
export function withManners(
  { strikes, clock, tuning }: NotatedPiece,
  { figures }: Reading,
  reckoned: Spans,
): readonly Strike[] {
  const textureOf = new Map(figures.flatMap(({ texture, strikes: own }) => own.map((one) => [one, texture])));
  const nextOf = new Map(strikes.flatMap((one) => (one.lineFrom === null ? [] : [[one.lineFrom, one]])));
  const drones = dronesAmong(strikes, figures, (midi) =>
    STRINGS.some((string) => openMidi(tuning, string) === midi),
  );
  // What stays in a figure that moves is a drone, what moves in it is none.
  const isDrone = ({ index, inMove }: Strike) => (inMove === null ? drones.has(index) : inMove === 'stays');
  const sung = strikes.map((strike) => {
    const before = strike.lineFrom === null ? null : strikes[strike.lineFrom]!;
    const next = nextOf.get(strike.index) ?? null;
    const texture = textureOf.get(strike.index) ?? 'mixed';
    const msBetween = (from: Strike, to: Strike) =>
      isFigure(texture)
        ? reckoned.spanMs(from.onsetTicks, to.onsetTicks)
        : clock(to.onsetTicks) - clock(from.onsetTicks);
    const pace = Math.min(
      before ? msBetween(before, strike) : Infinity,
      next ? msBetween(strike, next) : Infinity,
    );
    const manner = mannerOf(texture, pace);
    return {
      ...strike,
      manner: isDrone(strike) ? 'drone' : manner,
      unhurried: reckoned.spanMs(strike.onsetTicks, strike.writtenEndTicks) > UNHURRIED_MS,
    } as const;
  });
  const parallels = parallelsAmong(sung);
  return sung.map((strike) => ({
    ...strike,
    parallelFrom: parallels.get(strike.index) ?? strike.parallelFrom,
  }));
}

function mannerOf(texture: Texture, paceMs: number): Manner {
  if (FIGURES.has(texture)) return 'figure';
  if (texture === 'slowMelody' && paceMs >= SLOW_MS) return 'slow';
  return paceMs < QUICK_MS ? 'quick' : 'plain';
}
