/** What a left hand cannot do. Source: handbook, "What cannot be". */
import { acrossMm, fingertipMm, type Fretboard } from '../../../instrument/fretboard';
import { type HandProfile, pairOf } from '../../../instrument/handProfile';
import { placeId, type Placement } from './place';
import { coversString, isBarre, type Stand, standAt, standsOf } from './stand';

/** Two fingers on strings far apart open less than their distance says: this share of it counts. From memory. */
const ACROSS_SHARE = 0.7;

type Spot = Pick<Placement, 'string' | 'fret'>;

/** Distance in mm between two fingertips, the part across the strings counted by its share. */
export function fingerDistanceMm(a: Spot, b: Spot, board: Fretboard): number {
  const alongA = fingertipMm(a.fret, board.scaleLengthMm);
  const alongB = fingertipMm(b.fret, board.scaleLengthMm);
  const across = acrossMm(a.string, alongA, board) - acrossMm(b.string, alongB, board);
  return Math.hypot(alongA - alongB, ACROSS_SHARE * across);
}

/** How many strings a finger may bar. */
const barreAtMost = (finger: number, hand: HandProfile) =>
  finger === 1 ? hand.barreStringsAtMost : hand.smallBarreStringsAtMost;

/** Whether two placements can stand together, leaving aside what lies under a barre. */
export function pairPlayable(a: Placement, b: Placement, board: Fretboard, hand: HandProfile): boolean {
  if (a.string === b.string) return false;
  if (a.finger === 0 || b.finger === 0) return true;
  if (a.finger === b.finger) {
    return a.fret === b.fret && Math.abs(a.string - b.string) < barreAtMost(a.finger, hand);
  }
  const [low, high] = a.finger < b.finger ? [a, b] : [b, a];
  if (low.fret > high.fret) return false;
  return fingerDistanceMm(low, high, board) <= hand.reach[pairOf(low.finger, high.finger)].atMostMm;
}

/** Whether nothing that sounds is silenced or blocked by a barre of any finger. */
export const barresPlayable = (placements: readonly Placement[]): boolean =>
  standsOf(placements.map(placeId))
    .filter(isBarre)
    .every((stand) => placements.every((place) => soundsOver(standAt(stand), place)));

const soundsOver = (barre: Stand, { string, fret }: Placement) =>
  !coversString(barre, string) || fret >= barre.fret;

/** Whether one hand can do all of it at once. */
export function playable(placements: readonly Placement[], board: Fretboard, hand: HandProfile): boolean {
  for (let i = 0; i < placements.length; i++) {
    const place = placements[i]!;
    if (place.fret < 0 || place.fret > hand.highestFret || (place.fret === 0) !== (place.finger === 0))
      return false;
    for (let j = 0; j < i; j++) if (!pairPlayable(placements[j]!, place, board, hand)) return false;
  }
  return barresPlayable(placements);
}
