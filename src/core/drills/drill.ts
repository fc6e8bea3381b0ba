/**
 * What a drill is: music whose fingering is given, because it is what the drill trains, with what to watch. Generators
 * are rows: parameters as lists of values, and one function from values to strokes.
 */
import type { Attribute } from '../fingering/edition/attributes';
import type { RightSchoolId } from '../fingering/right/rules/schools';
import type { Tuning } from '../instrument/tuning';
import { DEFAULT_PLAYER, maybePlayer, type Player, PLAYERS } from '../instrument/hands';
import { handName } from '../messages/handNames';
import type { EffectTag, Harmonic, Pluck } from '../score/model';

/** One stopped or open string that is struck, and how. */
export interface DrillNote {
  /** Null on all three where the drill leaves the place to the planner; then its pitch is given. */
  readonly string: number | null;
  readonly fret: number | null;
  readonly finger: number | null;
  readonly midi?: number;
  /** Null where nothing is plucked: the second note of a slur; or where the letter is left to the planner. */
  readonly letter: Pluck | null;
  /** Of a natural harmonic: semitones above the open string; its fret is touched, not stopped. */
  readonly soundsAbove?: number;
  /** An artificial one is written where it is stopped, and sounds an octave higher. */
  readonly harmonic?: Harmonic;
}

/** A part of a drill that has a bar of its own to begin in. */
export interface Part {
  readonly words: string;
  readonly strokeSchool?: RightSchoolId;
}

/** What is struck at once, for so many eighths, down to a quarter of one; a rest where nothing is. */
export interface DrillEvent {
  readonly notes: readonly DrillNote[];
  readonly eighths: number;
  /** Slurred from the event before. */
  readonly slurred?: boolean;
  /** A silent step or what a finger does: "release", "a bar of rest". */
  readonly says?: string;
  readonly accented?: boolean;
  /** Stopped at once, so that it does not ring. */
  readonly choked?: boolean;
  /** How the hand strikes all of it, where it is no matter of single fingers. */
  readonly effect?: EffectTag;
  readonly begins?: Part;
}

export interface DrillMusic {
  readonly voices: readonly (readonly DrillEvent[])[];
  readonly fifths: number;
  readonly metre: { readonly beats: number; readonly beatType: number };
  /** Of the whole piece: the school of the right hand where the letters are left to it, how fingers reopen. */
  readonly settings?: Readonly<Partial<Record<Attribute, string | number>>>;
  /** The usual one unless said. */
  readonly tuning?: Tuning;
  /** Where it has a tempo of its own, as a passage of a piece has. */
  readonly quartersPerMinute?: number;
}

/** A list of values with their words; the first is taken where nothing is chosen. */
export interface Parameter {
  readonly id: string;
  readonly label: string;
  readonly values: readonly (readonly [value: string, words: string])[];
  /** What may be typed instead of a value of the list. */
  readonly typed?: { readonly hint: string; readonly accepts: (text: string) => boolean };
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
  /** In which order its parts come. */
  readonly steps: string;
  /** One focus for each pass, in order, and how often the drill is played with it. */
  readonly passes: readonly (readonly [focus: string, times: number])[];
  /** Where it loads the hand. Source: handbook 11. */
  readonly caution: string | null;
  /** Quarters per minute, from slow to where it is at home. */
  readonly ladder: readonly number[];
  readonly parameters: readonly Parameter[];
  /** What the planner decides; nothing where the drill prescribes it all. */
  readonly leaves?: 'places';
  /** What can be measured on the instrument at hand, a sentence each. */
  readonly facts?: (chosen: Chosen, player: Player) => readonly string[];
  readonly make: (chosen: Chosen, player: Player) => DrillMusic;
}

/** Whose hand: every drill has it. */
export const HAND: Parameter = {
  id: 'hand',
  label: 'For',
  values: PLAYERS.map(({ hand }) => [hand.id, handName(hand.id)] as const),
};

export const parametersOf = ({ parameters }: DrillKind): readonly Parameter[] => [...parameters, HAND];

export const playerOf = (chosen: Chosen): Player => maybePlayer(chosen['hand'] ?? '') ?? DEFAULT_PLAYER;

export const isChoice = ({ values, typed }: Parameter, value: string): boolean =>
  values.some(([one]) => one === value) || (typed?.accepts(value) ?? false);

/** Every parameter with a value that it has: what is not chosen, or not known, is the first. */
export const chosenOf = (kind: DrillKind, wanted: Chosen): Chosen =>
  Object.fromEntries(
    parametersOf(kind).map((parameter) => {
      const value = wanted[parameter.id];
      return [
        parameter.id,
        value !== undefined && isChoice(parameter, value) ? value : parameter.values[0]![0],
      ];
    }),
  );
