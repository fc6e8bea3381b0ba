/**
 * The left hand as an integer program, written down from the notes and the rules and solved by HiGHS, a
 * general-purpose solver: a second opinion that knows nothing of the planner's states, layers or messages. A column
 * says that a note lies at a place at a moment; rows say what one hand can do; pairs of columns carry the prices.
 *
 * Left out (their weights must be 0): what depends on the order of the hand's memory or on more than two places —
 * what carries a shift and how long it has, weak pairs in turn, barres by 2, 3 or 4, shapes under a barre.
 */
import { fingerDistanceMm, pairPlayable } from '../../src/core/fingering/left/rules/constraints';
import { chargeLine, chargeLineFinger } from '../../src/core/fingering/left/rules/connections';
import { chargeCut, maybeCut } from '../../src/core/fingering/left/rules/cuts';
import { hopMs } from '../../src/core/fingering/left/rules/fingers';
import { Bill, priceOf } from '../../src/core/fingering/left/rules/ledger';
import { placementsOf } from '../../src/core/fingering/left/rules/placements';
import { type LeftTermId } from '../../src/core/fingering/left/rules/terms';
import {
  CHANGED_IN_HURRY,
  INDEX_OPENS,
  LAST_SHARE,
  RELEASE_SHARE,
  WEAK_PAIR_MS,
} from '../../src/core/fingering/left/rules/shares';
import type { Ink } from '../../src/core/fingering/problem/ink';
import type { FingeringProblem, Moment } from '../../src/core/fingering/problem/problem';
import type { Placement } from '../../src/core/fingering/left/rules/place';
import { areApart, isSilent } from '../../src/core/fingering/problem/strike';
import { pairOf } from '../../src/core/instrument/handProfile';
import { gripsWhole, isPlaced, laidTogether, stopsSomething, wholeGrips, wholeNow } from './gripRows';
import { handWays } from './handPath';
import { indexFinger } from './indexFinger';
import { LinearProgram } from './linearProgram';
import { withoutBarre, withoutIndex } from './levelFingers';
import { taughtShape } from './taughtRows';

/** Terms that the program prices. All others must weigh nothing. */
export const PRICED_TERMS: readonly LeftTermId[] = [
  'stretch',
  'extension',
  'contraction',
  'order',
  'grip',
  'finger',
  'hop',
  'hopHaste',
  'lineHop',
  'lineSlide',
  'barre',
  'barreHold',
  'squeeze',
  'opening',
  'regrip',
  'highNote',
  'handOver',
  'cutMelody',
  'cutBass',
  'cutInner',
  'wound',
  'position',
  'crossedLine',
  'stringSkip',
  'placeChanged',
  'fingerChanged',
];

export interface Column {
  readonly name: string;
  readonly strike: number;
  readonly place: Placement;
}

/** The program in the LP format of the solver. */
export function integerProgram(problem: FingeringProblem, ink: Ink, barres: boolean): string {
  const model = new LinearProgram();
  leftHand(model, problem, ink, barres);
  return model.text();
}

/** Puts the left hand into a program; gives its columns by moment. */
export function leftHand(
  model: LinearProgram,
  problem: FingeringProblem,
  ink: Ink,
  barres: boolean,
): readonly (readonly Column[])[] {
  const columns = problem.moments.map((moment) => columnsAt(problem, moment, ink));
  for (const at of columns) for (const { name } of at) model.binaries.add(name);
  problem.moments.forEach((moment, k) => {
    oneHand(model, problem, moment, columns[k]!, barres);
    ownPrices(model, problem, moment, columns[k]!, barres);
    if (k > 0) {
      const way = { before: columns[k - 1]!, after: columns[k]!, next: moment, barres };
      heldNotes(model, problem, way);
      fingerWays(model, problem, way);
    }
  });
  const staying = handWays(model, problem, columns, barres);
  if (barres) indexFinger(model, problem, columns, staying);
  return columns;
}

function columnsAt(problem: FingeringProblem, moment: Moment, ink: Ink): readonly Column[] {
  return [...moment.held, ...moment.struck, ...moment.laid].flatMap((strike) => {
    const marks = problem.strikes[strike]!.uids.map((uid) => ink.get(uid)).find((one) => one !== undefined);
    // A mark binds the note where it is struck; a held note may pass to another finger.
    const binds = moment.struck.includes(strike);
    return placementsOf(problem, problem.strikes[strike]!)
      .filter(
        (place) =>
          !binds ||
          !marks ||
          ((marks.finger === null || marks.finger === place.finger) &&
            (marks.string === null || marks.string === place.string)),
      )
      .map((place) => ({
        name: `x_${moment.index}_${strike}_${place.string}_${place.fret}_${place.finger}`,
        strike,
        place,
      }));
  });
}

export const under = (columns: readonly Column[], finger: number) =>
  columns.filter(({ place }) => place.finger === finger);
export const of = (columns: readonly Column[], strike: number) =>
  columns.filter((one) => one.strike === strike);
export const sum = (columns: readonly Column[], factor = 1) =>
  columns.map(({ name }) => [factor, name] as const);

function oneHand(
  model: LinearProgram,
  problem: FingeringProblem,
  moment: Moment,
  columns: readonly Column[],
  barres: boolean,
) {
  for (const strike of moment.struck) {
    const somewhere = of(columns, strike);
    if (somewhere.length > 0) model.row(sum(somewhere), '=', 1);
    else model.impossible();
  }
  for (const strike of moment.held) model.row(sum(of(columns, strike)), '<=', 1);
  laidTogether(model, problem, moment, columns);
  columns.forEach((a, i) =>
    columns.slice(0, i).forEach((b) => {
      if (a.strike !== b.strike && !pairPlayable(a.place, b.place, problem.fretboard, problem.hand))
        model.row(sum([a, b]), '<=', 1);
    }),
  );
  if (!barres) return;
  // Under a barre nothing open sounds and nothing nutwards of it.
  const index = under(columns, 1);
  index.forEach((a, i) =>
    index.slice(0, i).forEach((b) => {
      if (a.strike === b.strike || a.place.fret !== b.place.fret) return;
      const [first, last] = [
        Math.min(a.place.string, b.place.string),
        Math.max(a.place.string, b.place.string),
      ];
      for (const c of columns) {
        if (c.place.string > first && c.place.string < last && c.place.fret < a.place.fret)
          model.row(sum([a, b, c]), '<=', 2);
      }
    }),
  );
}

function ownPrices(
  model: LinearProgram,
  problem: FingeringProblem,
  moment: Moment,
  columns: readonly Column[],
  barres: boolean,
) {
  const { weights, fretboard, hand } = problem;
  wholeGrips(model, problem, moment, columns);
  const placed = columns.filter(({ strike }) => isPlaced(moment, strike));
  for (const { name, place, strike } of placed) {
    if (place.finger === 0) continue;
    const unless = moment.taken.includes(strike) ? [wholeNow(problem, moment, strike)] : [];
    const { manner } = problem.strikes[strike]!;
    const wound = place.string >= 4 ? priceOf(weights, 'wound', place.fret) : 0;
    const high = manner !== 'slow' && manner !== 'quick' ? priceOf(weights, 'highNote', place.fret - 1) : 0;
    model.together(wound + high, [name], unless);
  }
  // A finger that stops placed notes counts once, whatever it bars.
  for (let finger = 1; finger <= 4; finger++) {
    const cost = priceOf(weights, 'grip', 1) + priceOf(weights, 'finger', finger);
    const used = `f_${moment.index}_${finger}`;
    if (under(placed, finger).length === 0 || cost === 0) continue;
    model.cost(cost, used);
    for (const { name, strike } of under(placed, finger)) {
      const whole = moment.taken.includes(strike) ? [[1, wholeNow(problem, moment, strike)] as const] : [];
      model.row([[1, used], [-1, name], ...whole], '>=', 0);
    }
  }
  const and = [stopsSomething(moment)];
  if (barres) return;
  const taught = taughtShape(model, moment, columns);
  withoutIndex(model, problem, columns, and);
  withoutBarre(model, problem, columns, { and, taught });
  columns.forEach((a) =>
    columns.forEach((b) => {
      const [low, high] = [a.place.finger, b.place.finger];
      if (low === 0 || high <= low || a.strike === b.strike) return;
      if (!pairPlayable(a.place, b.place, fretboard, hand)) return;
      const reach = hand.reach[pairOf(low, high)];
      const beyond = Math.max(0, fingerDistanceMm(a.place, b.place, fretboard) - reach.atEaseMm);
      const crossed = a.place.fret === b.place.fret && b.place.string > a.place.string;
      model.together(
        priceOf(weights, 'stretch', beyond / (reach.atMostMm - reach.atEaseMm)) +
          priceOf(weights, 'order', crossed ? 1 : 0),
        [a.name, b.name, ...and],
      );
      const more = b.place.fret - a.place.fret - (high - low);
      const spread =
        more > 0
          ? priceOf(weights, 'extension', more * (low === 1 ? INDEX_OPENS : 1))
          : priceOf(
              weights,
              'contraction',
              -more * (Math.abs(a.place.string - b.place.string) >= 4 ? 0.5 : 1),
            );
      const between = [2, 3].filter((finger) => finger > low && finger < high);
      model.together(
        spread,
        [a.name, b.name, ...and],
        [...between.flatMap((finger) => under(columns, finger).map(({ name }) => name)), ...taught],
      );
    }),
  );
}

/** A column that is 1 where one of some is. */
export function anyOf(model: LinearProgram, name: string, some: readonly Column[]): string {
  model.binaries.add(name);
  for (const one of some)
    model.row(
      [
        [1, name],
        [-1, one.name],
      ],
      '>=',
      0,
    );
  return name;
}

/** The columns of a moment and of the one before it. */
export interface Step {
  readonly before: readonly Column[];
  readonly after: readonly Column[];
  readonly next: Moment;
  readonly barres: boolean;
}

/** What is held stays on its spot, at most one note under another finger; what is let go is cut. */
function heldNotes(model: LinearProgram, problem: FingeringProblem, way: Step) {
  const { next, before, after } = way;
  for (const strike of next.held) {
    const passed = `h_${next.index}_${strike}`;
    model.binaries.add(passed);
    for (const here of of(after, strike)) staysOnSpot(model, here, of(before, strike), before, passed);
    heldPrices(model, problem, way, strike, passed);
    if (!isSilent(problem.strikes[strike]!, next.tick)) openStrings(model, way, strike);
    if (problem.strikes[strike]!.grip !== null) model.row([[1, passed]], '=', 0);
  }
  gripsWhole(model, problem, way);
  model.row(
    next.held.map((strike) => [1, `h_${next.index}_${strike}`] as const),
    '<=',
    1,
  );
}

/** What was let go does not come back; a finger that takes the note over was free. */
function staysOnSpot(
  model: LinearProgram,
  here: Column,
  was: readonly Column[],
  before: readonly Column[],
  passed: string,
) {
  const spot = was.filter(
    ({ place }) => place.string === here.place.string && place.fret === here.place.fret,
  );
  const same = spot.filter(({ place }) => place.finger === here.place.finger);
  model.row([[1, here.name], ...sum(spot, -1)], '<=', 0);
  model.row([[1, here.name], ...sum(same, -1), [-1, passed]], '<=', 0);
  for (const busy of under(before, here.place.finger)) {
    if (here.place.finger === 0 || same.includes(busy)) continue;
    model.row([[1, here.name], ...sum(same, -1), [1, busy.name]], '<=', 1);
  }
}

function heldPrices(
  model: LinearProgram,
  problem: FingeringProblem,
  { next, before, after }: Step,
  strike: number,
  passed: string,
) {
  const { strikes, weights } = problem;
  // What is lost with a silent note of a grip is paid for the grip.
  const cut = isSilent(strikes[strike]!, next.tick) ? null : maybeCut(problem, strikes[strike]!, next);
  if (!cut) return;
  model.cost(priceOf(weights, 'handOver', 1), passed);
  const bill = new Bill(problem, undefined);
  chargeCut(cut, bill);
  for (const { name } of of(before, strike)) model.cost(bill.sum, name);
  for (const { name } of of(after, strike)) model.cost(-bill.sum, name);
}

/** An open string sounds on until something lies on it. */
function openStrings(model: LinearProgram, { next, before, after, barres }: Step, strike: number) {
  const barre = barres ? [[-1, `B_${next.index}`] as const] : [];
  for (const open of of(before, strike).filter(({ place }) => place.finger === 0)) {
    const onString = after.filter(({ place }) => place.string === open.place.string);
    const stilled = onString.filter((one) => one.strike !== strike || one.place.finger === 0);
    model.row([[1, open.name], ...sum(stilled, -1), ...barre], '<=', 0);
  }
}

/** What fingers pay on their way, and notes for those that lead to them. */
function fingerWays(model: LinearProgram, problem: FingeringProblem, { before, after, next, barres }: Step) {
  const { strikes, weights, moments, reckoned } = problem;
  const stepMs = reckoned.spanMs(moments[next.index - 1]!.tick, next.tick);
  for (const a of before) {
    const { onsetTicks, endTicks, writtenEndTicks, grip } = strikes[a.strike]!;
    const end = Math.min(next.tick, grip === null ? endTicks : writtenEndTicks);
    const restMs = end < next.tick ? reckoned.spanMs(end, next.tick) : 0;
    const lastedMs = onsetTicks < end ? reckoned.spanMs(onsetTicks, end) : 0;
    const freeMs = Math.max(1, restMs, RELEASE_SHARE * stepMs, Math.min(stepMs, LAST_SHARE * lastedMs));
    for (const b of after) {
      const [p, q] = [a.place, b.place];
      const hops = !barres && p.finger > 0 && p.finger === q.finger && p.string !== q.string;
      const hop = hops
        ? priceOf(weights, 'hop', 1) + priceOf(weights, 'hopHaste', hopMs(problem, p, q) / freeMs)
        : 0;
      const placed = [...next.struck, ...next.laid].includes(b.strike);
      const linked = placed ? linkPrice(problem, a, b, next, stepMs) : 0;
      model.together(hop + linked, [a.name, b.name]);
    }
  }
}

/** One note of a voice after the other. */
function linePrice(a: Column, b: Column, { strikes }: FingeringProblem, bill: Bill) {
  const { role, manner, midi } = strikes[b.strike]!;
  const kind = role === 'melody' ? 'line' : 'bassLine';
  chargeLineFinger(a.place, b.place, { kind, slid: false, manner }, bill);
  if (kind === 'line') chargeLine(a.place, b.place, midi - strikes[a.strike]!.midi, manner, bill);
}

function linkPrice(problem: FingeringProblem, a: Column, b: Column, next: Moment, stepMs: number): number {
  const bill = new Bill(problem, undefined);
  const [p, q] = [a.place, b.place];
  const from = problem.strikes[a.strike]!;
  const { lineFrom, midi, voice, continues } = problem.strikes[b.strike]!;
  if (lineFrom === a.strike && next.struck.includes(b.strike) && !next.taken.includes(b.strike))
    linePrice(a, b, problem, bill);
  const apart = areApart(from, problem.strikes[b.strike]!);
  const sounds = from.writtenEndTicks >= next.tick && from.midi === midi && !apart;
  const again = sounds || a.strike === b.strike || continues === a.strike;
  const byAnother = sounds && from.voice !== voice;
  if (again && !(byAnother && p.string !== q.string)) {
    if (p.string !== q.string) bill.charge('placeChanged', 1);
    else if (p.finger !== q.finger)
      bill.charge('fingerChanged', 1 + CHANGED_IN_HURRY * Math.max(0, 1 - stepMs / WEAK_PAIR_MS));
  }
  return bill.sum;
}
