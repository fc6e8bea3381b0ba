/** The voices of a piece as rows of events: what is struck at one moment in one voice. */
import type { NotatedPiece } from '../fingering/problem/problem';
import type { Strike } from '../fingering/problem/strike';

export interface VoiceEvent {
  readonly moment: number;
  readonly timeMs: number;
  /** From the lowest pitch up; grace notes stand for themselves. */
  readonly strikes: readonly Strike[];
}

export interface Voice {
  readonly name: string;
  /** 0 for the lowest voice. */
  readonly rank: number;
  readonly events: readonly VoiceEvent[];
}

/** From the lowest voice up, by the mean of their pitches. */
export function voicesOf({ strikes, moments }: NotatedPiece): readonly Voice[] {
  const names = [...new Set(strikes.map(({ voice }) => voice))];
  const mean = (name: string) => {
    const own = strikes.filter(({ voice }) => voice === name);
    return own.reduce((sum, { midi }) => sum + midi, 0) / own.length;
  };
  const means = new Map(names.map((name) => [name, mean(name)]));
  names.sort((a, b) => means.get(a)! - means.get(b)! || a.localeCompare(b));
  return names.map((name, rank) => ({
    name,
    rank,
    events: moments.flatMap(({ struck, index, timeMs }): VoiceEvent[] => {
      const own = struck.map((strike) => strikes[strike]!).filter(({ voice }) => voice === name);
      if (own.length === 0) return [];
      return [{ moment: index, timeMs, strikes: own.sort((a, b) => a.midi - b.midi) }];
    }),
  }));
}

export const lowest = ({ strikes }: VoiceEvent): number => strikes[0]!.midi;
export const highest = ({ strikes }: VoiceEvent): number => strikes.at(-1)!.midi;
export const isSingle = ({ strikes }: VoiceEvent): boolean => strikes.length === 1;
