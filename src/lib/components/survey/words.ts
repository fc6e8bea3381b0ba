/** The survey in words and tints. */
import { pitchClassName } from '$core/survey/chords';
import { fifthsOf, type KeyArea } from '$core/survey/keyAreas';
import type { BarKind } from '$core/survey/sameMusic';
import type { Technique } from '$core/survey/techniques';
import type { Measure } from '$core/score/model';

export const TECHNIQUE_NAMES: Readonly<Record<Technique, string>> = {
  ligados: 'slurs',
  barres: 'barres',
  shifts: 'shifts',
  tightShifts: 'shifts in little time',
  graceNotes: 'grace notes',
  ornaments: 'ornaments',
  harmonics: 'harmonics',
  slides: 'slides',
  rolls: 'rolled chords',
  strums: 'strums',
  chords: 'chords of three notes or more',
  tremolo: 'repeated-note figures',
};

/** "E minor"; spelled with flats in keys of flats. */
export const keyAreaName = ({ tonic, mode }: KeyArea): string =>
  `${pretty(pitchClassName(tonic, fifthsOf(tonic, mode === 'major') < 0))} ${mode}`;

export const pretty = (name: string): string => name.replace(/#/g, '♯').replace(/b(?!e)/g, '♭');

/** "bars 1 to 8". */
export function barsName(measures: readonly Measure[], from: number, to: number): string {
  const [first, last] = [measures[from]!.number, measures[to]!.number];
  return from === to ? `bar ${first}` : `bars ${first} to ${last}`;
}

const MOST_BARS = 6;

/** "bars 2, 5, 9"; of many the first few. */
export const barsListed = (bars: readonly string[]): string =>
  `${bars.length === 1 ? 'bar' : 'bars'} ${bars.slice(0, MOST_BARS).join(', ')}${bars.length > MOST_BARS ? ' …' : ''}`;

export function kindWords(kind: BarKind, measures: readonly Measure[]): string {
  const like = measures[kind.like]!.number;
  if (kind.relation === 'new') return 'new music';
  if (kind.relation === 'exact') return `same as bar ${like}`;
  if (kind.relation === 'varied') return `varies bar ${like}`;
  const way = kind.semitones > 0 ? 'up' : 'down';
  const steps = Math.abs(kind.semitones);
  return `bar ${like}, ${steps} ${steps === 1 ? 'semitone' : 'semitones'} ${way}`;
}

/** One of six tints of the theme, by letter; the letter itself says the same. */
export const tintOf = (letter: string): string =>
  `var(--tint-${((letter.charCodeAt(0) - 65 + 260) % 6) + 1})`;
