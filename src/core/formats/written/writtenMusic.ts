/** Music as another format writes it, on the way to MusicXML: parts, bars, voices in sequence. */

export interface WrittenPitch {
  readonly step: string;
  readonly alter: number;
  readonly octave: number;
}

export interface WrittenEvent {
  /** Empty for a rest. */
  readonly pitches: readonly WrittenPitch[];
  /** A rest that is only room, and not drawn. */
  readonly space: boolean;
  /** In quarters as a fraction, with everything (dots, tuplet) counted in. */
  readonly quarters: { readonly num: number; readonly den: number };
  /** Written value without dots and tuplet: "eighth"; null for a whole bar's rest. */
  readonly type: string | null;
  readonly dots: number;
  readonly tuplet: { readonly actual: number; readonly normal: number } | null;
  readonly grace: 'plain' | 'slashed' | null;
  /** For each pitch, whether it is tied from before and to the next. */
  readonly ties: readonly { readonly start: boolean; readonly stop: boolean }[];
  readonly slurStarts: readonly number[];
  readonly slurStops: readonly number[];
  /** Inner markup of `<notations>` that stands as it is: articulations, fingering. */
  readonly notations: readonly string[];
  /** The same of what every note of a chord has: a waved line goes over those that have it. */
  readonly ofEach?: readonly string[];
  readonly words: readonly string[];
  readonly chordName: string | null;
  readonly lyric: string | null;
}

export interface WrittenBar {
  readonly number: string;
  readonly fifths: number | null;
  readonly mode: 'major' | 'minor' | null;
  readonly metre: { readonly beats: number; readonly beatType: number } | null;
  readonly quartersPerMinute: number | null;
  readonly voices: readonly (readonly WrittenEvent[])[];
  readonly repeatStart: boolean;
  readonly repeatEnd: boolean;
  readonly endingStart: string | null;
  readonly endingStop: string | null;
  readonly sectionEnd: boolean;
  readonly implicit: boolean;
}

export interface WrittenPart {
  readonly name: string;
  /** Of the clef: −1 where it carries an 8 below. */
  readonly clefOctave: number;
  readonly clef: { readonly sign: string; readonly line: number };
  readonly bars: readonly WrittenBar[];
}

export interface WrittenMusic {
  readonly title: string;
  readonly parts: readonly WrittenPart[];
}
