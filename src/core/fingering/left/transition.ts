/** What the way from one state of the hand to the next costs. */
import { movementMs } from '../../instrument/handProfile';
import { price } from '../costTerm';
import { type FingeringProblem, type Moment, STEP_SEMITONES, type Strike } from '../problem';
import { acrossMm, fingertipMm } from '../../instrument/fretboard';
import {
  type HandMemory,
  type HandRange,
  type HandState,
  handWayFrets,
  handWayMm,
  type Placement,
} from './handState';
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
  SQUEEZE_FRETS,
  WEAK_PAIR_MS,
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
  return to.range !== null || sameMemory(memoryAfter(problem, from, next), to.memory);
}

const sameMemory = (a: HandMemory | null, b: HandMemory | null): boolean =>
  a?.range.low === b?.range.low && a?.range.high === b?.range.high && a?.freedTick === b?.freedTick;

/** Freed so long ago that the hand has had all the time it can use. */
export const LONG_FREE = -1;

/** What the hand remembers of `from` when nothing is stopped any more at `next`. */
export function memoryAfter(problem: FingeringProblem, from: HandState, next: Moment): HandMemory | null {
  const range = from.range ?? from.memory?.range;
  if (!range) return null;
  const freedTick = from.range ? releasedTick(problem, from, next) : from.memory!.freedTick;
  const long = freedTick === LONG_FREE || next.timeMs - problem.clock(freedTick) >= LONGEST_WINDOW_MS;
  return { range, freedTick: long ? LONG_FREE : freedTick };
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
  return cutsCost(problem, from, next, to, ledger) + movementCost(problem, moment, from, next, to, ledger);
}

/** The part of a transition's cost that is not about what sounds, but about how the hand gets there. */
export function movementCost(
  problem: FingeringProblem,
  moment: Moment,
  from: HandState,
  next: Moment,
  to: HandState,
  ledger?: Ledger,
): number {
  return (
    shiftCost(problem, moment, from, next, to, ledger) +
    hopsCost(problem, moment, from, next, to, ledger) +
    barreCost(from, to, ledger) +
    slursCost(problem, from, next, to, ledger) +
    lineCost(problem, from, next, to, ledger)
  );
}

/** Writes an amount into the ledger, if there is one, and hands it back. */
function paid(term: LeftTermId, cost: number, ledger: Ledger | undefined): number {
  if (ledger && cost !== 0) ledger(term, cost);
  return cost;
}

/** What sounds in `from` and is let go, or taken up elsewhere, although it should go on. */
export function cutsCost(
  problem: FingeringProblem,
  from: HandState,
  next: Moment,
  to: HandState,
  ledger?: Ledger,
): number {
  let sum = 0;
  for (let slot = 0; slot < from.strikes.length; slot++) {
    const strike = problem.strikes[from.strikes[slot]!]!;
    if (strike.endTicks < next.tick) continue;
    const again = struckAgain(problem, strike, next, to);
    if (again >= 0) {
      // Struck again at the same pitch: the sound goes on, nothing is lost.
      const moved = to.codes[again] !== from.codes[slot];
      if (moved) sum += paid('placeChanged', price(LEFT_TERMS.placeChanged, 1), ledger);
    } else if (strike.endTicks > next.tick && !to.strikes.includes(strike.index)) {
      sum += cutCost(problem, strike, next.tick, ledger);
    }
  }
  return sum;
}

/** Slot in `to` of a new strike at the pitch of an old one, −1 where there is none. */
function struckAgain(problem: FingeringProblem, strike: Strike, next: Moment, to: HandState): number {
  for (const index of next.struck) {
    if (problem.strikes[index]!.midi === strike.midi) return to.strikes.indexOf(index);
  }
  return -1;
}

const CUT_TERM = { melody: 'cutMelody', bass: 'cutBass', inner: 'cutInner' } as const;

function cutCost(problem: FingeringProblem, strike: Strike, tick: number, ledger?: Ledger): number {
  const written = tick < strike.writtenEndTicks;
  const term = written ? CUT_TERM[strike.role] : 'cutRing';
  const endTicks = written ? strike.writtenEndTicks : strike.endTicks;
  const lostShare = (endTicks - tick) / (endTicks - strike.onsetTicks);
  const lostQuarters = (endTicks - tick) / problem.ticksPerQuarter;
  const counted = lostQuarters * (CUT_AT_ONCE + (1 - CUT_AT_ONCE) * lostShare);
  const broken =
    written && strike.mustRing ? paid('cutMustRing', price(LEFT_TERMS.cutMustRing, 1), ledger) : 0;
  return paid(term, price(LEFT_TERMS[term], counted), ledger) + broken;
}

function shiftCost(
  problem: FingeringProblem,
  moment: Moment,
  from: HandState,
  next: Moment,
  to: HandState,
  ledger?: Ledger,
): number {
  const start = from.range ?? from.memory?.range;
  if (start && to.range && handWayFrets(start, to.range) <= SQUEEZE_FRETS) {
    return paid('squeeze', price(LEFT_TERMS.squeeze, handWayMm(start, to.range, problem)), ledger);
  }
  const shift = measureShift(problem, moment, from, next, to);
  if (!shift) return 0;
  const share = shift.carrier === 'open' ? 1 : CARRIER_SHARE[shift.carrier];
  return (
    paid('shift', price(LEFT_TERMS.shift, 1), ledger) +
    paid('shiftDistance', price(LEFT_TERMS.shiftDistance, shift.distanceMm * share), ledger) +
    paid('shiftHaste', price(LEFT_TERMS.shiftHaste, shift.neededMs / Math.max(1, shift.windowMs)), ledger)
  );
}

/** The least that a way between two ranges can cost: the best carrier, all the time that can be used. */
export function leastShiftCost(problem: FingeringProblem, from: HandRange, to: HandRange): number {
  const wayMm = handWayMm(from, to, problem);
  if (handWayFrets(from, to) <= SQUEEZE_FRETS) return price(LEFT_TERMS.squeeze, wayMm);
  const share = Math.min(1, ...Object.values(CARRIER_SHARE));
  return (
    price(LEFT_TERMS.shift, 1) +
    price(LEFT_TERMS.shiftDistance, wayMm * share) +
    price(LEFT_TERMS.shiftHaste, movementMs(wayMm, problem.hand) / LONGEST_WINDOW_MS)
  );
}

/** The change of position between two states, or null when the hand stays where it is. */
export function measureShift(
  problem: FingeringProblem,
  moment: Moment,
  from: HandState,
  next: Moment,
  to: HandState,
): ShiftMeasure | null {
  const start = from.range ?? from.memory?.range;
  if (!start || !to.range || handWayFrets(start, to.range) <= SQUEEZE_FRETS) return null;
  const distanceMm = handWayMm(start, to.range, problem);
  return {
    distanceMm,
    windowMs: windowMs(problem, moment, from, next),
    neededMs: movementMs(distanceMm, problem.hand),
    carrier: from.range ? carrierBetween(from, to) : 'open',
  };
}

/** From when the last note that holds the hand may be released to the next onset. */
function windowMs(problem: FingeringProblem, moment: Moment, from: HandState, next: Moment): number {
  if (from.memory?.freedTick === LONG_FREE) return LONGEST_WINDOW_MS;
  const freed = from.range ? releasedTick(problem, from, next) : from.memory!.freedTick;
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

function hopsCost(
  problem: FingeringProblem,
  moment: Moment,
  from: HandState,
  next: Moment,
  to: HandState,
  ledger?: Ledger,
): number {
  if (!from.range || !to.range) return 0;
  let sum = 0;
  const stepMs = next.timeMs - moment.timeMs;
  for (let finger = 1; finger <= 4; finger++) {
    const a = placeOf(from, finger);
    const b = placeOf(to, finger);
    if (!a || !b || a.string === b.string || staysUnder(from, to, finger)) continue;
    const endTick = problem.strikes[from.strikes[from.slotOfFinger[finger]!]!]!.endTicks;
    const restMs = endTick < next.tick ? next.timeMs - problem.clock(endTick) : 0;
    const freeMs = Math.max(1, restMs, RELEASE_SHARE * stepMs);
    sum += paid('hop', price(LEFT_TERMS.hop, 1), ledger);
    sum += paid('hopHaste', price(LEFT_TERMS.hopHaste, hopMs(problem, a, b) / freeMs), ledger);
  }
  if (
    stepMs < WEAK_PAIR_MS &&
    to.slotOfFinger[4]! >= 0 &&
    from.slotOfFinger[3]! >= 0 &&
    to.slotOfFinger[3]! < 0
  ) {
    sum += paid('weakPair', price(LEFT_TERMS.weakPair, 1 - stepMs / WEAK_PAIR_MS), ledger);
  }
  return sum;
}

/** Finger 1 goes from a tip to a barre over the same string, or back: it swivels, it does not hop. */
function staysUnder(from: HandState, to: HandState, finger: number): boolean {
  if (finger !== 1) return false;
  const barre = from.barre ?? to.barre;
  const tip = placeOf(from.barre ? to : from, 1)!;
  return (
    !!barre && barre.fret === tip.fret && tip.string >= barre.firstString && tip.string <= barre.lastString
  );
}

const PLACES = 7 * 32;
const hopTables = new WeakMap<FingeringProblem, Float64Array>();

/** Time in ms for a fingertip from one place to another; worked out once for each pair of places. */
function hopMs(problem: FingeringProblem, a: Placement, b: Placement): number {
  let table = hopTables.get(problem);
  if (!table) hopTables.set(problem, (table = new Float64Array(PLACES * PLACES).fill(-1)));
  const cell = (a.string * 32 + a.fret) * PLACES + b.string * 32 + b.fret;
  if (table[cell]! < 0) table[cell] = movementMs(wayMm(problem, a, b), problem.hand);
  return table[cell]!;
}

function wayMm(problem: FingeringProblem, a: Placement, b: Placement): number {
  const board = problem.fretboard;
  const alongA = fingertipMm(a.fret, board.scaleLengthMm);
  const alongB = fingertipMm(b.fret, board.scaleLengthMm);
  return Math.hypot(alongA - alongB, acrossMm(a.string, alongA, board) - acrossMm(b.string, alongB, board));
}

/** What a state costs as the first one: a barre must be laid there, too. */
export const entryCost = (state: HandState, ledger?: Ledger): number => barreCost(null, state, ledger);

function barreCost(from: HandState | null, to: HandState, ledger?: Ledger): number {
  if (!to.barre) return 0;
  const size = BARRE_SIZE[to.barre.lastString - to.barre.firstString + 1]!;
  const full = price(LEFT_TERMS.barre, to.barre.fret) * size;
  const lying = from?.barre?.fret === to.barre.fret ? from.barre : null;
  if (lying) {
    const covers = lying.firstString <= to.barre.firstString && lying.lastString >= to.barre.lastString;
    return paid('barre', covers ? 0 : Math.round(full * BARRE_PREPARED_SHARE.smallerBarre), ledger);
  }
  const prepared = from !== null && placeOf(from, 1)?.fret === to.barre.fret;
  return paid('barre', Math.round(full * (prepared ? BARRE_PREPARED_SHARE.finger : 1)), ledger);
}

function slursCost(
  problem: FingeringProblem,
  from: HandState,
  next: Moment,
  to: HandState,
  ledger?: Ledger,
): number {
  let sum = 0;
  for (const index of next.struck) {
    const source = problem.strikes[index]!.slurredFrom;
    if (source === null) continue;
    const a = from.placements[from.strikes.indexOf(source)];
    const b = to.placements[to.strikes.indexOf(index)];
    if (!a || !b) continue;
    if (!slurPlayable(a, b)) sum += paid('slurBroken', price(LEFT_TERMS.slurBroken, 1), ledger);
    else if (weakSlur(a, b)) sum += paid('slurWeak', price(LEFT_TERMS.slurWeak, 1), ledger);
  }
  return sum;
}

/** Hammer-on from open or a lower finger, pull-off to open or a lower finger, on one string. */
export function slurPlayable(a: Placement, b: Placement): boolean {
  if (a.string !== b.string || a.fret === b.fret) return false;
  return b.fret > a.fret ? b.finger > a.finger : b.finger < a.finger;
}

/** 3-4 and 2-4, up or down. */
const weakSlur = (a: Placement, b: Placement) =>
  Math.max(a.finger, b.finger) === 4 && Math.min(a.finger, b.finger) >= 2;

/** How the melody goes from string to string. Source: handbook, "What costs" (colour) and "Looking ahead". */
function lineCost(
  problem: FingeringProblem,
  from: HandState,
  next: Moment,
  to: HandState,
  ledger?: Ledger,
): number {
  let sum = 0;
  for (const index of next.struck) {
    const strike = problem.strikes[index]!;
    if (strike.lineFrom === null) continue;
    const a = from.placements[from.strikes.indexOf(strike.lineFrom)];
    const b = to.placements[to.strikes.indexOf(index)];
    if (!a || !b || a.string === b.string) continue;
    const semitones = strike.midi - problem.strikes[strike.lineFrom]!.midi;
    if (semitones > 0 === b.string > a.string) {
      sum += paid('crossedLine', price(LEFT_TERMS.crossedLine, 1), ledger);
    }
    const skipped = Math.abs(b.string - a.string) - 1;
    if (skipped > 0 && Math.abs(semitones) <= STEP_SEMITONES) {
      sum += paid('stringSkip', price(LEFT_TERMS.stringSkip, skipped), ledger);
    }
  }
  return sum;
}
