/** How far the hand moves along the neck. */
import { fretDistanceMm, type Fretboard } from '../../../instrument/fretboard';
import type { HandRange } from './range';

/** Half a fret of the middle of the hand is only the fingers lying differently. From memory. */
const OWN_PLAY_FRETS = 0.5;

export const middleOf = (range: HandRange): number => (range.low + range.high) / 2;

/**
 * How many frets the hand moves from one range to another: the gap between them, or, when they overlap, what
 * its middle moves beyond the play of the fingers. May end on half a fret.
 */
export function handWayFrets(from: HandRange, to: HandRange): number {
  const gap = Math.max(to.low - from.high, from.low - to.high);
  return Math.max(0, gap, Math.abs(middleOf(to) - middleOf(from)) - OWN_PLAY_FRETS);
}

/** The same way in mm, measured from the middle of `from`. */
export function handWayMm(from: HandRange, to: HandRange, { scaleLengthMm }: Fretboard): number {
  const frets = handWayFrets(from, to);
  if (frets === 0) return 0;
  const start = middleOf(from);
  const end = Math.max(0, middleOf(to) > start ? start + frets : start - frets);
  return Math.abs(fretDistanceMm(end, scaleLengthMm) - fretDistanceMm(start, scaleLengthMm));
}
