/**
 * Both hands together: the least of what the left hand costs and what the right hand costs on its strings. Prices on
 * the strings make the two hands agree (`agreement.ts`) and give a bound; where a plan costs no more than the bound
 * it is the best. Otherwise both are planned together on all states through which something could cost less.
 */
import { placeAt } from '../left/lattice/stateRows';
import type { Column } from '../solver/column';
import type { Ink } from '../problem/ink';
import { bestPath, UNREACHABLE } from '../solver/lattice';
import { NO_PLACE } from '../left/rules/place';
import type { LeftConflict, LeftPlanner } from '../left/lattice/planLeft';
import { exploreReturns, returnExtras } from '../left/lattice/returns';
import type { FingeringProblem } from '../problem/problem';
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

/** What was planned together so far above the bound. */
interface Region {
  readonly together: Together;
  readonly below: Column<readonly number[]>;
}

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
    private readonly left: LeftPlanner,
    private readonly setting: RightSetting,
  ) {
    this.store = new StrokeStore(problem.hand);
    this.ascent = new DualAscent(problem);
    this.lettersOn = new LettersOn(problem, this.store);
  }

  plan(ink: Ink): BothHands {
    const left = this.left.solve(ink);
    const { problem, setting, store, columns } = this;
    const question = askBoth({ problem, setting, store, columns }, left, ink, this.question);
    this.question = question;
    const kept = this.ascent.again(question);
    let best = (kept && this.onBound(question, kept)) ?? this.onLeft(question);
    let proof = kept && this.prove(question, kept, best, MOST_BEFORE_ASCENT);
    best = proof?.best ?? best;
    if (!proof || proof.lowerBound < best.cost) {
      // The multipliers start from the left hand's own strings, whatever was asked before.
      const own = this.onLeft(question);
      best = cheaper(best, own);
      const bound = this.ascent.anew(question, own.cost, () => this.lettersOn.efforts());
      const known = cheaper(best, this.onBound(question, bound));
      proof = this.prove(question, bound, this.onNodes(question, bound, known), Infinity);
      best = proof.best;
    }
    const { lowerBound } = proof;
    this.latest = best;
    return {
      states: best.states,
      played: best.played,
      cost: best.cost - best.leftOutCost,
      lowerBound: lowerBound - best.leftOutCost,
      conflicts: this.left.conflictsOf(left.layers),
    };
  }

  /**
   * For every string and finger of a strike: what the best plan of both hands that contains it costs more, at least. Read
   * off the bound of the last plan; nearly always what it really costs.
   */
  boundsFor(strike: number): ReadonlyMap<number, number> {
    const { question, latest } = this;
    const bound = this.ascent.latest;
    const k = this.problem.moments.findIndex(({ struck }) => struck.includes(strike));
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

  /**
   * After an answer, while nobody asks: makes what most edits need and the last question may have done without, so that
   * the first edit need not wait for it.
   */
  prepare(): void {
    const { question, latest } = this;
    const bound = this.ascent.latest;
    if (!question || !latest || !bound || this.problem.passes.returns.length > 0) return;
    const { left, right } = bound;
    const here = this.within(FIRST_ABOVE);
    const most = left.cost + right.cost + FIRST_ABOVE * PARTS;
    const states = statesBelow(question.core, question.strokes, { left, right, most }, here.below);
    if (!tooMany(states)) here.together.cheapest(question, states, question.left.solution.extras, latest);
  }

  /** A better plan makes the rest narrower: the best on the nodes of the core is found quickly. */
  private onNodes(question: Question, bound: Bound, known: Found): Found {
    if (known.cost - bound.cost <= MOST_BEFORE_ASCENT) return known;
    const { left } = question;
    const nodes = question.near.map(({ states }) => states);
    return this.within(ON_NODES).together.cheapest(question, nodes, left.solution.extras, known);
  }

  /**
   * Plans both hands together on all states through which a plan could cost so much above the bound, more and more of
   * them, until nothing cheaper can be outside. Where that would be too many the bound stays below the cost.
   */
  private prove(question: Question, bound: Bound, known: Found, mostAbove: number): Proof {
    const { left, core, strokes } = question;
    const { right } = bound;
    let best = known;
    let lowerBound = UNREACHABLE;
    exploreReturns(
      this.problem,
      { layers: left.layers, masks: left.masks, chain: bound.left, extras: bound.paid, scale: PARTS },
      {
        limit: () => below(best.cost) - right.cost,
        visit: (fixed) => {
          const least = fixed.solution.cost + right.cost;
          const extras = returnExtras(this.problem, left.layers, fixed.states);
          for (
            let above = aboveFor(best.cost - wholeTenths(least));
            ;
            above = widened(above, best.cost - wholeTenths(least))
          ) {
            const here = this.within(above);
            const most = least + above * PARTS;
            const limit = { left: fixed.solution, right, most };
            const states = statesBelow(core, strokes, limit, here.below);
            if (above > mostAbove || tooMany(states)) {
              lowerBound = Math.min(lowerBound, wholeTenths(least));
              return;
            }
            best = here.together.cheapest(question, states, extras, best);
            if (most >= below(best.cost)) return;
          }
        },
      },
    );
    return { best, lowerBound: Math.min(lowerBound, best.cost) };
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
    const { solution } = question.left;
    return this.lettersOn.found(question, bestPath(solution), solution.cost)!;
  }

  /** The plan on the strings of the bound's left hand; null where they are not in the core, or ways back are priced. */
  private onBound(question: Question, { left, paid }: Bound): Found | null {
    if (this.problem.passes.returns.length > 0) return null;
    const path = bestPath(left);
    const paidOnIt = path.reduce((sum, s, k) => sum + paid[k]![s]!, 0);
    return this.lettersOn.found(question, path, (left.cost - paidOnIt) / PARTS);
  }
}

const cheaper = (known: Found, found: Found | null) => (found && found.cost < known.cost ? found : known);

/** Instead of a threshold: on the nodes of the core. */
const ON_NODES = 0;

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
