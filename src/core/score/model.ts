/** The score as it is read from a file: plain records, integer ticks from the start. */
import type { Pitch } from '../music/pitch';
import type { TempoMark } from '../music/tempo';
import type { Assumption, Notice } from './reading';

/** c is the little finger, off by default; down and up are strokes of a plectrum. */
export const PLUCKS = ['p', 'i', 'm', 'a', 'c', 'down', 'up'] as const;
export type Pluck = (typeof PLUCKS)[number];

/** A stroke of the plectrum, not of a finger. */
export const isPick = (pluck: Pluck | null): pluck is 'down' | 'up' => pluck === 'down' || pluck === 'up';

/** Fingering that came with the file. */
export interface PrintedMarks {
  readonly finger: number | null;
  readonly string: number | null;
  readonly pluck: Pluck | null;
}

/** What stands at a note besides its pitch and length. Rolls and brushes hold for the whole chord. */
export const NOTE_TAGS = [
  'staccato',
  'accent',
  'tenuto',
  'fermata',
  'breath',
  'trill',
  'mordent',
  'turn',
  'tremolo',
  'rollUp',
  'rollDown',
  'brushUp',
  'brushDown',
  'letRing',
  'rasgueado',
  'tambora',
  'pizzicato',
  'percussive',
  'muffled',
  'bend',
  'vibrato',
] as const;
export type NoteTag = (typeof NOTE_TAGS)[number];

/** Ways of the right hand to play a chord or note. */
export const EFFECT_TAGS = [
  'rollUp',
  'rollDown',
  'brushUp',
  'brushDown',
  'rasgueado',
  'tambora',
  'pizzicato',
  'percussive',
] as const satisfies readonly NoteTag[];
export type EffectTag = (typeof EFFECT_TAGS)[number];
export const isEffect = (text: string): text is EffectTag =>
  (EFFECT_TAGS as readonly string[]).includes(text);

export type Harmonic = 'natural' | 'artificial';

/** Place of a grace note before its main note; 1 stands next to it. */
export interface Grace {
  readonly beforeMain: number;
  readonly slashed: boolean;
}

export interface ScoreNote {
  /** Oculon's own name of the note; the same in every version of the score that has the note. */
  readonly uid: string;
  /** The file's own note id, which programs renumber at will. */
  readonly sourceId: string | null;
  readonly measureIndex: number;
  /** The voice's name in the file. */
  readonly voice: string;
  /** A grace note has the onset of its main note. */
  readonly onsetTicks: number;
  /** Whole sounding length with all tied notes; 0 for a grace note. */
  readonly durationTicks: number;
  /** As the file spells it. */
  readonly pitch: Pitch;
  /** As it sounds without a capo. */
  readonly soundingMidi: number;
  /** Uids of the tied noteheads after the first. */
  readonly tiedUids: readonly string[];
  readonly printed: PrintedMarks;
  readonly grace: Grace | null;
  readonly harmonic: Harmonic | null;
  readonly tags: readonly NoteTag[];
  /** The teacher's word that this note has to last for its written value. */
  readonly mustRing: boolean;
  /** The teacher's word that it is not played. */
  readonly leftOut: boolean;
}

/** From one note to a later one of its voice: a slur or a slide. */
export interface NoteSpan {
  readonly fromUid: string;
  readonly toUid: string;
}

/** Where the music goes on after, or is gone on with from, a bar. */
export interface Jumps {
  readonly segno: boolean;
  readonly coda: boolean;
  readonly toCoda: boolean;
  readonly daCapo: boolean;
  readonly dalSegno: boolean;
  readonly fine: boolean;
}

export interface Measure {
  readonly uid: string;
  readonly index: number;
  /** As printed: "0" or "X1" happen. */
  readonly number: string;
  readonly startTicks: number;
  readonly durationTicks: number;
  /** What the metre asks for; the bar may be shorter (upbeat) or wrong. */
  readonly nominalTicks: number;
  readonly repeatStart: boolean;
  readonly repeatEnd: boolean;
  /** How often the repeated passage is played; 2 unless the file says more. */
  readonly repeatTimes: number;
  /** "1", "2" or "1, 2" when an ending starts here. */
  readonly ending: string | null;
  readonly endingStops: boolean;
  readonly jumps: Jumps;
  /** A double or final line at its end. */
  readonly sectionEnd: boolean;
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

/** Words and signs that belong to a place rather than a note. */
export interface Direction {
  readonly tick: number;
  readonly kind: 'words' | 'rehearsal' | 'dynamic' | 'chord';
  readonly text: string;
}

export interface Score {
  readonly title: string;
  /** Name of the part that was read. */
  readonly partName: string;
  readonly ticksPerQuarter: number;
  readonly tuningId: string;
  /** Fret of the capo, 0 for none; frets and positions count from it. */
  readonly capo: number;
  readonly measures: readonly Measure[];
  /** By onset, grace notes first, then by pitch from low to high. */
  readonly notes: readonly ScoreNote[];
  readonly slurs: readonly NoteSpan[];
  /** Slurs that a hand plays, note to note; the others are phrase marks. */
  readonly ligados: readonly NoteSpan[];
  readonly slides: readonly NoteSpan[];
  readonly keys: readonly KeyMark[];
  /** Semitones by which the piece stands above the file, keys and all. */
  readonly transposedBy: number;
  readonly metres: readonly MetreMark[];
  readonly tempos: readonly TempoMark[];
  readonly directions: readonly Direction[];
  readonly assumptions: readonly Assumption[];
  readonly notices: readonly Notice[];
}
