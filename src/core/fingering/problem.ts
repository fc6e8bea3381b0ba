/** What is to be fingered: strikes and moments in time, taken from a score. */
import { clockOf } from '../music/tempo';
import type { Fretboard } from '../instrument/fretboard';
import type { HandProfile } from '../instrument/handProfile';
import { type Tuning, tuningOrThrow } from '../instrument/tuning';
import { joinLines, ringingBrokenChords } from './lines';
import type { PrintedMarks, Score, ScoreNote } from '../score/model';

export type Role = 'melody' | 'bass' | 'inner';

/** One string set sounding once. Notes of equal pitch and onset (a unison of two voices) share a strike. */
export interface Strike {
  readonly index: number;
  readonly uids: readonly string[];
  readonly midi: number;
  readonly onsetTicks: number;
  /** Where the notation ends it. */
  readonly writtenEndTicks: number;
  /** Where a guitarist would end it: a note of a broken chord rings on (at a lower price if it cannot). */
  readonly endTicks: number;
  readonly voice: string;
  readonly role: Role;
  /** The strike that a two-note slur leads here from. */
  readonly slurredFrom: number | null;
  /** The strike before it in the same melody. */
  readonly lineFrom: number | null;
  readonly printed: PrintedMarks;
}

/** A unique onset: which strikes begin here and which are still written to sound. */
export interface Moment {
  readonly index: number;
  readonly tick: number;
  readonly timeMs: number;
  readonly struck: readonly number[];
  readonly held: readonly number[];
}

export interface FingeringProblem {
  readonly strikes: readonly Strike[];
  readonly moments: readonly Moment[];
  readonly ticksPerQuarter: number;
  /** Ticks from the start to ms from the start. */
  readonly clock: (tick: number) => number;
  readonly tuning: Tuning;
  readonly fretboard: Fretboard;
  readonly hand: HandProfile;
}

/** Up to a whole tone is a step, more is a leap. */
export const STEP_SEMITONES = 2;

export function problemOf(score: Score, fretboard: Fretboard, hand: HandProfile): FingeringProblem {
  const strikes = strikesOf(score);
  const clock = clockOf(score.tempos, score.ticksPerQuarter);
  return {
    strikes,
    moments: momentsOf(strikes, clock),
    ticksPerQuarter: score.ticksPerQuarter,
    clock,
    tuning: tuningOrThrow(score.tuningId),
    fretboard,
    hand,
  };
}

function strikesOf(score: Score): Strike[] {
  return ringingBrokenChords(joinLines(bareStrikesOf(score)), score.measures, score.ticksPerQuarter);
}

function bareStrikesOf(score: Score): Strike[] {
  const roles = rolesOf(score.notes);
  const groups = new Map<string, ScoreNote[]>();
  for (const note of score.notes) {
    const key = `${note.onsetTicks}:${note.soundingMidi}`;
    const group = groups.get(key);
    if (group) group.push(note);
    else groups.set(key, [note]);
  }
  const indexOfUid = new Map<string, number>();
  [...groups.values()].forEach((notes, index) => notes.forEach((note) => indexOfUid.set(note.uid, index)));
  const slurSources = slurSourcesOf(score);
  return [...groups.values()].map((notes, index) => {
    const longest = notes.reduce((a, b) => (b.durationTicks > a.durationTicks ? b : a));
    const source = notes.map((note) => slurSources.get(note.uid)).find((uid) => uid !== undefined);
    return {
      index,
      uids: notes.map((note) => note.uid),
      midi: longest.soundingMidi,
      onsetTicks: longest.onsetTicks,
      writtenEndTicks: longest.onsetTicks + longest.durationTicks,
      endTicks: longest.onsetTicks + longest.durationTicks,
      voice: longest.voice,
      role: roles.get(longest.uid)!,
      slurredFrom: source === undefined ? null : (indexOfUid.get(source) ?? null),
      lineFrom: null,
      printed: longest.printed,
    };
  });
}

/**
 * The slurs that a guitarist plays as ligados: exactly two neighbouring notes of one voice, of different
 * pitch. A slur over more notes is a phrase mark and plucks nothing away. Source: handbook, "Notation".
 */
function slurSourcesOf(score: Score): ReadonlyMap<string, string> {
  const noteOf = new Map(score.notes.map((note) => [note.uid, note]));
  const sources = new Map<string, string>();
  for (const slur of score.slurs) {
    const from = noteOf.get(slur.fromUid);
    const to = noteOf.get(slur.toUid);
    if (!from || !to || from.soundingMidi === to.soundingMidi || from.voice !== to.voice) continue;
    if (from.onsetTicks + from.durationTicks === to.onsetTicks) sources.set(to.uid, from.uid);
  }
  return sources;
}

/**
 * Melody, bass, inner part. With several voices the lowest one is the bass and the highest the melody, and
 * inside a chord of the melody only its top note is; in one voice a chord's outer notes are the two.
 */
function rolesOf(notes: readonly ScoreNote[]): ReadonlyMap<string, Role> {
  const voices = voicesFromLowToHigh(notes);
  const roles = new Map<string, Role>();
  const chords = new Map<string, ScoreNote[]>();
  for (const note of notes) {
    const key = `${note.onsetTicks}:${note.voice}`;
    chords.set(key, [...(chords.get(key) ?? []), note]);
  }
  for (const chord of chords.values()) {
    const ordered = [...chord].sort((a, b) => a.soundingMidi - b.soundingMidi);
    const rank = voices.indexOf(ordered[0]!.voice);
    ordered.forEach((note, k) => roles.set(note.uid, roleIn(voices.length, rank, k, ordered.length)));
  }
  return roles;
}

function roleIn(voiceCount: number, voiceRank: number, k: number, chordSize: number): Role {
  const top = k === chordSize - 1;
  if (voiceCount === 1) return top ? 'melody' : k === 0 ? 'bass' : 'inner';
  if (voiceRank === 0) return k === 0 ? 'bass' : 'inner';
  return voiceRank === voiceCount - 1 && top ? 'melody' : 'inner';
}

function voicesFromLowToHigh(notes: readonly ScoreNote[]): string[] {
  const sums = new Map<string, { sum: number; count: number }>();
  for (const note of notes) {
    const entry = sums.get(note.voice) ?? { sum: 0, count: 0 };
    sums.set(note.voice, { sum: entry.sum + note.soundingMidi, count: entry.count + 1 });
  }
  const mean = (voice: string) => sums.get(voice)!.sum / sums.get(voice)!.count;
  return [...sums.keys()].sort((a, b) => mean(a) - mean(b) || a.localeCompare(b));
}

function momentsOf(strikes: readonly Strike[], clock: (tick: number) => number): Moment[] {
  const ticks = [...new Set(strikes.map((strike) => strike.onsetTicks))].sort((a, b) => a - b);
  let sounding: Strike[] = [];
  let next = 0;
  return ticks.map((tick, index) => {
    const struck: Strike[] = [];
    while (next < strikes.length && strikes[next]!.onsetTicks === tick) struck.push(strikes[next++]!);
    const held = sounding.filter((strike) => strike.endTicks > tick);
    sounding = [...held, ...struck];
    return {
      index,
      tick,
      timeMs: clock(tick),
      struck: struck.map((strike) => strike.index),
      held: held.map((strike) => strike.index).sort((a, b) => a - b),
    };
  });
}
