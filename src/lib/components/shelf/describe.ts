/** A piece in words for the shelf. */
import { openStringNames } from '$core/messages/en';
import type { PieceSummary } from '$lib/pieceSummary';

const MAJOR = ['C♭', 'G♭', 'D♭', 'A♭', 'E♭', 'B♭', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F♯', 'C♯'] as const;
const MINOR = ['A♭', 'E♭', 'B♭', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F♯', 'C♯', 'G♯', 'D♯', 'A♯'] as const;

/** "G major"; "one sharp" in words where the file does not say major or minor. */
export function keyName(summary: Pick<PieceSummary, 'fifths' | 'mode'>): string {
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

/** A tuning of its own is named by its strings, from the sixth to the first. */
export const tuningName = (id: string): string =>
  TUNING_NAMES[id] ?? (id.startsWith('custom:') ? openStringNames(id) : id);

/** Effort in points, left and right hand together. */
export const effortPerBar = (plan: { leftCost: number; rightCost: number }, bars: number): string =>
  ((plan.leftCost + plan.rightCost) / 10 / Math.max(1, bars)).toFixed(1);

export const barList = (numbers: readonly string[]): string =>
  numbers.length === 0 ? 'none' : `${numbers.length === 1 ? 'bar' : 'bars'} ${numbers.join(', ')}`;

export const count = (value: number, one: string): string => `${value} ${value === 1 ? one : `${one}s`}`;

/** Metres whose beat is a dotted quarter. Common practice: three eighths to a beat. */
const COMPOUND = /^(6|9|12)\/8$/;

/** The tempo by the beat that the metre has: "♩ = 90", in six eighths "♩. = 60". */
export function tempoName({
  quartersPerMinute,
  metre,
}: Pick<PieceSummary, 'quartersPerMinute' | 'metre'>): string {
  const isCompound = metre !== null && COMPOUND.test(metre);
  return isCompound ? `♩. = ${Math.round(quartersPerMinute / 1.5)}` : `♩ = ${Math.round(quartersPerMinute)}`;
}
