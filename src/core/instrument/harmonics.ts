/** Natural harmonics on six strings. Source: handbook, "Harmonics"; cents by 1200 · log2(n). */
import { openMidi, STRINGS, type Tuning } from './tuning';

/** Order and the fret nearest to each touch point that players use. */
export const NATURAL_NODES = [
  { order: 2, fret: 12 },
  { order: 3, fret: 7 },
  { order: 3, fret: 19 },
  { order: 4, fret: 5 },
  { order: 5, fret: 4 },
  { order: 5, fret: 9 },
  { order: 5, fret: 16 },
] as const;

/** Semitones above the open string at which the harmonic of an order sounds; 27.86 for order 5. */
export const harmonicSemitones = (order: number): number => 12 * Math.log2(order);

export interface TouchPlace {
  readonly string: number;
  readonly fret: number;
}

/** Where a harmonic that sounds `midi` can be touched. */
export function placesSounding(midi: number, tuning: Tuning): readonly TouchPlace[] {
  return placesWhere(tuning, ({ order }, open) => Math.round(open + harmonicSemitones(order)) === midi);
}

/** Where a harmonic can be touched that is written at the pitch of the touched fret. */
export function placesTouching(midi: number, tuning: Tuning): readonly TouchPlace[] {
  return placesWhere(tuning, ({ fret }, open) => open + fret === midi);
}

function placesWhere(
  tuning: Tuning,
  fits: (node: (typeof NATURAL_NODES)[number], open: number) => boolean,
): readonly TouchPlace[] {
  return STRINGS.flatMap((string) =>
    NATURAL_NODES.filter((node) => fits(node, openMidi(tuning, string))).map(({ fret }) => ({
      string,
      fret,
    })),
  );
}
