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
 * Lets the notes of a broken chord ring on. Several short notes of a voice that follow each other by leaps are one
 * grip: it is taken with the first of them, and its notes sound until the voice moves by step or the bar ends. Notes
 * that move by step among the others are a free voice above it and end as they are written. Source: handbook 13, "Grip".
 *
 * @param fits whether a hand can hold these pitches at once
 */
export function ringingBrokenChords(
  strikes: readonly Strike[],
  measures: readonly Measure[],
  ticksPerQuarter: number,
  fits: (midis: readonly number[]) => boolean,
): Strike[] {
  const changed = new Map<number, Partial<Strike>>();
  let grips = 0;
  const parts = brokenChords(strikes, measures, ticksPerQuarter).flatMap((chord) =>
    partsThatFit(chord, fits),
  );
  parts.forEach((part, k) => {
    for (const [index, change] of ringing(part, parts[k + 1] ?? null, measures, grips))
      changed.set(index, change);
    grips++;
  });
  return strikes.map((strike) => {
    const change = changed.get(strike.index);
    return change
      ? { ...strike, ...change, endTicks: Math.max(strike.endTicks, change.endTicks ?? 0) }
      : strike;
  });
}

/** Whether a note moves by step among the others, or above or below them: it is no part of what is held. */
const moves = (note: Strike, notes: readonly Strike[]) =>
  notes.some(({ midi }) => midi !== note.midi && Math.abs(midi - note.midi) <= STEP_SEMITONES) ||
  [1, -1].some((side) => isInTune(note, notes, side));

/** The turns of a figure on one side, if they are not always one pitch, are a tune of their own. */
function isInTune(note: Strike, notes: readonly Strike[], side: number): boolean {
  const isBeyond = (midi: number, other: Strike | undefined) =>
    other !== undefined && side * (midi - other.midi) > 0;
  const turns = notes.filter(({ midi }, k) => isBeyond(midi, notes[k - 1]) && isBeyond(midi, notes[k + 1]));
  const pitches = new Set(turns.map(({ midi }) => midi));
  return pitches.size > 1 && pitches.has(note.midi);
}

/** A broken chord goes on as one grip as long as a hand can hold all of it. */
function partsThatFit(
  { notes, endTicks }: BrokenChord,
  fits: (midis: readonly number[]) => boolean,
): readonly BrokenChord[] {
  const parts: Strike[][] = [[]];
  for (const note of notes) {
    const last = parts.at(-1)!;
    const held = [...last, note].filter((one, _k, all) => !moves(one, all));
    const midis = [...new Set(held.map(({ midi }) => midi))];
    if (last.length > 0 && !fits(midis)) parts.push([note]);
    else last.push(note);
  }
  return parts.map((part, k) => ({
    notes: part,
    endTicks: parts[k + 1]?.[0]?.onsetTicks ?? endTicks,
  }));
}

/** @param next the grip after it, in which what comes again may go on */
function ringing(
  { notes, endTicks }: BrokenChord,
  next: BrokenChord | null,
  measures: readonly Measure[],
  grip: number,
): ReadonlyMap<number, Partial<Strike>> {
  const [first] = next?.notes ?? [];
  const goesOn =
    first?.voice === notes[0]!.voice &&
    first.onsetTicks > endTicks &&
    first.onsetTicks < barEndAt(measures, endTicks);
  const start = notes[0]!.onsetTicks;
  const changed = new Map<number, Partial<Strike>>();
  notes.forEach((note, k) => {
    const later = notes.slice(k + 1);
    const again = later.find(({ midi }) => midi === note.midi);
    if (moves(note, notes)) return;
    const before = notes.slice(0, k).findLast(({ midi }) => midi === note.midi);
    changed.set(note.index, {
      endTicks:
        again?.onsetTicks ??
        (goesOn && next!.notes.some(({ midi }) => midi === note.midi) ? first.onsetTicks : endTicks),
      laidTicks: before ? note.onsetTicks : start,
      continues: before?.index ?? null,
      grip,
    });
  });
  return changed;
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

/**
 * A pitch that comes again with the next notes of its voice, at once or within a bar, is struck again where it lies.
 * Source: handbook 13, "Grip": what comes again keeps string and finger, and a finger once down stays.
 */
export function struckAgain(strikes: readonly Strike[], measures: readonly Measure[]): Strike[] {
  const all = [...strikes];
  let grips = Math.max(0, ...strikes.map(({ grip }) => (grip ?? -1) + 1));
  for (const voice of byVoice(strikes)) {
    let [before, here]: [Strike[], Strike[]] = [[], []];
    for (const strike of voice) {
      if (here[0] && here[0].onsetTicks !== strike.onsetTicks) [before, here] = [here, []];
      here.push(strike);
      const prev = before.find(({ midi }) => midi === strike.midi);
      if (!prev || strike.grip !== null || strike.touch || prev.touch) continue;
      const known = all[prev.index]!;
      const soon = barEndAt(measures, barEndAt(measures, prev.onsetTicks)) > strike.onsetTicks;
      if (known.endTicks > strike.onsetTicks || !soon) continue;
      const grip = known.laidTicks < known.onsetTicks || known.grip === null ? grips++ : known.grip;
      if (known.grip === null) all[prev.index] = { ...known, grip, endTicks: strike.onsetTicks };
      else all[prev.index] = { ...known, endTicks: strike.onsetTicks };
      all[strike.index] = { ...strike, grip, continues: prev.index };
    }
  }
  return all;
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
