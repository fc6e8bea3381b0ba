/**
 * What a drill is: music whose fingering is given, because it is what the drill trains, with what to watch. Generators
 * are rows: parameters as lists of values, and one function from values to strokes.
 */
import type { Pluck } from '../score/model';

/** One stopped or open string that is struck, and how. */
export interface DrillNote {
  /** Null on all three where the drill leaves the place to the planner; then its pitch is given. */
  readonly string: number | null;
  readonly fret: number | null;
  readonly finger: number | null;
  readonly midi?: number;
  /** Null where nothing is plucked: the second note of a slur. */
  readonly letter: Pluck | null;
  /** Of a natural harmonic: semitones above the open string; its fret is touched, not stopped. */
  readonly soundsAbove?: number;
}

/** What is struck at once, for so many eighths; a rest where nothing is. */
export interface DrillEvent {
  readonly notes: readonly DrillNote[];
  readonly eighths: number;
  /** Slurred from the event before. */
  readonly slurred?: boolean;
}

export interface DrillMusic {
  readonly voices: readonly (readonly DrillEvent[])[];
  readonly fifths: number;
  readonly metre: { readonly beats: number; readonly beatType: number };
  /** Of the right hand, where the drill leaves the letters to it. */
  readonly rightSchool?: string;
  readonly quartersPerMinute: number;
}

/** A list of values with their words; the first is taken where nothing is chosen. */
export interface Parameter {
  readonly id: string;
  readonly label: string;
  readonly values: readonly (readonly [value: string, words: string])[];
}

/** What is chosen, by parameter. */
export type Chosen = Readonly<Record<string, string>>;

export interface DrillKind {
  readonly id: string;
  readonly title: string;
  /** One sentence: which movement. */
  readonly trains: string;
  /** Cues that belong to this kind, two at least. Source: handbook 9, "What to watch". */
  readonly watch: readonly string[];
  /** One for each pass, in order. */
  readonly passes: readonly string[];
  /** Where it loads the hand. Source: handbook 11. */
  readonly caution: string | null;
  /** Quarters per minute, from slow to where it is at home. */
  readonly ladder: readonly number[];
  readonly parameters: readonly Parameter[];
  /** What the planner decides; nothing where the drill prescribes it all. */
  readonly leaves?: 'places';
  readonly make: (chosen: Chosen) => Omit<DrillMusic, 'quartersPerMinute'>;
}

/** Every parameter with a value that it has: what is not chosen, or not known, is the first. */
export function chosenOf({ parameters }: DrillKind, wanted: Chosen): Chosen {
  return Object.fromEntries(
    parameters.map(({ id, values }) => {
      const known = values.find(([value]) => value === wanted[id]);
      return [id, (known ?? values[0]!)[0]];
    }),
  );
}
