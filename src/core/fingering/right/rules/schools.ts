/** Schools of the right hand: what each weighs otherwise. Source: handbook, "The right hand", Schools. */
import type { RightTermId } from './terms';
import type { TurnId } from './turns';

export interface RightSchool {
  /** On the term's weight; for a term that weighs nothing otherwise, the weight itself. Values from memory. */
  readonly factors: Readonly<Partial<Record<RightTermId, number>>>;
  /** How a line is played: a pair in turn, an order of three, each string by its finger, or as it falls best. */
  readonly line: 'pair' | 'order' | 'stations' | 'free';
  /** The two that alternate in every texture. */
  readonly everywhere?: TurnId;
  /** Down and up instead of p i m a. */
  readonly plectrum?: true;
}

/** In a strict alternation crossings are trained, not avoided; a repeat is the one mistake. */
const strict = (everywhere: TurnId): RightSchool => ({
  factors: { displacement: 0.5, offPair: 120 },
  line: 'pair',
  everywhere,
});

export const RIGHT_SCHOOLS = {
  balanced: { factors: {}, line: 'pair' },
  stations: { factors: { station: 6, visit: 6, doubleThumb: 0, repeat: 0.1 }, line: 'stations' },
  'strict-im': strict('im'),
  'strict-ma': strict('ma'),
  'strict-ia': strict('ia'),
  'crossing-free': {
    factors: { displacement: 4, thumbInner: 0.3, doubleThumb: 0, repeat: 0.7, restation: 0.5 },
    line: 'free',
  },
  'three-finger': { factors: { ring: 0 }, line: 'order' },
  /** Down and up, with a sweep where a string changes. */
  plectrum: { factors: {}, line: 'free', plectrum: true },
  /** Down and up by the beat, whatever the strings. */
  'plectrum-strict': {
    factors: { sweepBack: 3, sweep: 30, pickSkip: 0.3, pickOffBeat: 3 },
    line: 'free',
    plectrum: true,
  },
} as const satisfies Readonly<Record<string, RightSchool>>;

export type RightSchoolId = keyof typeof RIGHT_SCHOOLS;
export const RIGHT_SCHOOL_IDS = Object.keys(RIGHT_SCHOOLS) as RightSchoolId[];
