/** The score as it is read from a file: plain records, integer ticks from the start. */
import type { Pitch } from '../music/pitch';
import type { TempoMark } from '../music/tempo';

export type Pluck = 'p' | 'i' | 'm' | 'a';
export const PLUCKS = ['p', 'i', 'm', 'a'] as const satisfies readonly Pluck[];

/** Fingering that came with the file. */
export interface PrintedMarks {
  readonly finger: number | null;
  readonly string: number | null;
  readonly pluck: Pluck | null;
}

export interface ScoreNote {
  /** Oculon's own name of the note; stable for these source bytes. */
  readonly uid: string;
  /** The file's own note id, which programs renumber at will. */
  readonly sourceId: string | null;
  readonly measureIndex: number;
  /** The voice's name in the file. */
  readonly voice: string;
  readonly onsetTicks: number;
  /** Whole sounding length with all tied notes. */
  readonly durationTicks: number;
  /** As the file spells it. */
  readonly pitch: Pitch;
  readonly soundingMidi: number;
  /** Uids of the tied noteheads after the first. */
  readonly tiedUids: readonly string[];
  readonly printed: PrintedMarks;
}

export interface Slur {
  readonly fromUid: string;
  readonly toUid: string;
}

export interface Measure {
  readonly index: number;
  /** As printed: "0" or "X1" happen. */
  readonly number: string;
  readonly startTicks: number;
  readonly durationTicks: number;
  readonly repeatStart: boolean;
  readonly repeatEnd: boolean;
  /** "1", "2" or "1, 2" when an ending starts here. */
  readonly ending: string | null;
}

export interface KeyMark {
  readonly tick: number;
  readonly fifths: number;
  readonly mode: 'major' | 'minor' | null;
}

export interface MetreMark {
  readonly tick: number;
  readonly beats: number;
  readonly beatType: number;
}

/** How the octave of the file was understood (handbook: clef with an 8, transposition, both or neither). */
export type OctaveReading = 'clef' | 'transposition' | 'both-applied' | 'both-clef' | 'written' | 'sounding';

/** What Oculon decided where the file left it open. */
export type Assumption =
  | { readonly code: 'octave'; readonly reading: OctaveReading }
  | { readonly code: 'tempo'; readonly quartersPerMinute: number }
  | { readonly code: 'tuning'; readonly tuningId: string }
  | { readonly code: 'graceNotes'; readonly count: number }
  | { readonly code: 'cueNotes'; readonly count: number }
  | { readonly code: 'tablature'; readonly count: number };

export interface Score {
  readonly title: string;
  readonly ticksPerQuarter: number;
  readonly tuningId: string;
  readonly measures: readonly Measure[];
  /** By onset, then by pitch from low to high. */
  readonly notes: readonly ScoreNote[];
  readonly slurs: readonly Slur[];
  readonly keys: readonly KeyMark[];
  readonly metres: readonly MetreMark[];
  readonly tempos: readonly TempoMark[];
  readonly assumptions: readonly Assumption[];
}
