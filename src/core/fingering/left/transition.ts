/** What the way from one state of the hand to the next costs. */
import { movementMs } from '../../instrument/handProfile';
import { price } from '../costTerm';
import type { FingeringProblem, Moment, Strike } from '../problem';
import { acrossMm, fingertipMm } from '../../instrument/fretboard';
import { anchorMm, type HandMemory, type HandState, type Placement } from './handState';
import type { Ledger } from './stateCost';
import {
  BARRE_PREPARED_SHARE,
  BARRE_SIZE,
  CARRIER_SHARE,
  CUT_AT_ONCE,
  LEFT_TERMS,
  type LeftTermId,
  LONGEST_WINDOW_MS,
  RELEASE_SHARE,
  SHIFT_DEAD_ZONE_MM,
} from './terms';

/** What carries the hand through a change of position; an open string or a rest when nothing holds it. */
export type Carrier = 'none' | 'guide' | 'pivot' | 'open';

export interface ShiftMeasure {
  readonly distanceMm: number;
  readonly windowMs: number;
  readonly neededMs: number;
  readonly carrier: Carrier;
}

/** Whether the hand can come from `from` to `to`: held strikes stay where they are, memories agree. */
export function follows(problem: FingeringProblem, from: HandState, to: HandState, next: Moment): boolean {
  for (const strike of next.held) {
    const slot = to.strikes.indexOf(strike);
    if (slot < 0) continue;
    const before = from.strikes.indexOf(strike);
    if (before < 0 || from.codes[before] !== to.codes[slot]) return false;
  }
  return to.anchor !== 0 || sameMemory(memoryAfter(problem, from, next), to.memory);
}

export const sameMemory = (a: HandMemory | null, b: HandMemory | null): boolean =>
  a?.anchor === b?.anchor && a?.freedTick === b?.freedTick;

/** Freed so long ago that the hand has had all the time it can use. */
export const LONG_FREE = -1;

/** What the hand remembers of `from` when nothing is stopped any more at `next`. */
export function memoryAfter(problem: FingeringProblem, from: HandState, next: Moment): HandMemory | null {
  const anchor = from.anchor || from.memory?.anchor;
  if (!anchor) return null;
  const freedTick = from.anchor ? releasedTick(problem, from, next) : from.memory!.freedTick;
  const long = freedTick === LONG_FREE || next.timeMs - problem.clock(freedTick) >= LONGEST_WINDOW_MS;
  return { anchor, freedTick: long ? LONG_FREE : freedTick };
}

/** When the last stopped strike of `from` ends, or the moment that takes it away. */
function releasedTick(problem: FingeringProblem, from: HandState, next: Moment): number {
  let tick = 0;
  for (let slot = 0; slot < from.strikes.length; slot++) {
    if (from.placements[slot]!.finger === 0) continue;
    tick = Math.max(tick, Math.min(next.tick, problem.strikes[from.strikes[slot]!]!.endTicks));
  }
  return tick;
}

/** Effort in tenths of a point of going from one state to the next. Call it only when `follows` holds. */
export function transitionCost(
  problem: FingeringProblem,
  moment: Moment,
  from: HandState,
  next: Moment,
  to: HandState,
  ledger?: Ledger,
): number {
  let sum = cutCost(problem, from, next, to, ledger);
  const pay = (term: LeftTermId, cost: number) => {
    if (cost === 0) return;
    sum += cost;
    ledger?.(term, cost);
  };
  const shift = measureShift(problem, moment, from, next, to);
  if (shift) {
    const share = shift.carrier === 'open' ? 1 : CARRIER_SHARE[shift.carrier];
    pay('shift', price(LEFT_TERMS.shift, 1));
    pay('shiftDistance', price(LEFT_TERMS.shiftDistance, shift.distanceMm * share));
    pay('shiftHaste', price(LEFT_TERMS.shiftHaste, shift.neededMs / Math.max(1, shift.windowMs)));
  }
  payHops(problem, moment, from, next, to, pay);
  payBarre(from, to, pay);
  paySlurs(problem, from, next, to, pay);
  return sum;
}

/** Cost of the held strikes that `from` still has and `to` lets go. */
export function cutCost(
  problem: FingeringProblem,
  from: HandState,
  next: Moment,
  to: HandState,
  ledger?: Ledger,
): number {
  let sum = 0;
  for (const strike of next.held) {
    if (!from.strikes.includes(strike) || to.strikes.includes(strike)) continue;
    const { term, cost } = cutPrice(problem, problem.strikes[strike]!, next, to);
    if (cost === 0) continue;
    sum += cost;
    ledger?.(term, cost);
  }
  return sum;
}

const CUT_TERM = { melody: 'cutMelody', bass: 'cutBass', inner: 'cutInner' } as const;

function cutPrice(problem: FingeringProblem, strike: Strike, next: Moment, to: HandState) {
  const term = CUT_TERM[strike.role];
  // Struck again at the same pitch: the sound goes on, nothing is lost.
  const again = next.struck.some((one) => problem.strikes[one]!.midi === strike.midi && to.strikes.includes(one));
  if (again) return { term, cost: 0 };
  const lostTicks = strike.endTicks - next.tick;
  const lostShare = lostTicks / (strike.endTicks - strike.onsetTicks);
  const lostQuarters = lostTicks / problem.ticksPerQuarter;
  return { term, cost: price(LEFT_TERMS[term], lostQuarters * (CUT_AT_ONCE + (1 - CUT_AT_ONCE) * lostShare)) };
}

/** The change of position between two states, or null when the hand stays where it is. */
export function measureShift(
  problem: FingeringProblem,
  moment: Moment,
  from: HandState,
  next: Moment,
  to: HandState,
): ShiftMeasure | null {
  const start = from.anchor || from.memory?.anchor;
  if (!start || !to.anchor || start === to.anchor) return null;
  const way = Math.abs(anchorMm(to.anchor, problem) - anchorMm(start, problem));
  const distanceMm = way - SHIFT_DEAD_ZONE_MM;
  if (distanceMm <= 0) return null;
  return {
    distanceMm,
    windowMs: windowMs(problem, moment, from, next),
    neededMs: movementMs(distanceMm, problem.hand),
    carrier: from.anchor ? carrierBetween(from, to) : 'open',
  };
}

/** From when the last note that holds the hand may be released to the next onset. */
function windowMs(problem: FingeringProblem, moment: Moment, from: HandState, next: Moment): number {
  if (from.memory?.freedTick === LONG_FREE) return LONGEST_WINDOW_MS;
  const freed = from.anchor ? releasedTick(problem, from, next) : from.memory!.freedTick;
  const waited = next.timeMs - problem.clock(freed);
  return Math.min(LONGEST_WINDOW_MS, Math.max(waited, RELEASE_SHARE * (next.timeMs - moment.timeMs)));
}

function carrierBetween(from: HandState, to: HandState): Carrier {
  let guide = false;
  for (let finger = 1; finger <= 4; finger++) {
    const a = placeOf(from, finger);
    const b = placeOf(to, finger);
    if (!a || !b || a.string !== b.string) continue;
    if (a.fret === b.fret) return 'pivot';
    guide = true;
  }
  return guide ? 'guide' : 'none';
}

function placeOf(state: HandState, finger: number): Placement | null {
  const slot = state.slotOfFinger[finger]!;
  return slot < 0 ? null : state.placements[slot]!;
}

type Pay = (term: LeftTermId, cost: number) => void;

function payHops(
  problem: FingeringProblem,
  moment: Moment,
  from: HandState,
  next: Moment,
  to: HandState,
  pay: Pay,
) {
  if (from.anchor === 0 || to.anchor === 0) return;
  const stepMs = next.timeMs - moment.timeMs;
  for (let finger = 1; finger <= 4; finger++) {
    const a = placeOf(from, finger);
    const b = placeOf(to, finger);
    if (!a || !b || a.string === b.string || staysUnder(from, to, finger)) continue;
    const endTick = problem.strikes[from.strikes[from.slotOfFinger[finger]!]!]!.endTicks;
    const freeMs = Math.max(next.timeMs - problem.clock(Math.min(endTick, next.tick)), RELEASE_SHARE * stepMs);
    pay('hop', price(LEFT_TERMS.hop, 1));
    pay('hopHaste', price(LEFT_TERMS.hopHaste, movementMs(wayMm(problem, a, b), problem.hand) / Math.max(1, freeMs)));
  }
  if (placeOf(from, 3) && placeOf(to, 4) && !placeOf(to, 3)) {
    pay('weakPair', price(LEFT_TERMS.weakPair, 1 - stepMs / 250));
  }
}

/** Finger 1 goes from a tip to a barre over the same string, or back: it swivels, it does not hop. */
function staysUnder(from: HandState, to: HandState, finger: number): boolean {
  if (finger !== 1) return false;
  const barre = from.barre ?? to.barre;
  const tip = placeOf(from.barre ? to : from, 1)!;
  return !!barre && barre.fret === tip.fret && tip.string >= barre.firstString && tip.string <= barre.lastString;
}

function wayMm(problem: FingeringProblem, a: Placement, b: Placement): number {
  const board = problem.fretboard;
  const alongA = fingertipMm(a.fret, board.scaleLengthMm);
  const alongB = fingertipMm(b.fret, board.scaleLengthMm);
  return Math.hypot(alongA - alongB, acrossMm(a.string, alongA, board) - acrossMm(b.string, alongB, board));
}

function payBarre(from: HandState, to: HandState, pay: Pay) {
  if (!to.barre) return;
  const size = BARRE_SIZE[to.barre.lastString - to.barre.firstString + 1]!;
  const full = price(LEFT_TERMS.barre, to.barre.fret) * size;
  const lying = from.barre?.fret === to.barre.fret ? from.barre : null;
  if (lying) {
    const covers = lying.firstString <= to.barre.firstString && lying.lastString >= to.barre.lastString;
    pay('barre', covers ? 0 : Math.round(full * BARRE_PREPARED_SHARE.smallerBarre));
    return;
  }
  const tip = placeOf(from, 1);
  const prepared = tip?.fret === to.barre.fret;
  pay('barre', Math.round(full * (prepared ? BARRE_PREPARED_SHARE.finger : 1)));
}

function paySlurs(problem: FingeringProblem, from: HandState, next: Moment, to: HandState, pay: Pay) {
  for (const index of next.struck) {
    const source = problem.strikes[index]!.slurredFrom;
    if (source === null) continue;
    const a = from.placements[from.strikes.indexOf(source)];
    const b = to.placements[to.strikes.indexOf(index)];
    if (!a || !b) continue;
    if (!slurPlayable(a, b)) pay('slurBroken', price(LEFT_TERMS.slurBroken, 1));
    else if (a.finger + b.finger >= 6 && a.finger !== 1 && b.finger !== 1) pay('slurWeak', price(LEFT_TERMS.slurWeak, 1));
  }
}

/** Hammer-on from open or a lower finger, pull-off to open or a lower finger, on one string. */
export function slurPlayable(a: Placement, b: Placement): boolean {
  if (a.string !== b.string || a.fret === b.fret) return false;
  return b.fret > a.fret ? b.finger > a.finger : b.finger < a.finger;
}
