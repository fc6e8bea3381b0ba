/** Broken chords: which notes of a voice are one grip, when it is taken, and until when it lies. */
import type { Measure, Score } from '../../score/model';
import { ringingSeconds } from '../../figures/ringingSeconds';
import { type Tuning, tuningOrThrow } from '../../instrument/tuning';
import { barEndAt, byVoice } from './lines';
import { type Strike, STEP_SEMITONES } from './strike';

/**
 * Broken chords that are worth holding: at least so many notes in a row, none longer than so many quarters. A
 * single line is played as a line; only a long run of leaps that comes back to a pitch is an arpeggio in it.
 */
const LEAST_NOTES = 3;
const LEAST_NOTES_IN_A_SINGLE_LINE = 6;
const LONGEST_QUARTERS = 0.5;
const LONGEST_INNER_QUARTERS = 1;

/** What a hand can hold on its instrument. */
export interface Holding {
  /** Whether it can hold these pitches at once. */
  readonly fits: (midis: readonly number[]) => boolean;
  /** The same in the lowest positions. */
  readonly fitsLow: (midis: readonly number[]) => boolean;
  /** Whether an open string sounds so. */
  readonly isOpen: (midi: number) => boolean;
}

/**
 * Lets the notes of a broken chord ring on. Several short notes of a voice that follow each other by leaps are one
 * grip: it is taken with the first of them, and its notes sound until the voice moves by step or the bar ends. Notes
 * that move by step among the others are a free voice above it and end as they are written. Source: handbook 13, "Grip".
 */
export function ringingBrokenChords(
  strikes: readonly Strike[],
  { measures, ticksPerQuarter, tuningId }: Pick<Score, 'measures' | 'ticksPerQuarter' | 'tuningId'>,
  holding: Holding,
): Strike[] {
  const tuning = tuningOrThrow(tuningId);
  const { isOpen } = holding;
  const changed = new Map<number, Partial<Strike>>();
  let grips = Math.max(0, ...strikes.map(({ grip }) => (grip ?? -1) + 1));
  const ungripped = strikes.filter(({ inMove }) => inMove === null);
  const parts = brokenChords(ungripped, { measures, ticksPerQuarter }, tuning)
    .flatMap((chord) => partsThatFit(chord, holding))
    .map((chord, k, all) => withItsBass(chord, all[k - 1] ?? null, ungripped, measures, isOpen));
  parts.forEach((part, k) => {
    for (const [index, change] of ringing(part, parts[k + 1] ?? null, { measures, grip: grips, holding }))
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

/** What is no part of what is held: a note that moves, or shares its string with another. */
const isFree = (note: Strike, { notes, seconds }: Pick<BrokenChord, 'notes' | 'seconds'>, holding: Holding) =>
  moves(note, notes, seconds) || sharesString(note, notes, holding);

/**
 * In the first position an open string and what is stopped on it take turns: up to so high, and so far apart. A figure
 * that goes back to the first of them has a string for each, where a hand in a low position can hold it all.
 */
const FIRST_POSITION_TOP = 68;
const ON_ONE_STRING = 4;
/** What moves on a bass string and comes back to it open takes turns, too: nobody goes to the string below for that. */
const HIGHEST_BASS_STRING = 50;

function sharesString({ midi }: Strike, notes: readonly Strike[], { isOpen, fitsLow }: Holding): boolean {
  if (notes.some((one) => one.midi > FIRST_POSITION_TOP)) return false;
  const takesTurns = (open: number, stopped: number) =>
    isOpen(open) &&
    !isOpen(stopped) &&
    stopped > open &&
    stopped - open <= ON_ONE_STRING &&
    (open <= HIGHEST_BASS_STRING || isOverBefore(open, stopped, notes) || !fitsLow(pitchesOf(notes)));
  return notes.some((one) => takesTurns(one.midi, midi) || takesTurns(midi, one.midi));
}

const pitchesOf = (notes: readonly Strike[]): readonly number[] => [
  ...new Set(notes.map(({ midi }) => midi)),
];

/** Whether one pitch has had its last turn before the other has its first. */
function isOverBefore(a: number, b: number, notes: readonly Strike[]): boolean {
  const first = (midi: number) => notes.findIndex((one) => one.midi === midi);
  const last = (midi: number) => notes.findLastIndex((one) => one.midi === midi);
  return last(a) < first(b) || last(b) < first(a);
}

/** Whether a note moves by step among the others, or above or below them: it is no part of what is held. */
const moves = (note: Strike, notes: readonly Strike[], seconds: ReadonlySet<string>) =>
  notes.some(
    (other) => other.midi !== note.midi && isStep(note, other) && !seconds.has(secondOf(note, other)),
  ) || [1, -1].some((side) => isInTune(note, notes, side));

/**
 * The turns of a figure on one side, if they are not always one pitch, are a tune of their own. What the figure also passes
 * through is of its chord, and so are turns that all come back after others.
 */
function isInTune(note: Strike, notes: readonly Strike[], side: number): boolean {
  const isBeyond = (midi: number, other: Strike | undefined) =>
    other !== undefined && side * (midi - other.midi) > 0;
  const isTurn = ({ midi }: Strike, k: number) =>
    isBeyond(midi, notes[k - 1]) && isBeyond(midi, notes[k + 1]);
  const between = notes.slice(1, -1);
  const turns = new Set(between.filter((one, k) => isTurn(one, k + 1)).map(({ midi }) => midi));
  const passed = new Set(between.filter((one, k) => !isTurn(one, k + 1)).map(({ midi }) => midi));
  const tune = notes.map(({ midi }) => midi).filter((midi) => turns.has(midi) && !passed.has(midi));
  return tune.includes(note.midi) && !tune.every((midi) => comesBack(midi, tune));
}

/** Whether something else comes between two of it, or there is nothing else. */
function comesBack(midi: number, midis: readonly number[]): boolean {
  const between = midis.slice(midis.indexOf(midi), midis.lastIndexOf(midi) + 1);
  return between.length === midis.length || between.some((other) => other !== midi);
}

/**
 * A broken chord that begins after a bass of another voice is taken with it, not after it; on an open string the hand
 * still has time to come.
 */
function withItsBass(
  chord: BrokenChord,
  before: BrokenChord | null,
  strikes: readonly Strike[],
  measures: readonly Measure[],
  isOpen: (midi: number) => boolean,
): BrokenChord {
  const first = chord.notes[0]!;
  const earliest = first.onsetTicks - (first.writtenEndTicks - first.onsetTicks);
  const isFree = (tick: number) => before?.notes[0]!.voice !== first.voice || before.endTicks <= tick;
  const bass = strikes.find(
    ({ onsetTicks, writtenEndTicks, voice, midi }) =>
      voice !== first.voice &&
      onsetTicks >= earliest &&
      onsetTicks < first.onsetTicks &&
      writtenEndTicks > first.onsetTicks &&
      !isOpen(midi) &&
      chord.notes.every((note) => note.midi > midi) &&
      first.onsetTicks < barEndAt(measures, onsetTicks) &&
      isFree(onsetTicks),
  );
  return bass ? { ...chord, startTicks: bass.onsetTicks } : chord;
}

/** A broken chord goes on as one grip as long as a hand can hold all of it. */
function partsThatFit(
  { notes: all, seconds, startTicks, endTicks }: BrokenChord,
  holding: Holding,
): readonly BrokenChord[] {
  const parts: Strike[][] = [[]];
  for (const note of all) {
    const last = parts.at(-1)!;
    const notes = [...last, note];
    const held = notes.filter((one) => !isFree(one, { notes, seconds }, holding));
    if (last.length > 0 && !holding.fits(pitchesOf(held))) parts.push([note]);
    else last.push(note);
  }
  return parts.map((part, k) => ({
    notes: part,
    seconds,
    startTicks: k === 0 ? startTicks : part[0]!.onsetTicks,
    endTicks: parts[k + 1]?.[0]?.onsetTicks ?? endTicks,
  }));
}

/** @param next the grip after it, in which what comes again may go on */
function ringing(
  { notes, seconds, startTicks, endTicks }: BrokenChord,
  next: BrokenChord | null,
  {
    measures,
    grip,
    holding,
  }: { readonly measures: readonly Measure[]; readonly grip: number; readonly holding: Holding },
): ReadonlyMap<number, Partial<Strike>> {
  const goesOn =
    next?.notes[0]!.voice === notes[0]!.voice &&
    next.startTicks > endTicks &&
    next.startTicks < barEndAt(measures, endTicks);
  const changed = new Map<number, Partial<Strike>>();
  notes.forEach((note, k) => {
    const later = notes.slice(k + 1);
    const again = later.find(({ midi }) => midi === note.midi);
    if (isFree(note, { notes, seconds }, holding)) return;
    const before = notes.slice(0, k).findLast(({ midi }) => midi === note.midi);
    changed.set(note.index, {
      endTicks:
        again?.onsetTicks ??
        (goesOn && next!.notes.some(({ midi }) => midi === note.midi) ? next!.startTicks : endTicks),
      laidTicks: before ? note.onsetTicks : startTicks,
      continues: before?.index ?? null,
      grip,
    });
  });
  return changed;
}

interface BrokenChord {
  readonly notes: readonly Strike[];
  /** Seconds that ring in it, see `secondOf`. */
  readonly seconds: ReadonlySet<string>;
  /** Where it is taken. */
  readonly startTicks: number;
  readonly endTicks: number;
}

const isStep = (a: Strike, b: Strike) => Math.abs(a.midi - b.midi) <= STEP_SEMITONES;

/** The name of a second between two notes. */
const secondOf = (a: Strike, b: Strike) => `${Math.min(a.midi, b.midi)} ${Math.max(a.midi, b.midi)}`;

function brokenChords(
  strikes: readonly Strike[],
  { measures, ticksPerQuarter }: Pick<Score, 'measures' | 'ticksPerQuarter'>,
  tuning: Tuning,
): readonly BrokenChord[] {
  const chords: BrokenChord[] = [];
  const voices = byVoice(strikes);
  const isChord =
    voices.length === 1 ? arpeggioInALine : (notes: readonly Strike[]) => notes.length >= LEAST_NOTES;
  for (const voice of voices) {
    const rings = ringingSeconds(
      voice.map(({ midi }) => midi),
      tuning,
    );
    let notes: Strike[] = [];
    let seconds = new Set<string>();
    const close = () => {
      const last = notes.at(-1);
      if (last && isChord(notes))
        chords.push({ notes, seconds, startTicks: notes[0]!.onsetTicks, endTicks: last.writtenEndTicks });
    };
    for (const [k, strike] of voice.entries()) {
      const last = notes.at(-1);
      const isSecond = last !== undefined && strike.slurredFrom === null && rings[k - 1]!;
      const longest =
        (strike.role === 'melody' ? LONGEST_QUARTERS : LONGEST_INNER_QUARTERS) * ticksPerQuarter;
      const short = strike.writtenEndTicks - strike.onsetTicks <= longest;
      const goesOn =
        last !== undefined &&
        follows(strike, last, notes) &&
        strike.onsetTicks < barEndAt(measures, last.onsetTicks) &&
        (isSecond || !isStep(strike, last));
      if (short && goesOn) {
        notes.push(strike);
        if (isSecond) seconds.add(secondOf(last, strike));
      } else {
        close();
        notes = short ? [strike] : [];
        seconds = new Set();
      }
    }
    close();
  }
  return chords;
}

/** At once, or after the rest in which another voice strikes: then it had better come back to the chord. */
function follows(strike: Strike, last: Strike, notes: readonly Strike[]): boolean {
  const rest = strike.onsetTicks - last.writtenEndTicks;
  if (rest === 0) return true;
  const comesBack = notes.some(({ midi }) => midi === strike.midi);
  return rest > 0 && rest <= strike.writtenEndTicks - strike.onsetTicks && comesBack;
}

const arpeggioInALine = (notes: readonly Strike[]) =>
  notes.length >= LEAST_NOTES_IN_A_SINGLE_LINE && new Set(notes.map((note) => note.midi)).size < notes.length;
