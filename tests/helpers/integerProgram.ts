/**
 * The left hand as an integer program, written down from the notes and the rules and solved by HiGHS, a
 * general-purpose solver: a second opinion that knows nothing of the planner's states, layers or messages. A column
 * says that a note lies at a place at a moment; rows say what one hand can do; pairs of columns carry the prices.
 *
 * Left out (their weights must be 0): what depends on the order of the hand's memory or on more than two places —
 * carriers of a shift, weak pairs in turn, barres by 2, 3 or 4, shapes under a barre.
 */
import { handWayFrets, handWayMm } from '../../src/core/fingering/left/handWay';
import { fingerDistanceMm, pairPlayable } from '../../src/core/fingering/left/constraints';
import { chargeLine, chargeLineHop } from '../../src/core/fingering/left/connectionCost';
import { chargeCut } from '../../src/core/fingering/left/cuts';
import { hopMs } from '../../src/core/fingering/left/hops';
import { Bill, priceOf } from '../../src/core/fingering/left/ledger';
import { placementsOf } from '../../src/core/fingering/left/placements';
import {
  BARRE_PREPARED_SHARE,
  BARRE_SIZE,
  INDEX_OPENS,
  type LeftTermId,
  RELEASE_SHARE,
  SQUEEZE_FRETS,
} from '../../src/core/fingering/left/terms';
import type { Ink } from '../../src/core/fingering/ink';
import type { FingeringProblem, Moment } from '../../src/core/fingering/problem';
import type { Placement } from '../../src/core/fingering/left/handState';
import { movementMs, pairOf } from '../../src/core/instrument/handProfile';

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
  'barre',
  'barreHold',
  'shift',
  'shiftHaste',
  'shiftTooFast',
  'squeeze',
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

interface Column {
  readonly name: string;
  readonly strike: number;
  readonly place: Placement;
}

const base = ({ fret, finger }: Placement) => fret - (finger - 1);
const NOWHERE = 'n';

class Model {
  private readonly costs = new Map<string, number>();
  readonly rows: string[] = [];
  readonly binaries = new Set<string>();
  private products = 0;

  /** "+ 3 x - y", as the LP format wants it. */
  row(terms: readonly (readonly [number, string])[], sense: '<=' | '>=' | '=', bound: number) {
    if (terms.length === 0) return;
    const sum = terms
      .map(([factor, name]) => `${factor < 0 ? '-' : '+'} ${Math.abs(factor)} ${name}`)
      .join(' ');
    this.rows.push(`r${this.rows.length}: ${sum} ${sense} ${bound}`);
  }

  /** A note that lies nowhere. */
  impossible() {
    this.row([[1, 'zero']], '=', 0);
    this.row([[1, 'zero']], '=', 1);
  }

  cost(amount: number, name: string) {
    this.costs.set(name, (this.costs.get(name) ?? 0) + amount);
  }

  /** Costs `amount` (at least 0) when all columns are 1 and none of `unless` is. */
  together(amount: number, columns: readonly string[], unless: readonly string[] = []) {
    if (amount === 0) return;
    const name = `u${this.products++}`;
    this.cost(amount, name);
    this.row(
      [[1, name], ...columns.map((one) => [-1, one] as const), ...unless.map((one) => [1, one] as const)],
      '>=',
      1 - columns.length,
    );
  }

  text(): string {
    // The solver takes the last of several factors of one column, so they are added up first.
    const objective = [...this.costs]
      .filter(([, amount]) => amount !== 0)
      .map(([name, amount]) => `${amount < 0 ? '-' : '+'} ${Math.abs(amount)} ${name}`);
    if (objective.length === 0) objective.push('0 zero');
    return `Minimize\n obj: ${objective.join(' ')}\nSubject To\n ${this.rows.join('\n ')}\nBinary\n ${[...this.binaries].join(' ')}\nEnd`;
  }
}

/** The program in the LP format of the solver. */
export function integerProgram(problem: FingeringProblem, ink: Ink, barres: boolean): string {
  const model = new Model();
  const columns = problem.moments.map((moment) => columnsAt(problem, moment, ink));
  for (const at of columns) for (const { name } of at) model.binaries.add(name);
  problem.moments.forEach((moment, k) => {
    oneHand(model, problem, moment, columns[k]!, barres);
    ownPrices(model, problem, moment, columns[k]!, barres);
    if (k > 0) step(model, problem, problem.moments[k - 1]!, moment, columns[k - 1]!, columns[k]!, barres);
  });
  handWays(model, problem, columns);
  if (barres) indexFinger(model, problem, columns);
  return model.text();
}

function columnsAt(problem: FingeringProblem, moment: Moment, ink: Ink): readonly Column[] {
  return [...moment.held, ...moment.struck].flatMap((strike) => {
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

const under = (columns: readonly Column[], finger: number) =>
  columns.filter(({ place }) => place.finger === finger);
const of = (columns: readonly Column[], strike: number) => columns.filter((one) => one.strike === strike);
const sum = (columns: readonly Column[], factor = 1) => columns.map(({ name }) => [factor, name] as const);

function oneHand(
  model: Model,
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
  model: Model,
  problem: FingeringProblem,
  moment: Moment,
  columns: readonly Column[],
  barres: boolean,
) {
  const { weights, fretboard, hand } = problem;
  const struck = columns.filter(({ strike }) => moment.struck.includes(strike));
  for (const { name, place } of struck) {
    if (place.finger > 0 && place.string >= 4) model.cost(priceOf(weights, 'wound', place.fret), name);
  }
  // A finger that stops struck notes counts once, whatever it bars.
  for (let finger = 1; finger <= 4; finger++) {
    const cost = priceOf(weights, 'grip', 1) + priceOf(weights, 'finger', finger);
    const used = `f_${moment.index}_${finger}`;
    if (under(struck, finger).length === 0 || cost === 0) continue;
    model.cost(cost, used);
    for (const { name } of under(struck, finger))
      model.row(
        [
          [1, used],
          [-1, name],
        ],
        '>=',
        0,
      );
  }
  if (barres) return;
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
        [a.name, b.name],
      );
      const more = b.place.fret - a.place.fret - (high - low);
      const spread =
        more > 0
          ? priceOf(weights, 'extension', more * (low === 1 ? INDEX_OPENS : 1))
          : priceOf(weights, 'contraction', -more);
      const between = [2, 3].filter((finger) => finger > low && finger < high);
      model.together(
        spread,
        [a.name, b.name],
        between.flatMap((finger) => under(columns, finger).map(({ name }) => name)),
      );
    }),
  );
}

function step(
  model: Model,
  problem: FingeringProblem,
  moment: Moment,
  next: Moment,
  before: readonly Column[],
  after: readonly Column[],
  barres: boolean,
) {
  const { strikes, weights } = problem;
  const stepMs = problem.spans.spanMs(moment.tick, next.tick);
  const handedOver: (readonly [number, string])[] = [];
  for (const strike of next.held) {
    const again = next.struck.some((other) => strikes[other]!.midi === strikes[strike]!.midi);
    const [was, is] = [of(before, strike), of(after, strike)];
    // What was let go does not come back, and what is held stays on its spot.
    const passed = `h_${next.index}_${strike}`;
    model.binaries.add(passed);
    handedOver.push([1, passed]);
    for (const here of is) {
      const spot = was.filter(
        ({ place }) => place.string === here.place.string && place.fret === here.place.fret,
      );
      const same = spot.filter(({ place }) => place.finger === here.place.finger);
      model.row([[1, here.name], ...sum(spot, -1)], '<=', 0);
      model.row([[1, here.name], ...sum(same, -1), [-1, passed]], '<=', 0);
      // The finger that takes it over was free.
      for (const busy of under(before, here.place.finger)) {
        if (here.place.finger === 0 || same.includes(busy)) continue;
        model.row([[1, here.name], ...sum(same, -1), [1, busy.name]], '<=', 1);
      }
    }
    if (!again) {
      model.cost(priceOf(weights, 'handOver', 1), passed);
      const bill = new Bill(weights, undefined);
      chargeCut(problem, strikes[strike]!, next.tick, bill);
      for (const { name } of was) model.cost(bill.sum, name);
      for (const { name } of is) model.cost(-bill.sum, name);
    }
    // An open string sounds on until something lies on it.
    for (const open of was.filter(({ place }) => place.finger === 0)) {
      const still = is.filter(({ place }) => place.finger === 0 && place.string === open.place.string);
      const onIt = after.filter(
        ({ strike: other, place }) => other !== strike && place.string === open.place.string,
      );
      const barre = barres ? [[-1, `B_${next.index}`] as const] : [];
      model.row([[1, open.name], ...sum(still, -1), ...sum(onIt, -1), ...barre], '<=', 0);
    }
  }
  model.row(handedOver, '<=', 1);

  for (const a of before) {
    const endTicks = strikes[a.strike]!.endTicks;
    const restMs = endTicks < next.tick ? problem.spans.spanMs(endTicks, next.tick) : 0;
    const freeMs = Math.max(1, restMs, RELEASE_SHARE * stepMs);
    for (const b of after) {
      let cost = 0;
      const [p, q] = [a.place, b.place];
      if (!barres && p.finger > 0 && p.finger === q.finger && p.string !== q.string) {
        cost += priceOf(weights, 'hop', 1) + priceOf(weights, 'hopHaste', hopMs(problem, p, q) / freeMs);
      }
      if (next.struck.includes(b.strike)) {
        const bill = new Bill(weights, undefined);
        const { lineFrom, midi, role } = strikes[b.strike]!;
        if (lineFrom === a.strike) {
          chargeLineHop(p, q, bill);
          if (role === 'melody') chargeLine(p, q, midi - strikes[a.strike]!.midi, bill);
        }
        if (endTicks >= next.tick && strikes[a.strike]!.midi === midi) {
          if (p.string !== q.string) bill.charge('placeChanged', 1);
          else if (p.finger !== q.finger) bill.charge('fingerChanged', 1);
        }
        cost += bill.sum;
      }
      model.together(cost, [a.name, b.name]);
    }
  }
}

/** Where the hand stands: least and greatest place of finger 1, and since when it has been free. */
interface Stand {
  readonly name: string;
  readonly low: number;
  readonly high: number;
  /** Moment in which it was last held; −1: it never was. */
  readonly heldAt: number;
}

/** The hand as a path over the places where it can stand; a free hand stays where it was, and gains time. */
function handWays(model: Model, problem: FingeringProblem, columns: readonly (readonly Column[])[]) {
  let before: readonly Stand[] = [];
  problem.moments.forEach((moment, k) => {
    const at = columns[k]!;
    const stopped = at.filter(({ place }) => place.finger > 0);
    const bases = [...new Set(stopped.map(({ place }) => base(place)))];
    const held = bases.flatMap((low) =>
      bases
        .filter((high) => high >= low)
        .map((high): Stand => ({ name: `s_${k}_${code(low)}_${code(high)}`, low, high, heldAt: k })),
    );
    const freed = (k === 0 ? [{ low: 0, high: 0, heldAt: -1, name: '' }] : before).map((stand): Stand => ({
      ...stand,
      name: `s_${k}_${code(stand.low)}_${code(stand.high)}_${stand.heldAt < 0 ? NOWHERE : stand.heldAt}`,
    }));
    const stands = [...held, ...freed];
    for (const { name } of stands) model.binaries.add(name);
    model.row(
      stands.map(({ name }) => [1, name] as const),
      '=',
      1,
    );
    for (const { name, low, high, heldAt } of stands) {
      if (heldAt !== k) {
        for (const column of stopped)
          model.row(
            [
              [1, name],
              [1, column.name],
            ],
            '<=',
            1,
          );
        continue;
      }
      model.row([[-1, name], ...sum(stopped.filter(({ place }) => base(place) === low))], '>=', 0);
      model.row([[-1, name], ...sum(stopped.filter(({ place }) => base(place) === high))], '>=', 0);
      for (const column of stopped)
        if (base(column.place) < low || base(column.place) > high)
          model.row(
            [
              [1, name],
              [1, column.name],
            ],
            '<=',
            1,
          );
      const position = priceOf(problem.weights, 'position', high);
      for (const column of stopped.filter(({ strike }) => moment.struck.includes(strike)))
        model.together(position, [name, column.name]);
    }
    if (k > 0) {
      const ways = before.flatMap((from) =>
        stands
          .filter(
            (to) =>
              to.heldAt === k || (to.heldAt === from.heldAt && to.low === from.low && to.high === from.high),
          )
          .map((to) => ({ from, to, name: `w_${from.name}_${to.name}` })),
      );
      for (const from of before)
        model.row(
          [[-1, from.name], ...ways.filter((way) => way.from === from).map(({ name }) => [1, name] as const)],
          '=',
          0,
        );
      for (const to of stands)
        model.row(
          [[-1, to.name], ...ways.filter((way) => way.to === to).map(({ name }) => [1, name] as const)],
          '=',
          0,
        );
      for (const { from, to, name } of ways)
        model.cost(to.heldAt === k ? wayCost(problem, from, moment, to) : 0, name);
    }
    before = stands;
  });
}

const code = (fret: number) => (fret < 0 ? `m${-fret}` : `${fret}`);

/** Only for music without rests: what holds the hand goes on until the next moment. */
function wayCost(problem: FingeringProblem, from: Stand, next: Moment, to: Stand): number {
  if (from.heldAt < 0) return 0;
  const { weights, hand, fretboard, moments, spans } = problem;
  const mm = handWayMm(from, to, fretboard);
  if (handWayFrets(from, to) <= SQUEEZE_FRETS) return priceOf(weights, 'squeeze', mm);
  const freedTick = moments[from.heldAt + 1]!.tick;
  const windowMs = Math.max(
    spans.spanMs(freedTick, next.tick),
    RELEASE_SHARE * spans.spanMs(moments[next.index - 1]!.tick, next.tick),
  );
  const share = movementMs(mm, hand) / Math.max(1, windowMs);
  return (
    priceOf(weights, 'shift', 1) +
    priceOf(weights, 'shiftHaste', share) +
    priceOf(weights, 'shiftTooFast', share)
  );
}

/** Finger 1 as a path over what it does: nothing, a tip on a fret, a barre. */
interface IndexGrip {
  readonly name: string;
  readonly fret: number;
  readonly first: number;
  readonly last: number;
}

function indexFinger(model: Model, problem: FingeringProblem, columns: readonly (readonly Column[])[]) {
  let before: readonly IndexGrip[] = [{ name: '', fret: -1, first: 0, last: 0 }];
  columns.forEach((at, k) => {
    const index = under(at, 1);
    const frets = [...new Set(index.map(({ place }) => place.fret))];
    const grips: IndexGrip[] = [{ name: `g_${k}_none`, fret: -1, first: 0, last: 0 }];
    for (const fret of frets)
      for (let first = 1; first <= 6; first++)
        for (let last = first; last <= Math.min(6, first + problem.hand.barreStringsAtMost - 1); last++)
          grips.push({ name: `g_${k}_${fret}_${first}_${last}`, fret, first, last });
    for (const { name } of grips) model.binaries.add(name);
    model.row(
      grips.map(({ name }) => [1, name] as const),
      '=',
      1,
    );
    const onString = (grip: IndexGrip, string: number) =>
      index.filter(({ place }) => place.fret === grip.fret && place.string === string);
    for (const grip of grips) {
      if (grip.fret < 0)
        for (const { name } of index)
          model.row(
            [
              [1, grip.name],
              [1, name],
            ],
            '<=',
            1,
          );
      else {
        // It begins and ends where notes lie under it.
        model.row([[-1, grip.name], ...sum(onString(grip, grip.first))], '>=', 0);
        model.row([[-1, grip.name], ...sum(onString(grip, grip.last))], '>=', 0);
        for (const { name, place } of index)
          if (place.fret !== grip.fret || place.string < grip.first || place.string > grip.last)
            model.row(
              [
                [1, grip.name],
                [1, name],
              ],
              '<=',
              1,
            );
      }
    }
    const bars = grips.filter((grip) => grip.last > grip.first);
    model.binaries.add(`B_${k}`);
    model.row([[-1, `B_${k}`], ...bars.map(({ name }) => [1, name] as const)], '=', 0);
    for (const bar of bars)
      model.cost(priceOf(problem.weights, 'barreHold', BARRE_SIZE[bar.last - bar.first + 1]!), bar.name);
    const ways = before.flatMap((from) =>
      grips.map((to) => ({ from, to, name: `b_${k}_${from.name}_${to.name}` })),
    );
    if (k === 0) {
      for (const bar of bars) model.cost(layingCost(problem, null, bar), bar.name);
    } else {
      for (const from of before)
        model.row(
          [[-1, from.name], ...ways.filter((way) => way.from === from).map(({ name }) => [1, name] as const)],
          '=',
          0,
        );
      for (const to of grips)
        model.row(
          [[-1, to.name], ...ways.filter((way) => way.to === to).map(({ name }) => [1, name] as const)],
          '=',
          0,
        );
      for (const { from, to, name } of ways)
        if (to.last > to.first) model.cost(layingCost(problem, from, to), name);
    }
    before = grips;
  });
}

function layingCost(problem: FingeringProblem, from: IndexGrip | null, to: IndexGrip): number {
  const full = priceOf(problem.weights, 'barre', to.fret) * BARRE_SIZE[to.last - to.first + 1]!;
  const lies = from !== null && from.fret === to.fret;
  const barred = lies && from.last > from.first;
  if (barred && from.first <= to.first && from.last >= to.last) return 0;
  const share = barred ? BARRE_PREPARED_SHARE.smallerBarre : lies ? BARRE_PREPARED_SHARE.finger : 1;
  return Math.round(full * share);
}
