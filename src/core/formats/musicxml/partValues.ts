/** Single values of a part: pitches, divisions, open strings. */
import { gcd, lcm } from '../../music/fraction';
import { isStep, type Pitch } from '../../music/pitch';
import { HIGHEST_OCTAVE, LOWEST_OCTAVE } from '../limits';
import { Refusal } from './refusal';
import { childNamed, childrenNamed, childText, type XmlElement } from './xmlTree';

const MOST_TICKS_PER_QUARTER = 1_000_000;
/** Grace notes need parts of a short note. */
const LEAST_TICKS_WITH_GRACE = 16;

const isOctave = (octave: number) =>
  Number.isInteger(octave) && octave >= LOWEST_OCTAVE && octave <= HIGHEST_OCTAVE;
const isAlter = (alter: number) => Number.isInteger(alter) && Math.abs(alter) <= 3;

/** The pitch of a note; refuses what is no pitch with its place. */
export function readPitch(note: XmlElement, measure: string): Pitch {
  const pitch = childNamed(note, 'pitch');
  const step = (pitch && childText(pitch, 'step')) ?? '';
  const octave = Number((pitch && childText(pitch, 'octave')) ?? NaN);
  const alter = Number((pitch && childText(pitch, 'alter')) ?? 0);
  if (!isStep(step) || !isOctave(octave) || !isAlter(alter)) {
    const value = pitch ? `${step || '?'} ${alter} ${octave}` : '';
    const voice = childText(note, 'voice') ?? '1';
    throw new Refusal({ code: 'pitch', measure, voice, line: note.line, value });
  }
  return { step, alter, octave };
}

const SEMITONES: Readonly<Record<string, number>> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };

/** MIDI number of a `<staff-tuning>`; NaN when it cannot be read. */
export function midiOfTuning(tuning: XmlElement): number {
  const step = SEMITONES[childText(tuning, 'tuning-step') ?? ''] ?? NaN;
  const alter = Number(childText(tuning, 'tuning-alter') ?? 0);
  return 12 * (Number(childText(tuning, 'tuning-octave') ?? NaN) + 1) + step + alter;
}

/** False where every staff of the part is tablature. */
export function hasNotationStaff(part: XmlElement): boolean {
  const clefs = childrenNamed(part, 'measure').flatMap((measure) =>
    childrenNamed(measure, 'attributes').flatMap((one) => childrenNamed(one, 'clef')),
  );
  return clefs.length === 0 || clefs.some((clef) => childText(clef, 'sign') !== 'TAB');
}

/** Parts of a quarter as a whole number; refuses anything else. */
export function readDivisions(text: string, measure: string, line: number): number {
  const value = Number(text);
  if (!Number.isInteger(value) || value < 1 || value > MOST_TICKS_PER_QUARTER) {
    throw new Refusal({ code: 'divisions', measure, line, value: text });
  }
  return value;
}

/** Ticks per quarter in which every `<divisions>` of the part, and its grace notes, are whole. */
export function commonDivisions(part: XmlElement): number {
  let common = 1;
  let grace = false;
  for (const measure of childrenNamed(part, 'measure')) {
    grace ||= measure.children.some((child) => child.name === 'note' && childNamed(child, 'grace') !== null);
    for (const attributes of childrenNamed(measure, 'attributes')) {
      const text = childText(attributes, 'divisions');
      if (text === null) continue;
      const place = { measure: measure.attributes['number'] ?? '?', line: attributes.line };
      common = lcm(common, readDivisions(text, place.measure, place.line));
      if (common > MOST_TICKS_PER_QUARTER) throw new Refusal({ code: 'divisions', ...place, value: text });
    }
  }
  return grace ? (common * LEAST_TICKS_WITH_GRACE) / gcd(common, LEAST_TICKS_WITH_GRACE) : common;
}
