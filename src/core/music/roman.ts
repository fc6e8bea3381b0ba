/** Roman numerals for positions and barres. */
const ROMAN = [
  '',
  'I',
  'II',
  'III',
  'IV',
  'V',
  'VI',
  'VII',
  'VIII',
  'IX',
  'X',
  'XI',
  'XII',
  'XIII',
  'XIV',
  'XV',
  'XVI',
  'XVII',
  'XVIII',
  'XIX',
] as const;

/** "VII" for 7; Arabic beyond the neck. */
export const roman = (fret: number): string => ROMAN[fret] ?? String(fret);
