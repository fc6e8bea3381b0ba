/** What a bar holds, in a form that can be compared between files of different resolution. */
import { fraction, fractionText } from '../../music/fraction';
import type { Score, ScoreNote } from '../model';

export interface BarContent {
  readonly number: string;
  readonly notes: readonly ScoreNote[];
  /** All of it, with voices and lengths: equal where two bars are the same music. */
  readonly whole: string;
  /** By place in the bar and pitch: the weights of the notes there. */
  readonly places: ReadonlyMap<string, readonly number[]>;
  /** By pitch alone. */
  readonly pitches: ReadonlyMap<string, readonly number[]>;
}

export type WeightOf = (uid: string) => number;

/** Where a note stands: quarters from the bar's start, grace notes by their order, and its pitch. */
export function placeKey(score: Score, note: ScoreNote, shift: number): string {
  const start = score.measures[note.measureIndex]!.startTicks;
  const offset = fractionText(fraction(note.onsetTicks - start, score.ticksPerQuarter));
  return `${offset}${note.grace ? `g${note.grace.beforeMain}` : ''}:${note.soundingMidi + shift}`;
}

export const lengthText = (score: Score, { durationTicks }: ScoreNote) =>
  fractionText(fraction(durationTicks, score.ticksPerQuarter));

export const pitchKey = (note: ScoreNote, shift: number): string => String(note.soundingMidi + shift);

/** @param shift semitones added to every pitch, for files that differ by octaves */
export function barContents(score: Score, shift: number, weightOf: WeightOf): readonly BarContent[] {
  const notes: ScoreNote[][] = score.measures.map(() => []);
  for (const note of score.notes) notes[note.measureIndex]!.push(note);
  return score.measures.map((measure, k) => ({
    number: measure.number,
    notes: notes[k]!,
    whole: notes[k]!.map((note) => `${placeKey(score, note, shift)} ${lengthText(score, note)} ${note.voice}`)
      .sort()
      .join(),
    places: collected(notes[k]!, (note) => placeKey(score, note, shift), weightOf),
    pitches: collected(notes[k]!, (note) => pitchKey(note, shift), weightOf),
  }));
}

function collected(
  notes: readonly ScoreNote[],
  keyOf: (note: ScoreNote) => string,
  weightOf: WeightOf,
): ReadonlyMap<string, readonly number[]> {
  const map = new Map<string, number[]>();
  for (const note of notes) {
    const key = keyOf(note);
    const list = map.get(key);
    if (list) list.push(weightOf(note.uid));
    else map.set(key, [weightOf(note.uid)]);
  }
  return map;
}
