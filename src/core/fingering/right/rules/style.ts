/** How a passage is to be played: a school with the teacher's choices inside it. */
import type { RightFinger } from '../../../instrument/rightProfile';
import type { RightSchoolId } from './schools';
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
