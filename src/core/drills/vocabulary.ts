/** The small vocabulary that drills are written in: places, letters that take turns, rows that repeat. */
import type { Pluck } from '../score/model';
import type { DrillEvent, DrillNote, Parameter } from './drill';

export const HEALTH = {
  stretch:
    'Warm up first, and start high on the neck, where frets are narrow. Stop at pain, numbness or tingling; if they stay, see a qualified health professional.',
  press:
    'Press no more than the note needs and let go between passes. Stop at pain, numbness or tingling; if they stay, see a qualified health professional.',
  speed:
    'Short bouts, with breaks at least every 20 to 30 minutes; slower when forearm or hand tighten. Stop at pain; if it stays, see a qualified health professional.',
} as const;

export const POSITIONS: Parameter = {
  id: 'position',
  label: 'Position',
  values: [1, 2, 3, 4, 5, 7, 9].map(
    (fret) => [String(fret), ['', 'I', 'II', 'III', 'IV', 'V', '', 'VII', '', 'IX'][fret]!] as const,
  ),
};

/** Letters that take turns. */
export const ALTERNATIONS: Parameter = {
  id: 'letters',
  label: 'Right hand',
  values: [
    ['im', 'i m'],
    ['mi', 'm i'],
    ['ma', 'm a'],
    ['ia', 'i a'],
    ['ami', 'a m i'],
    ['p', 'p alone'],
  ],
};

export const STRING_SETS: Parameter = {
  id: 'strings',
  label: 'Strings',
  values: [
    ['654321', 'all six'],
    ['321', 'the first three'],
    ['654', 'the last three'],
    ['1', 'the first'],
  ],
};

export const stringsOf = (text: string): readonly number[] => [...text].map(Number);

/** The letter of a stroke, counted from 0. */
export const turn = (letters: string, stroke: number): Pluck => letters[stroke % letters.length] as Pluck;

export const stopped = (string: number, fret: number, finger: number, letter: Pluck | null): DrillNote => ({
  string,
  fret,
  finger: fret === 0 ? 0 : finger,
  letter,
});

export const single = (note: DrillNote, eighths = 1, slurred = false): DrillEvent => ({
  notes: [note],
  eighths,
  ...(slurred && { slurred }),
});

/** Places of one finger per fret on a string, from the first finger up. Source: handbook 9, "one finger per fret". */
export interface FrettedPlace {
  readonly string: number;
  readonly fret: number;
  readonly finger: number;
}

/** There and back again, without the turning point twice. */
export const andBack = <T>(row: readonly T[]): readonly T[] => [...row, ...[...row].reverse().slice(1)];

/** Places one after the other, with letters that take turns. */
export const played = (places: readonly FrettedPlace[], letters: string): readonly DrillEvent[] =>
  places.map(({ string, fret, finger }, k) => single(stopped(string, fret, finger, turn(letters, k))));

/** Every order of some letters. */
export function orders<T>(of: readonly T[]): readonly (readonly T[])[] {
  if (of.length <= 1) return [of];
  return of.flatMap((first, k) =>
    orders([...of.slice(0, k), ...of.slice(k + 1)]).map((rest) => [first, ...rest]),
  );
}
