/** Every kind of drill, in the order of the bench. A new kind is one file and a row here. */
import type { DrillKind } from '../drill';
import { ARTIFICIAL_HARMONICS } from './artificialHarmonics';
import { BARRES } from './barres';
import { CHORD_PATTERNS } from './chordPatterns';
import { FINGER_PAIRS } from './fingerPairs';
import { INTERVALS_UP_THE_NECK } from './intervals';
import { NATURAL_HARMONICS } from './naturalHarmonics';
import { ONE_FINGER_PER_FRET } from './oneFingerPerFret';
import { PLANTING } from './planting';
import { RELEASE_AND_MOVE } from './releaseAndMove';
import { RIGHT_HAND_ORDERS } from './rightHandOrders';
import { SCALE_DRILL } from './scales';
import { SLUR_PAIRS } from './slurPairs';
import { STRUMS } from './strums';
import { THUMB_LEVELS } from './thumbLevels';
import { TREMOLO_DRILL } from './tremolo';
import { TRIADS } from './triads';

export const DRILL_KINDS: readonly DrillKind[] = [
  ONE_FINGER_PER_FRET,
  FINGER_PAIRS,
  SCALE_DRILL,
  TRIADS,
  INTERVALS_UP_THE_NECK,
  RIGHT_HAND_ORDERS,
  PLANTING,
  THUMB_LEVELS,
  TREMOLO_DRILL,
  CHORD_PATTERNS,
  STRUMS,
  SLUR_PAIRS,
  BARRES,
  RELEASE_AND_MOVE,
  NATURAL_HARMONICS,
  ARTIFICIAL_HARMONICS,
];

export const maybeDrillKind = (id: string): DrillKind | null =>
  DRILL_KINDS.find((kind) => kind.id === id) ?? null;
