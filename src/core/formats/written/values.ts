/** Written note values and their lengths. */
import { type Fraction, fraction } from '../../music/fraction';

/** Note values by their share of a whole note: 4 is a quarter. Source: MusicXML 4.0, `note-type-value`. */
const TYPES: Readonly<Record<number, string>> = {
  1: 'whole',
  2: 'half',
  4: 'quarter',
  8: 'eighth',
  16: '16th',
  32: '32nd',
  64: '64th',
  128: '128th',
};

export const typeOfShare = (share: number): string | null => TYPES[share] ?? null;

/** Quarters of a value with dots under a tuplet. */
export function quartersOf(
  share: number,
  dots: number,
  tuplet: { readonly actual: number; readonly normal: number } | null,
): Fraction {
  const dotted = fraction(4 * (2 ** (dots + 1) - 1), share * 2 ** dots);
  return tuplet ? fraction(dotted.num * tuplet.normal, dotted.den * tuplet.actual) : dotted;
}

/** The plain value with up to three dots that lasts `quarters`; null when there is none. */
export function maybeValue(
  quarters: Fraction,
): { readonly type: string; readonly share: number; readonly dots: number } | null {
  for (const share of Object.keys(TYPES).map(Number)) {
    for (let dots = 0; dots <= 3; dots++) {
      const length = quartersOf(share, dots, null);
      if (length.num === quarters.num && length.den === quarters.den)
        return { type: TYPES[share]!, share, dots };
    }
  }
  return null;
}
