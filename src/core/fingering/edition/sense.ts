/**
 * Whether a mark can be true of its note: a finger on a string that sounds open, a string that does not reach the pitch.
 * What contradicts older ink of the same note takes it back; what no hand could do is refused. Source: handbook 4, "What cannot be".
 */
import { openMidi, STRINGS, type Tuning } from '../../instrument/tuning';
import type { InkMarks } from '../problem/ink';

export interface MarkedNote {
  /** As it sounds without a capo. */
  readonly midi: number;
  /** A natural harmonic is touched, not stopped: any finger, and the place is no fret of its pitch. */
  readonly isHarmonic: boolean;
}

export interface Neck {
  readonly tuning: Tuning;
  readonly capo: number;
  readonly frets: number;
}

export type Sense =
  | { readonly kind: 'fits' }
  /** The other mark of the note goes. */
  | { readonly kind: 'releases'; readonly attribute: 'finger' | 'string' }
  | { readonly kind: 'refused'; readonly why: Refusal };

export type Refusal =
  | { readonly code: 'onlyOpen' }
  | { readonly code: 'neverOpen' }
  | { readonly code: 'belowString'; readonly string: number }
  | { readonly code: 'aboveString'; readonly string: number; readonly fret: number };

const FITS: Sense = { kind: 'fits' };

const fretOn = ({ midi }: MarkedNote, { tuning }: Neck, string: number): number =>
  midi - openMidi(tuning, string);

const reaches = (note: MarkedNote, neck: Neck, string: number): boolean => {
  const fret = fretOn(note, neck, string);
  return fret >= 0 && fret <= neck.frets - neck.capo;
};

const suits = (fret: number, finger: number): boolean => (finger === 0) === (fret === 0);

/** A finger that is set on a note with that ink. */
export function senseOfFinger(note: MarkedNote, neck: Neck, ink: InkMarks, finger: number): Sense {
  if (note.isHarmonic) return FITS;
  const possible = STRINGS.filter((string) => reaches(note, neck, string));
  if (!possible.some((string) => suits(fretOn(note, neck, string), finger)))
    return { kind: 'refused', why: { code: finger === 0 ? 'neverOpen' : 'onlyOpen' } };
  if (
    ink.string !== null &&
    reaches(note, neck, ink.string) &&
    !suits(fretOn(note, neck, ink.string), finger)
  )
    return { kind: 'releases', attribute: 'string' };
  return FITS;
}

/** A string that is set on a note with that ink. */
export function senseOfString(note: MarkedNote, neck: Neck, ink: InkMarks, string: number): Sense {
  if (note.isHarmonic) return FITS;
  const fret = fretOn(note, neck, string);
  if (fret < 0) return { kind: 'refused', why: { code: 'belowString', string } };
  if (fret > neck.frets - neck.capo) return { kind: 'refused', why: { code: 'aboveString', string, fret } };
  if (ink.finger !== null && !suits(fret, ink.finger)) return { kind: 'releases', attribute: 'finger' };
  return FITS;
}
