/** Schools of the right hand: what each weighs otherwise. Source: handbook, "The right hand", Schools. */
import type { RightFinger } from '../../instrument/rightProfile';
import type { RightTermId } from './terms';

export interface RightSchool {
  /** On the term's weight; for a term that weighs nothing otherwise, the weight itself. Values from memory. */
  readonly factors: Readonly<Partial<Record<RightTermId, number>>>;
  /** The two that alternate in a line. */
  readonly pair?: readonly [RightFinger, RightFinger];
  /** The fingers of a line in turn, again and again. */
  readonly order?: readonly RightFinger[];
  /** Down and up instead of p i m a. */
  readonly plectrum?: true;
}

/** In a strict alternation crossings are trained, not avoided; a repeat is the one mistake. */
const STRICT = { displacement: 0.15, displacementHaste: 0.15, setMove: 0, repeat: 3, offPair: 120 };

export const RIGHT_SCHOOLS = {
  balanced: { factors: {} },
  stations: { factors: { station: 25, thumbString: 1.5, displacement: 1.5, habit: 0 } },
  'strict-im': { factors: STRICT, pair: ['i', 'm'] },
  'strict-ma': { factors: STRICT, pair: ['m', 'a'] },
  'strict-ia': { factors: STRICT, pair: ['i', 'a'] },
  'crossing-free': {
    factors: {
      displacement: 4,
      displacementHaste: 2,
      thumbRepeat: 0.3,
      thumbString: 0.4,
      thumbMelody: 0.3,
      repeat: 0.7,
      habit: 0,
    },
  },
  'three-finger': {
    factors: { displacement: 0.4, displacementHaste: 0.4, ring: 0, offOrder: 120, habit: 0 },
    order: ['a', 'm', 'i'],
  },
  plectrum: { factors: {}, plectrum: true },
} as const satisfies Readonly<Record<string, RightSchool>>;

export type RightSchoolId = keyof typeof RIGHT_SCHOOLS;
export const RIGHT_SCHOOL_IDS = Object.keys(RIGHT_SCHOOLS) as RightSchoolId[];
