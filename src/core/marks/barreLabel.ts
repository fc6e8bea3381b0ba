import { roman } from '../music/roman';
import type { PlannedBarre } from '../fingering/report/plan';

/** "C V" for a whole barre, "3/6 C V" for three strings. Source: handbook, "Notation conventions". */
export function barreLabel(barre: PlannedBarre): string {
  const strings = barre.lastString - barre.firstString + 1;
  return `${strings >= 5 ? '' : `${strings}/6 `}C ${roman(barre.fret)}`;
}
