/** What is to be fingered: strikes and moments in time, taken from a score. */
import { clockOf, type Spans, spansOf } from '../../music/tempo';
import { type Fretboard, withCapo } from '../../instrument/fretboard';
import type { HandProfile } from '../../instrument/handProfile';
import { type Tuning, tuningOrThrow } from '../../instrument/tuning';
import type { Score } from '../../score/model';
import { type LeftWeights, leftWeights } from '../left/rules/weights';
import { type Passes, passesOf } from './passes';
import type { Strike } from './strike';
import { strikesOf } from './strikes';

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
