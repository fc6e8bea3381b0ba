/** Every kind of drill, in the order of the bench. A new kind is one file and a row here. */
import type { DrillKind } from '../drill';
import { BARRES } from './barres';
import { CHORD_PATTERNS } from './chordPatterns';
import { FINGER_PAIRS } from './fingerPairs';
import { INTERVALS_UP_THE_NECK } from './intervals';
import { NATURAL_HARMONICS } from './naturalHarmonics';
import { ONE_FINGER_PER_FRET } from './oneFingerPerFret';
import { RIGHT_HAND_ORDERS } from './rightHandOrders';
import { SCALE_DRILL } from './scales';
import { SLUR_PAIRS } from './slurPairs';
import { TREMOLO_DRILL } from './tremolo';
import { TRIADS } from './triads';

export const DRILL_KINDS: readonly DrillKind[] = [
  ONE_FINGER_PER_FRET,
  FINGER_PAIRS,
  SCALE_DRILL,
  TRIADS,
  INTERVALS_UP_THE_NECK,
  RIGHT_HAND_ORDERS,
  TREMOLO_DRILL,
  CHORD_PATTERNS,
  SLUR_PAIRS,
  BARRES,
  NATURAL_HARMONICS,
];

export const maybeDrillKind = (id: string): DrillKind | null =>
  DRILL_KINDS.find((kind) => kind.id === id) ?? null;
