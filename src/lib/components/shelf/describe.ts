/** A piece in words for the shelf. */
import type { PieceSummary } from '$lib/pieceSummary';

const MAJOR = ['C♭', 'G♭', 'D♭', 'A♭', 'E♭', 'B♭', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F♯', 'C♯'] as const;
const MINOR = ['A♭', 'E♭', 'B♭', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F♯', 'C♯', 'G♯', 'D♯', 'A♯'] as const;

/** "G major"; "one sharp" in words where the file does not say major or minor. */
export function keyName(summary: PieceSummary): string {
  const { fifths, mode } = summary;
  if (fifths === null) return 'no key given';
  if (mode) return `${(mode === 'major' ? MAJOR : MINOR)[fifths + 7] ?? '?'} ${mode}`;
  if (fifths === 0) return 'no sharps or flats';
  const count = Math.abs(fifths);
  return `${count} ${fifths > 0 ? 'sharp' : 'flat'}${count === 1 ? '' : 's'}`;
}

const TUNING_NAMES: Readonly<Record<string, string>> = {
  standard: 'standard tuning',
  'sixth-to-d': 'sixth to D',
  'fifth-to-g-sixth-to-d': 'fifth to G, sixth to D',
  'third-to-f-sharp': 'third to F♯',
};

export const tuningName = (id: string): string => TUNING_NAMES[id] ?? id;

export const count = (value: number, one: string): string => `${value} ${value === 1 ? one : `${one}s`}`;
