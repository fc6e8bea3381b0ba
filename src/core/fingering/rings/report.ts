/** What rings, summed up: per voice what is lost and what goes on, and how far open strings sound into each other. */
import type { Ring } from './ring';

export interface VoiceRings {
  readonly voice: string;
  /** Share of the written time that sounds, 0 to 1. Source: handbook, "What really rings". */
  readonly legato: number;
  /** Written to last and does not. In quarters. */
  readonly cutQuarters: number;
  /** Written to stop and goes on. In quarters. */
  readonly overhangQuarters: number;
}

export interface RingsReport {
  readonly voices: readonly VoiceRings[];
  /** All voices together. */
  readonly legato: number;
  /** How long two or more strings that ring by themselves sound at once. */
  readonly openOverlapQuarters: number;
}

export const cutTicks = (ring: Ring): number => Math.max(0, ring.writtenEndTicks - ring.soundsUntilTicks);
export const overhangTicks = (ring: Ring): number =>
  Math.max(0, ring.soundsUntilTicks - ring.writtenEndTicks);

export function ringsReport(rings: readonly Ring[], ticksPerQuarter: number): RingsReport {
  const voices = [...new Set(rings.map((ring) => ring.voice))].sort((a, b) =>
    a.localeCompare(b, 'en', { numeric: true }),
  );
  const quarters = (of: readonly Ring[], ticks: (ring: Ring) => number) =>
    of.reduce((sum, ring) => sum + ticks(ring), 0) / ticksPerQuarter;
  return {
    voices: voices.map((voice) => {
      const own = rings.filter((ring) => ring.voice === voice);
      return {
        voice,
        legato: legatoOf(own),
        cutQuarters: quarters(own, cutTicks),
        overhangQuarters: quarters(own, overhangTicks),
      };
    }),
    legato: legatoOf(rings),
    openOverlapQuarters: overlapTicks(rings.filter((ring) => ring.free)) / ticksPerQuarter,
  };
}

/** 1 where nothing is written. */
function legatoOf(rings: readonly Ring[]): number {
  const written = rings.reduce((sum, ring) => sum + ring.writtenEndTicks - ring.onsetTicks, 0);
  const lost = rings.reduce((sum, ring) => sum + cutTicks(ring), 0);
  return written === 0 ? 1 : 1 - lost / written;
}

/** Ticks during which at least two of the rings sound. */
function overlapTicks(rings: readonly Ring[]): number {
  const changes = rings
    .flatMap((ring) => [
      { tick: ring.onsetTicks, by: 1 },
      { tick: ring.soundsUntilTicks, by: -1 },
    ])
    .sort((a, b) => a.tick - b.tick);
  let sounding = 0;
  let since = 0;
  let sum = 0;
  for (const { tick, by } of changes) {
    if (sounding >= 2) sum += tick - since;
    since = tick;
    sounding += by;
  }
  return sum;
}
