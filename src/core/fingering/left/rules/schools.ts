/** Schools of the left hand: what each weighs otherwise. Source: handbook, "Schools (profiles of weights)". */
import type { LeftTermId } from './terms';

interface LeftSchool {
  /** On the term's weight; for a term that weighs nothing otherwise, the weight itself. Values from memory. */
  readonly factors: Readonly<Partial<Record<LeftTermId, number>>>;
}

export const LEFT_SCHOOLS = {
  balanced: { factors: {} },
  'low-and-open': {
    factors: {
      position: 4,
      highNote: 4,
      openMelody: 0,
      openSlow: 0,
      wound: 2,
      shift: 2,
      stretch: 1.5,
      barre: 1.5,
    },
  },
  'singing-line': {
    factors: {
      openMelody: 14,
      openSlow: 20,
      slowStringChange: 3,
      crossedLine: 2,
      stringSkip: 2,
      stringChange: 16,
    },
  },
  'ring-over': {
    factors: {
      ringOver: 80,
      // An open string rings by itself.
      finger: 8,
      openMelody: 0,
      crossedLine: 0,
      crossedVoices: 0,
      figureString: 2,
      stringSkip: 0,
      shift: 2,
      shiftTooFast: 8,
    },
  },
  'guide-first': { factors: { jump: 20, hop: 4, fingerChanged: 2, order: 0.3 } },
  'few-barres': { factors: { barre: 3.5, barreHold: 3.5, smallBarre: 3.5 } },
} as const satisfies Readonly<Record<string, LeftSchool>>;

export type LeftSchoolId = keyof typeof LEFT_SCHOOLS;
export const LEFT_SCHOOL_IDS = Object.keys(LEFT_SCHOOLS) as LeftSchoolId[];
