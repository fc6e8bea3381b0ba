/** What is to be fingered: strikes and moments in time, taken from a score. */
import { clockOf, type Spans, spansOf } from '../../music/tempo';
import { type Fretboard, withCapo } from '../../instrument/fretboard';
import type { HandProfile } from '../../instrument/handProfile';
import { openMidi, STRINGS, type Tuning, tuningOrThrow } from '../../instrument/tuning';
import type { Score } from '../../score/model';
import { type LeftWeights, leftWeights } from '../left/rules/weights';
import { type Passes, passesOf } from './passes';
import type { Strike } from './strike';
import { gripsOf } from './gripsOf';
import { groupedBy } from './groupedBy';
import { reckonedTempos } from './pace';
import { strikesOf } from './strikes';
import { withManners } from './manners';
import { surroundingsOf } from './surroundings';
import { type Reading, readFigures } from '../../figures/reading';
import type { Texture } from '../../figures/texture';

/** A unique onset: which strikes begin here and which are still written to sound. */
export interface Moment {
  readonly index: number;
  readonly tick: number;
  readonly timeMs: number;
  readonly struck: readonly number[];
  readonly held: readonly number[];
  /** Struck ones whose place lies already: they were laid before, or are struck again in their grip. */
  readonly taken: readonly number[];
  /** Strikes whose place is taken here, and which are struck later. */
  readonly laid: readonly number[];
}

/** What is to be fingered, before its textures are read. */
export interface NotatedPiece {
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

export interface FingeringProblem extends NotatedPiece {
  /** The textures of the piece, and whose note each is. */
  readonly reading: Reading;
  /** Time as the left hand reckons it, see `pace.ts`. */
  readonly reckoned: Spans;
}

/** What a hand holds in the lowest positions lies no higher. */
const LOW_FRETS = 7;

export function problemOf(
  score: Score,
  fretboard: Fretboard,
  hand: HandProfile,
  weights: LeftWeights = leftWeights('balanced', hand),
  textureOf?: (uid: string) => Texture | null,
): FingeringProblem {
  const tuning = tuningOrThrow(score.tuningId);
  const strikes = strikesOf(score, {
    fits: gripsOf(tuning, withCapo(fretboard, score.capo), hand),
    fitsLow: gripsOf(tuning, withCapo(fretboard, score.capo), hand, LOW_FRETS),
    isOpen: (midi) => STRINGS.some((string) => openMidi(tuning, string) === midi),
  });
  const clock = clockOf(score.tempos, score.ticksPerQuarter);
  const moments = momentsOf(strikes, clock);
  const piece: NotatedPiece = {
    strikes,
    moments,
    passes: passesOf(score.measures, moments),
    ticksPerQuarter: score.ticksPerQuarter,
    clock,
    spans: spansOf(score.tempos, score.ticksPerQuarter),
    tuning,
    fretboard: withCapo(fretboard, score.capo),
    hand,
    weights,
  };
  const reading = readFigures(piece, surroundingsOf(score, piece), textureOf);
  const reckoned = spansOf(reckonedTempos(score.tempos, moments, reading), score.ticksPerQuarter);
  return { ...piece, strikes: withManners(piece, reading, reckoned), reading, reckoned };
}

function momentsOf(strikes: readonly Strike[], clock: (tick: number) => number): Moment[] {
  const ticks = [...new Set(strikes.map((strike) => strike.onsetTicks))].sort((a, b) => a - b);
  const startingAt = groupedBy(strikes, ({ onsetTicks }) => onsetTicks);
  const laidAt = groupedBy(
    strikes.filter(({ laidTicks, onsetTicks }) => laidTicks < onsetTicks),
    ({ laidTicks }) => laidTicks,
  );
  let lying: readonly Strike[] = [];
  return ticks.map((tick, index) => {
    const struck = startingAt.get(tick)!;
    const laid = laidAt.get(tick) ?? [];
    const before = new Set(lying);
    const taken = struck.filter(
      (strike) => before.has(strike) || (strike.continues !== null && before.has(strikes[strike.continues]!)),
    );
    const held = lying.filter((strike) => strike.endTicks > tick && !struck.includes(strike));
    lying = [...held, ...struck, ...laid];
    return {
      index,
      tick,
      timeMs: clock(tick),
      struck: struck.map((strike) => strike.index),
      held: held.map((strike) => strike.index).sort((a, b) => a - b),
      taken: taken.map((strike) => strike.index),
      laid: laid.map((strike) => strike.index),
    };
  });
}
