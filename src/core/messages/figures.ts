/** What is said about textures and figures. */
import type { FigureRule } from '../figures/figure';
import type { Texture } from '../figures/texture';

export const TEXTURE_NAMES: Readonly<Record<Texture, string>> = {
  line: 'line',
  brokenChord: 'broken chord',
  tremolo: 'tremolo',
  chords: 'chords',
  afterbeats: 'bass and afterbeats',
  pedal: 'pedal',
  parallels: 'parallels',
  slowMelody: 'slow melody',
  strum: 'strum',
  mixed: 'mixed',
};

const RULES: Readonly<Record<FigureRule, string>> = {
  steps: 'one note at a time, mostly by step',
  leaps: 'one note at a time, mostly by leap, in one harmony',
  again: 'the same notes again and again',
  tremolo: 'one pitch struck quickly between notes of the thumb',
  together: 'notes struck together',
  afterBass: 'notes that follow their bass',
  pedal: 'one pitch that returns between others',
  sameForm: 'chords of one form that move together',
  slow: 'one note at a time, slowly',
  marked: 'marked to be strummed',
  withUpper: 'the bass under it',
  unclear: 'nothing speaks clearly for one texture',
  teacher: 'named by you',
};

/** Below this margin another texture is nearly as likely. */
const CLOSE_MARGIN = 0.3;

/** "one note at a time, mostly by step; another reading is close". */
export const figureReasonText = ({
  rule,
  margin,
}: {
  readonly rule: FigureRule;
  readonly margin: number;
}): string =>
  `${RULES[rule]}${rule !== 'teacher' && rule !== 'withUpper' && margin < CLOSE_MARGIN ? '; another reading is close' : ''}`;

export const formulaText = (formula: readonly string[]): string => formula.join(' ');
