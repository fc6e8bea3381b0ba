/** How far the hand moves along the neck. */
import { fretDistanceMm, type Fretboard } from '../../../instrument/fretboard';
import { anchorHigh, anchorLow, anchorWay } from './anchor';

/** From one anchor to another, in mm. */
export function handWayMm(from: number, to: number, { scaleLengthMm }: Fretboard): number {
  const frets = anchorWay(from, to);
  const start = frets > 0 ? anchorHigh(from) : anchorLow(from);
  return Math.abs(fretDistanceMm(start + frets, scaleLengthMm) - fretDistanceMm(start, scaleLengthMm));
}
