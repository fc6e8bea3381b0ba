/**
 * Both hands together: the least of what the left hand costs and what the right hand costs on its strings. Prices on
 * the strings make the two hands agree (`agreement.ts`) and give a bound; where a plan costs no more than the bound
 * it is the best. Otherwise both are planned together on all states through which something could cost less.
 */
import { placeAt } from '../left/lattice/stateRows';
import type { Column } from '../solver/column';
import type { Ink } from '../problem/ink';
import { restOn } from '../solver/jumps';
import { bestPath, UNREACHABLE } from '../solver/lattice';
import { NO_PLACE, placeId, type Placement } from '../left/rules/place';
import type { HandState } from '../left/rules/handState';
import type { Played } from '../right/rules/memory';
import type { HandLayer } from '../left/lattice/handLayer';
import type { LeftSolved } from '../left/lattice/leftLattice';
import type { LeftConflict } from '../left/lattice/planLeft';
import type { FingeringProblem } from '../problem/problem';
import { liftedGroup, sharingsOf, type StrokeGroup } from '../right/rules/strokes';
import type { Pluck } from '../../score/model';
import type { RightSetting } from '../right/rules/setting';
import { StrokeStore } from '../right/lattice/strokeStore';
import { DualAscent, type Bound, type Hands, wholeTenths } from './dualAscent';
import { belowColumn, PARTS, statesBelow, throughStates } from './bound';
import { type Found, LettersOn } from './lettersOn';
import { askBoth, type Question, QuestionColumns } from './question';
import { Together } from './together';

/**
 * How much above the bound, in tenths of a point, is planned together first; doubled until nothing cheaper can be
 * outside. Far from an edit the same states are below the same threshold, so that what was made of them is found again.
 */
const FIRST_ABOVE = 16;
/** Multipliers of an earlier question are raised anew when so much above the bound does not do. */
const MOST_BEFORE_ASCENT = 64;
/** A moment with more states, or a piece with more pairs of them, is not planned together. From memory. */
const MOST_STATES = 900;
const MOST_PAIRS = 6_000_000;

export interface BothHands extends Hands {
  readonly cost: number;
  readonly lowerBound: number;
  readonly conflicts: readonly LeftConflict[];
}

/** A left hand that can be asked for its lattice around some ink. */
export interface LeftHand {
  /** Null where nothing of its states is left. */
  solve(ink: Ink): LeftSolved | null;
  conflictsOf(layers: readonly HandLayer[]): readonly LeftConflict[];
}

/** See `JointPlanner.leastThrough`; in tenths of a point. */
export interface LeastThrough {
  readonly layers: readonly HandLayer[];
  readonly least: number;
  readonly through: readonly Float64Array[];
  /** Notes whose letters, when they are inked, allow the right hand what it would not do by itself. */
  readonly filtered: ReadonlySet<string>;
}

/** What was planned together so far above the bound. */
interface Region {
  readonly together: Together;
  readonly below: Column<readonly number[]>;
}

/** Whether two hands are what is asked for. */
type Meant = readonly [hand: HandState, played: Played, group: StrokeGroup];
type IsMeant<T> = (asked: T, ...both: Meant) => boolean;

interface Proof {
  readonly best: Found;
  readonly lowerBound: number;
}

export class JointPlanner {
  private readonly store: StrokeStore;
  private readonly columns = new QuestionColumns();
  private readonly ascent: DualAscent;
  private question: Question | null = null;
  private latest: Found | null = null;
  private readonly lettersOn: LettersOn;
  private readonly regions = new Map<number, Region>();

  constructor(
    private readonly problem: FingeringProblem,
    private readonly left: LeftHand,
    private readonly setting: RightSetting,
  ) {
    this.store = new StrokeStore(problem.hand);
    this.ascent = new DualAscent(problem);
    this.lettersOn = new LettersOn(problem, this.store);
  }

  plan(ink: Ink): BothHands {
    return this.maybePlan(ink)!;
  }

  /** Null where nothing costs less than the limit, or where the left hand, on a part of its states, has no answer. */
  maybePlan(ink: Ink, limit = UNREACHABLE): BothHands | null {
    const left = this.left.solve(ink);
    if (!left || left.cost >= limit) return null;
    const { problem, setting, store, columns } = this;
    const question = askBoth({ problem, setting, store, columns }, left, ink, this.question);
    this.question = question;
    const kept = this.ascent.again(question);
    let best = (kept && this.onBound(question, kept)) ?? this.onLeft(question);
    if (kept && kept.cost >= limit) return null;
    let proof = kept && this.prove(question, kept, best, { mostAbove: MOST_BEFORE_ASCENT, limit });
    best = proof?.best ?? best;
    if (!proof || proof.lowerBound < Math.min(limit, best.cost)) {
      // The multipliers start from the left hand's own strings, whatever was asked before.
      const own = this.onLeft(question);
      best = cheaper(best, own);
      const bound = this.ascent.anew(question, own.cost, () => this.lettersOn.efforts());
      const known = cheaper(best, this.onBound(question, bound));
      if (bound.cost >= limit) return null;
      proof = this.prove(question, bound, this.onNodes(question, bound, known), {
        mostAbove: Infinity,
        limit,
      });
      best = proof.best;
    }
    this.latest = best;
    return best.cost < limit ? this.answer(best, proof.lowerBound) : null;
  }

  /** What the last plan costs, with what is left out of it. */
  get lastCost(): number {
    return this.latest!.cost;
  }

  /**
   * By moment and state of the left hand: what any plan through it costs at least, with whatever ink is added, but for
   * letters that lift a filter; about the last plan. Null where strokes had to be left out of it.
   */
  leastThrough(): LeastThrough | null {
    if (this.latest!.leftOutCost > 0) return null;
    const { core, left, strokes } = this.question!;
    const { left: leftBound, right: rightBound } = this.ascent.latest!;
    const filtered = core.flatMap(({ variants }, k) =>
      variants.every(isUnfiltered) ? [] : this.problem.moments[k]!.struck,
    );
    return {
      layers: left.layers,
      least: wholeTenths(leftBound.cost + rightBound.cost),
      through: core.map((moment, k) =>
        throughStates(moment, strokes[k + 1]!, k, leftBound, rightBound).map((cost) =>
          cost >= UNREACHABLE ? UNREACHABLE : wholeTenths(cost),
        ),
      ),
      filtered: new Set(filtered.flatMap((strike) => this.problem.strikes[strike]!.uids)),
    };
  }

  private answer({ states, played, cost, leftOutCost }: Found, lowerBound: number): BothHands {
    return {
      states,
      played,
      cost: cost - leftOutCost,
      lowerBound: lowerBound - leftOutCost,
      conflicts: this.left.conflictsOf(this.question!.left.layers),
    };
  }

  /**
   * For every string and finger of a strike: what the best plan of both hands that contains it costs more, at least. Read
   * off the bound of the last plan; nearly always what it really costs.
   */
  boundsFor(strike: number): ReadonlyMap<number, number> {
    const { question, latest } = this;
    const bound = this.ascent.latest;
    const k = this.momentOf(strike);
    const least = new Map<number, number>();
    if (!question || !latest || !bound) return least;
    const moment = question.core[k]!;
    const column = moment.layer.strikes.indexOf(strike);
    if (column < 0) return least;
    const through = throughStates(moment, question.strokes[k + 1]!, k, bound.left, bound.right);
    const { rows } = moment.layer;
    for (let s = 0; s < rows.count; s++) {
      const place = placeAt(rows, s, column);
      if (place === NO_PLACE || through[s]! >= UNREACHABLE) continue;
      const code = place;
      const extra = Math.max(0, wholeTenths(through[s]!) - latest.cost);
      if (extra < (least.get(code) ?? Infinity)) least.set(code, extra);
    }
    return least;
  }

  /** By place: the best plan in which a strike lies there; see `cheapestWith`. */
  withPlaces(strike: number, places: readonly Placement[]): readonly (BothHands | null)[] {
    return this.cheapestWith(this.momentOf(strike), places, (place, { strikes, placements }) => {
      const lies = placements[strikes.indexOf(strike)];
      return lies !== undefined && placeId(lies) === placeId(place);
    });
  }

  /** The same by letter. */
  withLetters(strike: number, letters: readonly Pluck[]): readonly (BothHands | null)[] {
    const k = this.momentOf(strike);
    if (!this.question!.core[k]!.variants.every(isUnfiltered)) return letters.map(() => null);
    return this.cheapestWith(
      k,
      letters,
      (letter, _hand, played, { strokes }) =>
        played.letters[strokes.findIndex((stroke) => stroke.strike === strike)] === letter,
    );
  }

  private momentOf(strike: number): number {
    return this.problem.moments.findIndex(({ struck }) => struck.includes(strike));
  }

  /**
   * By what is asked: the best plan in which moment k is so, with exact cost; null where it is dearer than is looked at.
   * About the last plan. All of it comes from one joint lattice.
   */
  private cheapestWith<T>(
    k: number,
    asked: readonly T[],
    isMeant: IsMeant<T>,
  ): readonly (BothHands | null)[] {
    const { question, latest } = this;
    const { left, right } = this.ascent.latest!;
    const within = this.within(CHOICES);
    let above = this.problem.passes.returns.length > 0 ? CHOICES_ABOVE / 2 : CHOICES_ABOVE;
    let most = 0;
    let states: ReturnType<typeof statesBelow>;
    do {
      most = left.cost + right.cost + above * PARTS;
      states = statesBelow(question!.core, question!.strokes, { left, right, most }, within.below);
      above /= 2;
    } while (tooMany(states) && above > 1);
    if (tooMany(states)) return asked.map(() => null);
    within.together.cheapest(question!, states, latest!);
    within.together.raise();
    const limit = wholeTenths(most);
    return asked.map((one) => {
      const meant = (...both: Meant) => isMeant(one, ...both);
      const found = within.together.cheapestWith(question!, k, meant, limit);
      return found && this.answer(found, found.cost);
    });
  }

  /**
   * After an answer, while nobody asks: makes what most edits need and the last question may have done without, so that
   * the first edit need not wait for it.
   */
  prepare(): void {
    const { question, latest } = this;
    const bound = this.ascent.latest;
    if (!question || !latest || !bound) return;
    const { left, right } = bound;
    const here = this.within(FIRST_ABOVE);
    const most = left.cost + right.cost + FIRST_ABOVE * PARTS;
    const states = statesBelow(question.core, question.strokes, { left, right, most }, here.below);
    if (!tooMany(states)) here.together.cheapest(question, states, latest);
  }

  /** A better plan makes the rest narrower: the best on the nodes of the core is found quickly. */
  private onNodes(question: Question, bound: Bound, known: Found): Found {
    if (known.cost - bound.cost <= MOST_BEFORE_ASCENT) return known;
    const nodes = question.near.map(({ states }) => states);
    return this.within(ON_NODES).together.cheapest(question, nodes, known);
  }

  /**
   * Plans both hands together on all states through which a plan could cost so much above the bound, more and more of
   * them, until nothing cheaper can be outside. Where that would be too many the bound stays below the cost.
   */
  private prove(
    question: Question,
    bound: Bound,
    known: Found,
    { mostAbove, limit }: { readonly mostAbove: number; readonly limit: number },
  ): Proof {
    const { core, strokes } = question;
    const { left, right } = bound;
    const least = left.cost + right.cost;
    let best = known;
    const wanted = () => Math.min(limit, best.cost);
    for (let above = 0, most = least; most < below(wanted());) {
      const gap = wanted() - wholeTenths(least);
      above = above === 0 ? aboveFor(gap) : widened(above, gap);
      most = least + above * PARTS;
      const here = this.within(above);
      const states = statesBelow(core, strokes, { left, right, most }, here.below);
      if (above > mostAbove || tooMany(states)) return { best, lowerBound: wholeTenths(least) };
      best = here.together.cheapest(question, states, best);
    }
    return { best, lowerBound: wanted() };
  }

  /** Thresholds are not asked for in turns: each finds what was made for it. */
  private within(above: number): Region {
    let found = this.regions.get(above);
    if (!found) {
      const together = new Together(this.problem, this.setting, this.store);
      this.regions.set(above, (found = { together, below: belowColumn() }));
    }
    return found;
  }

  /** The plan on the strings that the left hand would choose by itself. */
  private onLeft(question: Question): Found {
    const { path, cost } = question.left;
    return this.lettersOn.found(question, path, cost)!;
  }

  /** The plan on the strings of the bound's left hand; null where they are not in the core. */
  private onBound(question: Question, { left, paid }: Bound): Found | null {
    const path = bestPath(left);
    const paidOnIt = path.reduce((sum, s, k) => sum + paid[k]![s]!, 0);
    const cost = (left.cost - paidOnIt) / PARTS + restOn(question.left.jumps, path);
    return this.lettersOn.found(question, path, cost);
  }
}

const cheaper = (known: Found, found: Found | null) => (found && found.cost < known.cost ? found : known);

/** Whether a letter that is asked for leaves it the sharings that it has: in chords it lifts a filter. */
const isUnfiltered = (group: StrokeGroup) =>
  group.lifted ||
  group.strokes.length < 2 ||
  sharingsOf(group).length === sharingsOf(liftedGroup(group)).length;

/** Instead of a threshold: on the nodes of the core, and as choices are priced. */
const ON_NODES = 0;
const CHOICES = -1;
/**
 * Choices that are so much dearer, in tenths of a point, are priced on one joint lattice; those beyond are planned one
 * by one. From memory: twice as much takes four times as long; with ways back half as much.
 */
const CHOICES_ABOVE = 128;

/** Region enough for a gap between cost and bound, where that is not too much at once. */
function aboveFor(gap: number): number {
  let above = FIRST_ABOVE;
  while (above < gap && above < MOST_BEFORE_ASCENT) above *= 2;
  return above;
}

/** Twice the threshold, but not more than the gap asks for. */
function widened(above: number, gap: number): number {
  const enough = FIRST_ABOVE * Math.ceil(gap / FIRST_ABOVE);
  return enough > above ? Math.min(2 * above, enough) : 2 * above;
}

/** In parts: below this lies what could be cheaper, since costs are whole. */
const below = (cost: number) => PARTS * (cost - 1) + 1;

/** So many states at one moment, or in all, are not planned together: it would take too long. */
const tooMany = (states: readonly (readonly number[])[]) =>
  states.some((some) => some.length > MOST_STATES) ||
  states.reduce((sum, some) => sum + some.length * some.length, 0) > MOST_PAIRS;
