/** What a change of state takes away from notes that should go on. */
import type { FingeringProblem, Moment } from '../../problem/problem';
import { isSameAgain, isSilent, type Strike } from '../../problem/strike';
import type { Bill } from './ledger';
import type { Hand } from './hand';
import { NO_PLACE, type Placement } from './place';
import type { WayRule } from './rule';
import type { HeldNote, Link } from './step';
import { type LeftTermId } from './terms';
import {
  CHANGED_IN_CHORDS,
  CHANGED_IN_HURRY,
  CUT_AT_ONCE,
  RESTRUCK_SHARE,
  regripShare,
  WEAK_PAIR_MS,
} from './shares';

/** What is lost of a note that ends before its time. */
export interface Cut {
  readonly term: Extract<LeftTermId, 'cutMelody' | 'cutBass' | 'cutInner' | 'cutRing' | 'regrip'>;
  /** Lost quarters, weighted by the lost share. */
  readonly amount: number;
  readonly mustRing: boolean;
}

const CUT_TERM = { melody: 'cutMelody', bass: 'cutBass', inner: 'cutInner' } as const;

/** A strike that ends at `tick`, before its time. */
export function cutAt(problem: FingeringProblem, strike: Strike, tick: number): Cut {
  const written = tick < strike.writtenEndTicks;
  const endTicks = written ? strike.writtenEndTicks : strike.endTicks;
  const lostShare = (endTicks - tick) / (endTicks - strike.onsetTicks);
  const lostQuarters = (endTicks - tick) / problem.ticksPerQuarter;
  return {
    term: written ? CUT_TERM[strike.role] : 'cutRing',
    amount: lostQuarters * (CUT_AT_ONCE + (1 - CUT_AT_ONCE) * lostShare),
    mustRing: written && strike.mustRing,
  };
}

/** A note of a grip that does not sound, or rings on, is let go: the hand must come back to it. */
const REGRIP: Cut = { term: 'regrip', amount: 1, mustRing: false };

/** A grip is taken anew as a whole: twice as many silent notes are not twice as dear, and each has its share. */
function regripOf({ strikes }: FingeringProblem, strike: Strike, next: Moment): Cut {
  const silent = next.held.filter((other) => {
    const one = strikes[other]!;
    return one.grip === strike.grip && isSilent(one, next.tick);
  });
  const drones = strike.manner === 'drone' ? DRONE_REGRIP : 1;
  return { ...REGRIP, amount: (drones * regripShare(strike)) / Math.sqrt(silent.length) };
}

/** A drone owns its string: taking it for another note is so many times dearer. From memory. */
const DRONE_REGRIP = 3;

/** Null where the same pitch is struck again: the sound goes on, nothing is lost. */
export function maybeCut(problem: FingeringProblem, strike: Strike, next: Moment): Cut | null {
  if (isSilent(strike, next.tick)) return regripOf(problem, strike, next);
  if (next.struck.some((other) => isSameAgain(strike, problem.strikes[other]!))) return null;
  const cut = cutAt(problem, strike, next.tick);
  const restruck = next.struck.some((other) => problem.strikes[other]!.midi === strike.midi);
  return restruck ? { ...cut, amount: RESTRUCK_SHARE * cut.amount } : cut;
}

export function chargeCut({ term, amount, mustRing }: Cut, bill: Bill): void {
  bill.charge(term, amount);
  if (mustRing) bill.charge('cutMustRing', 1);
}

/** Where a held note lies, NO_PLACE where nothing is lost with it: a silent note of a grip that is broken already. */
function heldPlace(hand: Hand, { column, silent, unit }: HeldNote): number {
  if (column < 0) return NO_PLACE;
  const isWhole = () => unit.every((one) => one >= 0 && hand.placeOn(one) !== NO_PLACE);
  return silent && !isWhole() ? NO_PLACE : hand.placeOn(column);
}

/** A held note is let go, or handed to another finger. Free where its pitch is struck again. */
export const heldRule = (note: HeldNote, h: number, { cut } = note): WayRule => ({
  id: `held ${cut ? `${cut.term} ${cut.amount} ${cut.mustRing}` : 'again'}`,
  from: { code: (hand) => heldPlace(hand, note) + 1, ms: () => 0 },
  to: { code: (hand) => hand.placeOn(h) + 1 },
  charge: (from, to, _ms, bill) => {
    if (from === 0 || from === to || !cut) return;
    if (to === 0) chargeCut(cut, bill);
    else bill.charge('handOver', 1);
  },
});

/** How much of the time in which fingers can follow each other at ease is lacking in a step: 0 to 1. */
export const hurryOf = (stepMs: number): number => Math.max(0, 1 - stepMs / WEAK_PAIR_MS);

/** Another voice strikes the pitch where it lies: the finger that is there stays. It may as well go to another place. */
export function chargeRestruck(before: Placement, after: Placement, how: Again, bill: Bill): void {
  if (before.string === after.string) chargeAgain(before, after, how, bill);
}

/** How a pitch comes again: how quickly, and whether as a part of one chord after another. */
type Again = Pick<Link, 'hurry' | 'inChords'>;

/**
 * A pitch struck again had better stay where it is, under the finger that it has; in a tremolo above all. From chord to
 * chord the whole hand is set anew, and the shape of the next one weighs more.
 */
export function chargeAgain(
  before: Placement,
  after: Placement,
  { hurry, inChords }: Again,
  bill: Bill,
): void {
  if (before.string !== after.string || before.fret !== after.fret) bill.charge('placeChanged', 1);
  else if (before.finger !== after.finger)
    bill.charge('fingerChanged', (inChords ? CHANGED_IN_CHORDS : 1) * (1 + CHANGED_IN_HURRY * hurry));
}
