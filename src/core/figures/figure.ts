/** A figure: a span of one texture in one voice. */
import type { Texture } from './texture';

/** What recognised it: see the words in `messages/figures.ts`. `teacher`: it was corrected. */
export const FIGURE_RULES = [
  'steps',
  'leaps',
  'again',
  'tremolo',
  'together',
  'afterBass',
  'pedal',
  'sameForm',
  'slow',
  'marked',
  'withUpper',
  'unclear',
  'teacher',
] as const;
export type FigureRule = (typeof FIGURE_RULES)[number];

export interface Figure {
  readonly voice: string;
  readonly texture: Texture;
  /** First moment, and the last at which the voice strikes in it. */
  readonly fromMoment: number;
  readonly toMoment: number;
  readonly strikes: readonly number[];
  readonly rule: FigureRule;
  /** How much more speaks for it than for the next best, a pair of notes; from 0 on. */
  readonly margin: number;
}
