/** All passages by category. Half of each, every second one, is for fitting; the other half checks. */
import type { Passage } from '../passage';
import { ARPEGGIOS } from './arpeggios';
import { BARRES } from './barres';
import { CHORDS } from './chords';
import { HELD } from './held';
import { PLAYERS_AND_TUNINGS } from './players';
import { POSITIONS } from './positions';
import { RING_OVER } from './ringOver';
import { SCALES } from './scales';
import { SHIFTS } from './shifts';
import { SLURS } from './slurs';
import { STRETCHES } from './stretches';

export const PASSAGES: Readonly<Record<string, readonly Passage[]>> = {
  scales: SCALES,
  arpeggios: ARPEGGIOS,
  chords: CHORDS,
  held: HELD,
  shifts: SHIFTS,
  barres: BARRES,
  stretches: STRETCHES,
  ringOver: RING_OVER,
  positions: POSITIONS,
  players: PLAYERS_AND_TUNINGS,
  slurs: SLURS,
};

export const CATEGORIES = Object.keys(PASSAGES);
export const fittingHalf = (category: string) => PASSAGES[category]!.filter((_one, k) => k % 2 === 0);
export const checkingHalf = (category: string) => PASSAGES[category]!.filter((_one, k) => k % 2 === 1);
