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
  const byVoice = new Map<string, Sums>();
  const all: Sums = { written: 0, cut: 0, overhang: 0 };
  for (const ring of rings) {
    let own = byVoice.get(ring.voice);
    if (!own) byVoice.set(ring.voice, (own = { written: 0, cut: 0, overhang: 0 }));
    count(ring, own);
    count(ring, all);
  }
  const voices = [...byVoice].sort(([a], [b]) => a.localeCompare(b, 'en', { numeric: true }));
  return {
    voices: voices.map(([voice, own]) => ({
      voice,
      legato: legatoOf(own),
      cutQuarters: own.cut / ticksPerQuarter,
      overhangQuarters: own.overhang / ticksPerQuarter,
    })),
    legato: legatoOf(all),
    openOverlapQuarters: overlapTicks(rings.filter((ring) => ring.free)) / ticksPerQuarter,
  };
}

/** In ticks. */
interface Sums {
  written: number;
  cut: number;
  overhang: number;
}

function count(ring: Ring, sums: Sums): void {
  sums.written += ring.writtenEndTicks - ring.onsetTicks;
  sums.cut += cutTicks(ring);
  sums.overhang += overhangTicks(ring);
}

/** 1 where nothing is written. */
const legatoOf = ({ written, cut }: Sums): number => (written === 0 ? 1 : 1 - cut / written);

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
