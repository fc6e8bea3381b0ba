import { roman } from '../music/roman';
import type { PlannedBarre } from '../fingering/report/plan';
import { type MarkStyle, PLAIN_MARKS } from './style';

/** By number of strings. Source: handbook, "Notation conventions". */
const FRACTIONS: Readonly<Record<number, string>> = { 2: '⅓', 3: '½', 4: '⅔' };
/** From so many strings on it is a whole barre. */
const WHOLE = 5;

/** "C V" for a whole barre; of three strings "3/6 C V" or "½ C V". */
export function barreLabel(
  barre: PlannedBarre,
  { barreLetter, barreFraction }: Pick<MarkStyle, 'barreLetter' | 'barreFraction'> = PLAIN_MARKS,
): string {
  const strings = barre.lastString - barre.firstString + 1;
  const part = barreFraction === 'sixths' ? `${strings}/6` : FRACTIONS[strings];
  return `${strings >= WHOLE ? '' : `${part} `}${barreLetter} ${roman(barre.fret)}`;
}
