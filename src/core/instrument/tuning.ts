/** Tunings as rows: sounding MIDI numbers of the open strings, string 1 first. */

export type OpenStrings = readonly [number, number, number, number, number, number];

export interface Tuning {
  /** Of the list below, or "custom:64,59,55,50,45,40". */
  readonly id: string;
  readonly openMidi: OpenStrings;
}

export const TUNINGS = [
  { id: 'standard', openMidi: [64, 59, 55, 50, 45, 40] },
  { id: 'sixth-to-d', openMidi: [64, 59, 55, 50, 45, 38] },
  { id: 'fifth-to-g-sixth-to-d', openMidi: [64, 59, 55, 50, 43, 38] },
  { id: 'third-to-f-sharp', openMidi: [64, 59, 54, 50, 45, 40] },
] as const satisfies readonly Tuning[];

export type TuningId = (typeof TUNINGS)[number]['id'];

export const STANDARD_TUNING: Tuning = TUNINGS[0];

/** No string of a guitar is tuned outside these. Common practice, with room on both sides. */
const LOWEST_STRING = 31;
const HIGHEST_STRING = 72;

/** The tuning of a known id or a list of six open strings; null for anything else. */
export function maybeTuning(id: string): Tuning | null {
  const row = TUNINGS.find((tuning) => tuning.id === id);
  if (row) return row;
  const list = /^custom:(\d{2}(?:,\d{2}){5})$/.exec(id)?.[1]?.split(',').map(Number);
  return list ? tuningFromMidi(list) : null;
}

/** @throws RangeError for an unknown id */
export function tuningOrThrow(id: string): Tuning {
  const tuning = maybeTuning(id);
  if (!tuning) throw new RangeError(`no tuning "${id}"`);
  return tuning;
}

/** Six open strings, string 1 first; one of the list where it is the same. Null when they fit no guitar. */
export function tuningFromMidi(openMidi: readonly number[]): Tuning | null {
  const known = TUNINGS.find((tuning) => tuning.openMidi.every((midi, k) => midi === openMidi[k]));
  if (known && openMidi.length === 6) return known;
  const fits = openMidi.every(
    (midi) => Number.isInteger(midi) && midi >= LOWEST_STRING && midi <= HIGHEST_STRING,
  );
  if (!fits || openMidi.length !== 6) return null;
  return { id: `custom:${openMidi.join(',')}`, openMidi: openMidi as unknown as OpenStrings };
}

export const STRINGS = [1, 2, 3, 4, 5, 6] as const;

/** Open pitch of a string (1 to 6) as a MIDI number. */
export const openMidi = (tuning: Tuning, string: number): number => tuning.openMidi[string - 1]!;

export const lowestMidi = (tuning: Tuning): number => Math.min(...tuning.openMidi);
