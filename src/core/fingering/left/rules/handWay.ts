/** How far the hand moves along the neck. */
import { fretDistanceMm, type Fretboard } from '../../../instrument/fretboard';

/** From one anchor to another. */
export const handWayMm = (from: number, to: number, { scaleLengthMm }: Fretboard): number =>
  Math.abs(fretDistanceMm(to, scaleLengthMm) - fretDistanceMm(from, scaleLengthMm));
