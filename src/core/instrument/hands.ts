/**
 * Ready-made hands. None of these values was measured: the reaches of the medium adult hand are from memory (one
 * finger per fret lies at ease from the first position on, 97.6 mm from fret 1 to 4 on 650 mm; at most half a fret more
 * than the 126.6 mm from fret 1 to 5), those of the others are its reaches times the length of such a hand against it
 * (from memory). a, b and W are chosen so that a shift of 62 mm needs about 140 ms, with more for younger players. What
 * a hand may bar and how high it plays is common practice. A teacher should set them for each student.
 */
import { CONCERT_FRETBOARD, type Fretboard } from './fretboard';
import { PRACTISED_RIGHT, slower } from './rightProfile';
import { FINGER_PAIRS, type HandProfile, type Reach } from './handProfile';

export const ADULT_MEDIUM: HandProfile = {
  id: 'adult-medium',
  reach: {
    '12': { atEaseMm: 50, atMostMm: 95 },
    '23': { atEaseMm: 48, atMostMm: 68 },
    '34': { atEaseMm: 46, atMostMm: 68 },
    '13': { atEaseMm: 80, atMostMm: 122 },
    '24': { atEaseMm: 78, atMostMm: 112 },
    '14': { atEaseMm: 110, atMostMm: 138 },
  },
  dependence: { '12': 0, '23': 0.15, '34': 1, '13': 0, '24': 0.25, '14': 0.1 },
  highestFret: 17,
  barreStringsAtMost: 6,
  smallBarreStringsAtMost: 3,
  // Practised shifts go five frets within a note of 170 ms. Values from memory.
  movementStartMs: 30,
  movementPerBitMs: 32,
  targetWidthMm: 12,
  right: PRACTISED_RIGHT,
  weights: {},
};

/** The medium hand with every reach times `factor`. */
const scaled = (factor: number, rest: Partial<HandProfile> & { readonly id: string }): HandProfile => ({
  ...ADULT_MEDIUM,
  reach: Object.fromEntries(
    FINGER_PAIRS.map((pair) => [pair, timesReach(ADULT_MEDIUM.reach[pair], factor)]),
  ) as HandProfile['reach'],
  ...rest,
});

const timesReach = (reach: Reach, factor: number): Reach => ({
  atEaseMm: Math.round(reach.atEaseMm * factor),
  atMostMm: Math.round(reach.atMostMm * factor),
});

const ADULT_LARGE = scaled(1.08, { id: 'adult-large' });
const ADULT_SMALL = scaled(0.91, { id: 'adult-small', weights: { barre: 1.2 } });
const TEEN = scaled(0.88, {
  id: 'teen',
  highestFret: 14,
  movementPerBitMs: 42,
  right: slower(PRACTISED_RIGHT, 1.15),
  smallBarreStringsAtMost: 2,
  weights: { barre: 1.5, barreHold: 1.5, finger: 1.3 },
});
const CHILD_THREE_QUARTERS = scaled(0.8, {
  id: 'child-three-quarters',
  highestFret: 12,
  barreStringsAtMost: 3,
  smallBarreStringsAtMost: 1,
  movementStartMs: 50,
  movementPerBitMs: 52,
  right: slower(PRACTISED_RIGHT, 1.4),
  weights: { barre: 2, barreHold: 2, finger: 1.6, shiftDistance: 1.3 },
});
const CHILD_HALF = scaled(0.72, {
  id: 'child-half',
  highestFret: 9,
  barreStringsAtMost: 1,
  smallBarreStringsAtMost: 1,
  movementStartMs: 60,
  movementPerBitMs: 60,
  right: slower(PRACTISED_RIGHT, 1.6),
  weights: { finger: 2, shiftDistance: 1.6, position: 1.5 },
});

/** A hand with the instrument that it usually plays. Scale lengths: handbook, "The instrument in millimetres". */
export interface Player {
  readonly hand: HandProfile;
  readonly fretboard: Fretboard;
}

/** A child's fretboard is narrower in the same measure. From memory. */
const boardOf = (scaleLengthMm: number, gap: number): Fretboard => ({
  ...CONCERT_FRETBOARD,
  scaleLengthMm,
  stringGapAtNutMm: CONCERT_FRETBOARD.stringGapAtNutMm * gap,
  stringGapAtSaddleMm: CONCERT_FRETBOARD.stringGapAtSaddleMm * gap,
});

export const PLAYERS: readonly Player[] = [
  { hand: ADULT_MEDIUM, fretboard: CONCERT_FRETBOARD },
  { hand: ADULT_LARGE, fretboard: CONCERT_FRETBOARD },
  { hand: ADULT_SMALL, fretboard: CONCERT_FRETBOARD },
  { hand: TEEN, fretboard: CONCERT_FRETBOARD },
  { hand: CHILD_THREE_QUARTERS, fretboard: boardOf(585, 0.95) },
  { hand: CHILD_HALF, fretboard: boardOf(530, 0.9) },
];

export const DEFAULT_PLAYER: Player = PLAYERS[0]!;

export const maybePlayer = (id: string): Player | null =>
  PLAYERS.find((player) => player.hand.id === id) ?? null;
