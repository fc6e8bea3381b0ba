/** Lines and broken chords: how strikes of one voice belong together. */
import type { Measure } from '../../score/model';
import { type Strike, STEP_SEMITONES } from './strike';

/**
 * Tells each strike of a line the one before it there: the melody in its voice, and the notes of every voice without
 * a melody as far as they come one at a time.
 */
export function joinLines(strikes: readonly Strike[]): Strike[] {
  const last = new Map<string, Strike>();
  const sung = new Set(strikes.filter(({ role }) => role === 'melody').map(({ voice }) => voice));
  const isLine = ({ role, voice }: Strike) => role === 'melody' || !sung.has(voice);
  return strikes.map((strike) => {
    if (!isLine(strike)) return strike;
    const before = last.get(strike.voice);
    if (before?.onsetTicks === strike.onsetTicks) return strike;
    last.set(strike.voice, strike);
    return { ...strike, lineFrom: before?.index ?? null };
  });
}

/**
 * Broken chords that are worth holding: at least so many notes in a row, none longer than so many quarters. A
 * single line is played as a line; only a long run of leaps that comes back to a pitch is an arpeggio in it.
 */
const LEAST_NOTES = 3;
const LEAST_NOTES_IN_A_SINGLE_LINE = 6;
const LONGEST_QUARTERS = 0.5;

/**
 * Lets the notes of a broken chord ring on. Several short notes of a voice that follow each other by
 * leaps sound until the voice moves by step, strikes the same pitch again or the bar ends: the hand holds an
 * arpeggio as the chord it is. Source: common practice ("see the chord shape behind each bar").
 */
export function ringingBrokenChords(
  strikes: readonly Strike[],
  measures: readonly Measure[],
  ticksPerQuarter: number,
): Strike[] {
  const ends = new Map<number, number>();
  for (const chord of brokenChords(strikes, measures, ticksPerQuarter)) {
    chord.notes.forEach((note, k) => {
      const again = chord.notes.slice(k + 1).find((later) => later.midi === note.midi);
      ends.set(note.index, again?.onsetTicks ?? chord.endTicks);
    });
  }
  return strikes.map((strike) => ({
    ...strike,
    endTicks: Math.max(strike.endTicks, ends.get(strike.index) ?? 0),
  }));
}

interface BrokenChord {
  readonly notes: readonly Strike[];
  readonly endTicks: number;
}

function brokenChords(strikes: readonly Strike[], measures: readonly Measure[], ticksPerQuarter: number) {
  const longest = LONGEST_QUARTERS * ticksPerQuarter;
  const chords: BrokenChord[] = [];
  const voices = byVoice(strikes);
  const isChord =
    voices.length === 1 ? arpeggioInALine : (notes: readonly Strike[]) => notes.length >= LEAST_NOTES;
  for (const voice of voices) {
    let notes: Strike[] = [];
    const close = () => {
      const last = notes.at(-1);
      if (last && isChord(notes)) chords.push({ notes, endTicks: last.writtenEndTicks });
    };
    for (const strike of voice) {
      const last = notes.at(-1);
      const short = strike.writtenEndTicks - strike.onsetTicks <= longest;
      const goesOn =
        last !== undefined &&
        strike.onsetTicks === last.writtenEndTicks &&
        strike.onsetTicks < barEndAt(measures, last.onsetTicks) &&
        Math.abs(strike.midi - last.midi) > STEP_SEMITONES;
      if (short && goesOn) notes.push(strike);
      else {
        close();
        notes = short ? [strike] : [];
      }
    }
    close();
  }
  return chords;
}

const arpeggioInALine = (notes: readonly Strike[]) =>
  notes.length >= LEAST_NOTES_IN_A_SINGLE_LINE && new Set(notes.map((note) => note.midi)).size < notes.length;

function byVoice(strikes: readonly Strike[]): readonly (readonly Strike[])[] {
  const voices = new Map<string, Strike[]>();
  for (const strike of strikes) {
    const voice = voices.get(strike.voice);
    if (voice) voice.push(strike);
    else voices.set(strike.voice, [strike]);
  }
  return [...voices.values()];
}

export function barEndAt(measures: readonly Measure[], tick: number): number {
  const measure = measures.find((one) => tick < one.startTicks + one.durationTicks);
  return measure ? measure.startTicks + measure.durationTicks : tick;
}
