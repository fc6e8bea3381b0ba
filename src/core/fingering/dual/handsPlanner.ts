/**
 * Both hands of one piece, asked again and again under changing ink. Ink takes states away and makes nothing cheaper, so
 * what a plan through a state costs at least without ink holds with any: while there is time, the states through which
 * nothing good goes are dropped, and edits are planned on the rest. What is found there is the best of all as long as it
 * costs less than anything outside could; otherwise more states are kept, at last all of them.
 */
import type { NarrowLeft, LeftPlanner } from '../left/lattice/planLeft';
import { placeAt } from '../left/lattice/stateRows';
import type { Placement } from '../left/rules/place';
import { placeId } from '../left/rules/place';
import type { LeftCandidate } from '../left/lattice/candidates';
import { type Ink, NO_INK } from '../problem/ink';
import { UNREACHABLE } from '../solver/lattice';
import type { FingeringProblem } from '../problem/problem';
import type { RightSetting } from '../right/rules/setting';
import { type BothHands, JointPlanner, type LeastThrough } from './planBoth';

/**
 * So much above the best are states kept, in tenths of a point. From memory: of the demo pieces with most states a sixth
 * to an eighth remain, and a twentieth of their pairs.
 */
const KEPT = 300;
/** Where no more than this share is free above the last plan, a new base is made before it is needed. */
const FREE_SHARE = 0.5;
/** Teachers undo: so many earlier bases are kept. */
const MOST_BASES = 3;

/** The states that are left of a plan around some ink: with more of it nothing else can be part of a good plan. */
interface Base {
  readonly ink: Ink;
  readonly known: LeastThrough;
  readonly left: NarrowLeft;
  readonly both: JointPlanner;
  /** What costs less than this is the best of all. */
  readonly limit: number;
}

export class HandsPlanner {
  private readonly all: JointPlanner;
  /** The newest first. */
  private bases: readonly Base[] = [];
  private seen: { readonly ink: Ink; readonly hands: BothHands } | null = null;
  /** Who answered the last question, and which that was. */
  private asked: { readonly ink: Ink; readonly by: JointPlanner; readonly base: Base | null } | null = null;

  /** What all states were asked about last. */
  private inkOfAll: Ink | null = null;

  /** @param kept see `KEPT` */
  constructor(
    private readonly problem: FingeringProblem,
    private readonly left: LeftPlanner,
    private readonly setting: RightSetting,
    private readonly kept = KEPT,
  ) {
    this.all = new JointPlanner(problem, left, setting);
  }

  /** The best fingering around the ink. */
  plan(ink: Ink): BothHands {
    return this.onBase(ink) ?? this.onAll(ink);
  }

  /** The same for the ink that the teacher sees: whoever asks for choices has just asked for it. */
  current(ink: Ink): BothHands {
    if (this.seen?.ink !== ink) this.seen = { ink, hands: this.plan(ink) };
    return this.seen.hands;
  }

  /** Whether edits are planned on a part of the states. */
  get isPrepared(): boolean {
    return this.bases.length > 0;
  }

  /** Null where that would take long: where a base says only that it is dear. */
  maybePlanSoon(ink: Ink): BothHands | null {
    return this.baseOf(ink) ? this.onBase(ink) : this.onAll(ink);
  }

  /** What a plan that its base gives no answer to costs more than this at least. */
  dearerThan(ink: Ink, cost: number): number {
    return Math.max(0, (this.baseOf(ink)?.limit ?? 0) - cost);
  }

  /** Who answered the question about this ink: its bounds and joint lattices are about it. */
  about(ink: Ink): JointPlanner {
    if (this.asked?.ink !== ink) this.plan(ink);
    return this.asked!.by;
  }

  /**
   * Every string and finger for a strike with the least that the left hand pays for it, its own ink lifted; those through
   * which nothing good goes come without a plan.
   */
  candidates(ink: Ink, strike: number): readonly Candidate[] {
    const base = this.asked?.base ?? null;
    const near = base?.left.candidateBounds(ink, strike) ?? null;
    if (!base || !near) return this.left.candidateBounds(ink, strike);
    const seen = new Set(near.map(({ place }) => placeId(place)));
    const far = this.left
      .placesOf(ink, strike)
      .filter((place) => !seen.has(placeId(place)))
      .map((place) => ({
        place,
        extraCost: this.leastOf(base, strike, place) - base.both.lastCost,
        states: null,
      }));
    return [...near, ...far.filter(({ extraCost }) => extraCost < UNREACHABLE / 2)];
  }

  /** What a plan with a strike at a place costs at least, whatever ink is added to that of the base. */
  private leastOf({ known: { layers, through } }: Base, strike: number, place: Placement): number {
    const k = this.problem.moments.findIndex(({ struck }) => struck.includes(strike));
    const { rows, strikes } = layers[k]!;
    const column = strikes.indexOf(strike);
    let least = UNREACHABLE;
    through[k]!.forEach((cost, s) => {
      if (cost < least && placeAt(rows, s, column) === placeId(place)) least = cost;
    });
    return least;
  }

  /** After an answer, while nobody asks: makes the next one faster; between two steps it yields. Changes no answer. */
  *preparing(): Generator<void> {
    const { asked } = this;
    if (!asked) return;
    if (!asked.base || asked.base.both.lastCost > asked.base.limit - FREE_SHARE * this.kept) {
      // Whoever was heard in between may have asked all of them something else: a base is about its own ink alone.
      if (this.inkOfAll !== asked.ink) this.onAll(asked.ink);
      const base = this.baseAround(asked.ink);
      if (!base) return;
      this.bases = [base, ...this.bases].slice(0, MOST_BASES);
      yield;
    }
    this.plan(asked.ink);
    yield;
    this.asked!.by.prepare();
  }

  private onAll(ink: Ink): BothHands {
    this.asked = { ink, by: this.all, base: null };
    this.inkOfAll = ink;
    return this.all.plan(ink);
  }

  private baseOf(ink: Ink): Base | undefined {
    return this.bases.find((one) => isBaseOf(one, ink));
  }

  private onBase(ink: Ink): BothHands | null {
    const base = this.baseOf(ink);
    const found = base?.both.maybePlan(ink, base.limit);
    if (!base || !found) return null;
    this.asked = { ink, by: base.both, base };
    return found;
  }

  /** Null where something had to be left out: there more ink may be cheaper. */
  private baseAround(ink: Ink): Base | null {
    const known = this.all.leastThrough();
    if (!known || known.layers.some((layer, k) => layer !== this.left.layers[k])) return null;
    const limit = known.least + this.kept;
    const kept = known.through.map((costs) => [...costs.keys()].filter((s) => costs[s]! < limit));
    const left = this.left.narrowed(kept);
    return { ink, known, left, both: new JointPlanner(this.problem, left, this.setting), limit };
  }
}

/** Whether ink says all that the base's says, and of the right hand nothing that would make anything cheaper. */
function isBaseOf({ ink, known: { filtered } }: Base, other: Ink): boolean {
  for (const [uid, { pluck }] of other) {
    if (pluck !== null && filtered.has(uid) && ink.get(uid)?.pluck !== pluck) return false;
  }
  for (const [uid, { finger, string, pluck }] of ink) {
    const there = other.get(uid) ?? NO_INK;
    const isKept = (mark: unknown, now: unknown) => mark === null || mark === now;
    if (!isKept(finger, there.finger) || !isKept(string, there.string) || !isKept(pluck, there.pluck))
      return false;
  }
  return true;
}

/** A choice for a note; a plan comes with it where one is known. */
export interface Candidate extends Omit<LeftCandidate, 'states'> {
  readonly states: LeftCandidate['states'] | null;
}
