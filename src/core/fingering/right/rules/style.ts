/** How a passage is to be played: a school with the teacher's choices inside it, and what that makes of the weights. */
import type { HandProfile } from '../../../instrument/handProfile';
import type { RightFinger } from '../../../instrument/rightProfile';
import { RIGHT_SCHOOLS, type RightSchool, type RightSchoolId } from './schools';
import { RIGHT_TERM_IDS, RIGHT_TERMS, type RightTermId } from './terms';
import type { TremoloId } from './tremolo';

/** Where rest strokes are played. */
export const REST_STROKES = ['never', 'lines', 'melody'] as const;
export type RestStrokes = (typeof REST_STROKES)[number];

/** Two teachings of the way back: one finger after the other, or all of them on the stroke of p. */
export const REOPENINGS = ['oneByOne', 'together'] as const;
export type Reopening = (typeof REOPENINGS)[number];

export interface RightStyle {
  readonly school: RightSchoolId;
  /** The finger that begins a line; null lets the planner choose. */
  readonly startFinger: RightFinger | null;
  readonly tremolo: TremoloId | null;
  /** Whether c may play. */
  readonly littleFinger: boolean;
  readonly restStrokes: RestStrokes;
  readonly reopening: Reopening;
}

export const PLAIN_STYLE: RightStyle = {
  school: 'balanced',
  startFinger: null,
  tremolo: null,
  littleFinger: false,
  restStrokes: 'lines',
  reopening: 'oneByOne',
};

export type RightWeights = Readonly<Record<RightTermId, number>>;

/** A factor on a term whose own weight is 0 counts in the tenths of a point themselves. */
const weighed = (own: number, factor: number | undefined) =>
  factor === undefined ? own : own === 0 ? factor : own * factor;

export const TABLE_WEIGHTS = Object.fromEntries(
  RIGHT_TERM_IDS.map((id) => [id, RIGHT_TERMS[id].weight]),
) as RightWeights;

/** What each term counts in a school: the weights of the table, or those of a calibration that is still running. */
export function rightWeights(id: RightSchoolId, hand: HandProfile, base = TABLE_WEIGHTS): RightWeights {
  const { factors }: RightSchool = RIGHT_SCHOOLS[id];
  return Object.fromEntries(
    RIGHT_TERM_IDS.map((term) => [
      term,
      weighed(base[term], factors[term]) * (hand.weights[`right.${term}`] ?? 1),
    ]),
  ) as RightWeights;
}
