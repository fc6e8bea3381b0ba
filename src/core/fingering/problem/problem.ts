/** What is to be fingered: strikes and moments in time, taken from a score. */
import { clockOf, type Spans, spansOf } from '../../music/tempo';
import { type Fretboard, withCapo } from '../../instrument/fretboard';
import type { TouchPlace } from '../../instrument/harmonics';
import type { HandProfile } from '../../instrument/handProfile';
import { type Tuning, tuningOrThrow } from '../../instrument/tuning';
import type { PrintedMarks, Score } from '../../score/model';
import { type LeftWeights, leftWeights } from '../left/rules/weights';
import { type Passes, passesOf } from './passes';
import { strikesOf } from './strikes';

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
  /** Comes before the beat of its main note. */
  readonly grace: boolean;
  /** The strike that a two-note slur leads here from. */
  readonly slurredFrom: number | null;
  /** The strike that a slide leads here from. */
  readonly slidFrom: number | null;
  /** A trill, mordent or turn is played on it. */
  readonly ornamented: boolean;
  /** The strike before it in the same line. */
  readonly lineFrom: number | null;
  /** The teacher's word that it lasts for its written value. */
  readonly mustRing: boolean;
  /** Where a natural harmonic can be touched; null for every other note. */
  readonly touch: readonly TouchPlace[] | null;
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
  /** How often what is played. */
  readonly passes: Passes;
  readonly ticksPerQuarter: number;
  /** Ticks from the start to ms from the start. */
  readonly clock: (tick: number) => number;
  readonly spans: Spans;
  readonly tuning: Tuning;
  readonly fretboard: Fretboard;
  readonly hand: HandProfile;
  /** What each term of the left hand counts. */
  readonly weights: LeftWeights;
}

/** Up to a whole tone is a step, more is a leap. */
export const STEP_SEMITONES = 2;

export function problemOf(
  score: Score,
  fretboard: Fretboard,
  hand: HandProfile,
  weights: LeftWeights = leftWeights('balanced', hand),
): FingeringProblem {
  const strikes = strikesOf(score);
  const clock = clockOf(score.tempos, score.ticksPerQuarter);
  const moments = momentsOf(strikes, clock);
  return {
    strikes,
    moments,
    passes: passesOf(score.measures, moments),
    ticksPerQuarter: score.ticksPerQuarter,
    clock,
    spans: spansOf(score.tempos, score.ticksPerQuarter),
    tuning: tuningOrThrow(score.tuningId),
    fretboard: withCapo(fretboard, score.capo),
    hand,
    weights,
  };
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
