/** Tunings as rows: sounding MIDI numbers of the open strings, string 1 first. */

export interface Tuning {
  readonly id: string;
  readonly openMidi: readonly [number, number, number, number, number, number];
}

export const TUNINGS = [
  { id: 'standard', openMidi: [64, 59, 55, 50, 45, 40] },
  { id: 'sixth-to-d', openMidi: [64, 59, 55, 50, 45, 38] },
  { id: 'fifth-to-g-sixth-to-d', openMidi: [64, 59, 55, 50, 43, 38] },
  { id: 'third-to-f-sharp', openMidi: [64, 59, 54, 50, 45, 40] },
] as const satisfies readonly Tuning[];

export type TuningId = (typeof TUNINGS)[number]['id'];

export const STANDARD_TUNING: Tuning = TUNINGS[0];

/** @throws RangeError for an unknown id */
export function tuningOrThrow(id: string): Tuning {
  const row = TUNINGS.find((tuning) => tuning.id === id);
  if (!row) throw new RangeError(`no tuning "${id}"`);
  return row;
}

export const STRINGS = [1, 2, 3, 4, 5, 6] as const;

/** Open pitch of a string (1 to 6) as a MIDI number. */
export const openMidi = (tuning: Tuning, string: number): number => tuning.openMidi[string - 1]!;

export const lowestMidi = (tuning: Tuning): number => Math.min(...tuning.openMidi);
