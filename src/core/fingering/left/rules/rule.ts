/**
 * What a rule of the left hand is: what it looks at, as whole numbers, and what it charges for these. Whoever prices a
 * single state calls it; the lattice makes its tables from it. So each rule stands once.
 */
import type { FingeringProblem } from '../../problem/problem';
import type { Hand } from './hand';
import type { Bill } from './ledger';
import type { HandStep } from './step';

/** The hand, its instrument and what each term counts: nothing of a piece. */
export type HandSetting = Pick<FingeringProblem, 'fretboard' | 'hand' | 'weights' | 'tuning'>;

/** A rule of a state by itself. */
export interface OwnRule {
  /** Equal for rules that charge the same for the same codes. */
  readonly id: string;
  readonly code: (hand: Hand) => number;
  readonly charge: (code: number, bill: Bill) => void;
}

/** What a rule looks at of a state: a whole number from 0 up to `CODES`. */
export interface StateColumn {
  readonly code: (hand: Hand) => number;
}

export const CODES = 1 << 15;

/** Of the state before a step, with the time in ms that the step leaves to it; 0 where time is nothing to the rule. */
export interface TimedColumn extends StateColumn {
  readonly ms: (hand: Hand, step: HandStep) => number;
}

/** A rule of the way from one state to the next. */
export interface WayRule {
  /** Equal for rules that charge the same for the same codes and times. */
  readonly id: string;
  readonly from: TimedColumn;
  readonly to: StateColumn;
  readonly charge: (from: number, to: number, ms: number, bill: Bill) => void;
  /** How it bears on what carries the hand: counts in a number, which are added up over the rules of a step. */
  readonly bears?: (from: number, to: number) => number;
}

/** Counts of all rules together stay below this. */
export const COUNTS = 1 << 12;

/** A rule of the way that depends on what carries the hand, too. */
export interface CarriedRule {
  readonly id: string;
  readonly from: TimedColumn;
  readonly to: StateColumn;
  /** Carriers are numbered from 0 up to this. */
  readonly carriers: number;
  readonly carrierOf: (counts: number) => number;
  readonly charge: (from: number, to: number, ms: number, carrier: number, bill: Bill) => void;
}

/** All rules of one step. */
export interface StepRules {
  readonly plain: readonly WayRule[];
  readonly carried: CarriedRule;
}
