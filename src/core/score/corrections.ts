/** The teacher's corrections of a badly made file, apart from the file: what each one sets. */
import type { Fraction } from '../music/fraction';
import type { Pitch } from '../music/pitch';

export interface NoteCorrection {
  /** In the file's own terms, before any octave is settled. */
  readonly pitch?: Pitch;
  /** Whether the note is tied to the next of its pitch. */
  readonly tie?: boolean;
  readonly voice?: string;
  /** In quarters; ends in its bar and before the next note of its voice. */
  readonly length?: Fraction;
  readonly mustRing?: boolean;
  readonly staccato?: boolean;
  /** Whether the left hand plays it, slurred from the note before it in its voice. */
  readonly slur?: boolean;
  /** Whether the finger slides from here to the next note of the voice. */
  readonly slideOn?: boolean;
  /** How the right hand plays its chord. */
  readonly effect?: string;
  /** Not played at all: the teacher's way out where no hand can play everything. */
  readonly leftOut?: boolean;
}

export interface PieceCorrection {
  readonly tuning?: string;
  readonly capo?: number;
  /** Quarters per minute at the beginning; later tempos keep their ratio to it. */
  readonly tempo?: number;
  /** Semitones from the file's pitches to the sounding ones. */
  readonly octave?: number;
  /** Semitones by which the piece is written at another pitch, in another key. */
  readonly transpose?: number;
  readonly slurs?: 'ligado' | 'phrase';
}

export interface BarCorrection {
  readonly chord?: string;
  readonly form?: string;
}

export interface Corrections {
  readonly notes: ReadonlyMap<string, NoteCorrection>;
  readonly bars: ReadonlyMap<string, BarCorrection>;
  readonly piece: PieceCorrection;
}

export const NO_CORRECTIONS: Corrections = { notes: new Map(), bars: new Map(), piece: {} };
