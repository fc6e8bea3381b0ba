/** What a note could be instead, and what each choice costs both hands. */
import type { Score } from '../../score/model';
import type { Candidate as PlannedCandidate, HandsPlanner } from '../dual/handsPlanner';
import type { BothHands } from '../dual/planBoth';
import { reasonsBetween } from '../left/explain/explain';
import { holdsOther, reasonsAgainst } from '../left/explain/reasons';
import type { LeftPlanner } from '../left/lattice/planLeft';
import type { HandState } from '../left/rules/handState';
import { placeId, type Placement } from '../left/rules/place';
import { type Ink, type InkMarks, NO_INK } from '../problem/ink';
import type { FingeringProblem } from '../problem/problem';
import type { Strike } from '../problem/strike';
import type { LeftChoice, NoteChoices, RightChoice } from '../report/plan';
import { figureReason } from '../right/explain/figureReason';
import {
  type StrokeReason,
  strokeReasons,
  type StrokesWalked,
  walkedWithLedgers,
} from '../right/explain/reasons';
import type { RightCandidate, RightPlanner } from '../right/lattice/planRight';
import type { RightSetting } from '../right/rules/setting';
import { placedAt, type PlacedStrike } from '../right/rules/strokes';
import { before, Column, here } from '../solver/column';

/** Reasons worth showing beside a choice, and for how many of them they are worked out. */
const REASONS_SHOWN = 2;
const CHOICES_EXPLAINED = 8;
/** So many choices of the left hand are priced exactly, however dear; of the others those that are near. */
const ALWAYS_EXACT = 3;
/** Notes that go to another string with a letter: so many are named. */
const STRINGS_SHOWN = 3;

/** One choice against the best one. */
export type ComparedChoice = Pick<LeftChoice, 'extraCost' | 'reasons' | 'words'> & {
  readonly chosen: Placement;
  readonly better: Placement;
};

/** The planners of one piece. */
export interface Planners {
  readonly left: LeftPlanner;
  readonly right: RightPlanner;
  readonly hands: HandsPlanner;
}

export class NoteChoicesPlanner {
  private readonly left: LeftPlanner;
  private readonly right: RightPlanner;
  private readonly hands: HandsPlanner;
  private readonly placed = new Column<readonly PlacedStrike[]>();
  private walkedLast: StrokesWalked | null = null;

  constructor(
    private readonly problem: FingeringProblem,
    private readonly setting: RightSetting,
    private readonly score: Score,
    { left, right, hands }: Planners,
  ) {
    this.left = left;
    this.right = right;
    this.hands = hands;
  }

  /**
   * Every choice for one note, so many of them with reasons; its own ink is lifted for the question. The prices are the
   * least that they can be, known at once. Null: no such note.
   */
  bounds(ink: Ink, uid: string, explained = CHOICES_EXPLAINED): NoteChoices | null {
    const asked = this.asked(ink, uid);
    if (!asked) return null;
    const { strike, candidates } = asked;
    const right = this.rightChoices(ink, strike);
    return { uid, exact: false, left: this.explained(asked, candidates, explained, ink), right };
  }

  /**
   * The same with exact prices for those that are explained: what is near is read off one lattice of both hands; for a
   * few others both are planned anew, if that can be done soon. Between two of them it yields, so that whoever has
   * something newer to ask need not wait.
   */
  *exactly(ink: Ink, uid: string, explained = CHOICES_EXPLAINED): Generator<void, NoteChoices | null> {
    const asked = this.asked(ink, uid);
    if (!asked) return null;
    const { strike, lifted, best, candidates } = asked;
    const right = this.rightChoices(ink, strike);
    const priced: Candidate[] = [];
    const [first, ...others] = candidates.slice(0, explained);
    if (first) priced.push({ ...first, exact: true, played: best.played });
    yield;
    const near = this.hands.about(lifted).withPlaces(
      strike.index,
      others.map(({ place }) => place),
    );
    let exact = 1;
    for (const [n, one] of others.entries()) {
      const { finger, string } = one.place;
      const marks = { ...lettersOf(ink, strike), finger, string };
      if (!near[n]) yield;
      const isWanted = exact < ALWAYS_EXACT || !this.hands.isPrepared;
      const forced = () => this.hands.maybePlanSoon(new Map(lifted).set(strike.uids[0]!, marks));
      const found = near[n] ?? (isWanted ? forced() : null);
      if (!found) priced.push(one);
      else {
        const { cost, states, played } = found;
        priced.push({ ...one, exact: true, extraCost: cost - best.cost, states: () => states, played });
        exact++;
      }
    }
    const ranked = [...priced.sort(byPrice), ...candidates.slice(explained)];
    const left = this.explained(asked, ranked, explained, ink);
    return { uid, exact: true, left, right: yield* this.exactLetters(ink, strike, right) };
  }

  /** Letters with what they cost when the strings may be other ones, too. */
  private *exactLetters(
    ink: Ink,
    strike: Strike,
    known: readonly RightChoice[],
  ): Generator<void, readonly RightChoice[]> {
    const { problem, setting } = this;
    const [uid] = strike.uids;
    const lifted = letterOf(ink, strike) === null ? ink : without(ink, strike, ['pluck']);
    const best = lifted === ink ? this.hands.current(ink) : this.hands.plan(lifted);
    const k = problem.moments.findIndex((moment) => moment.struck.includes(strike.index));
    const walked = this.walked(best);
    const figure = this.figureAround(strike, walked);
    const priced: RightChoice[] = [];
    yield;
    const near = this.hands.about(lifted).withLetters(
      strike.index,
      known.map(({ pluck }) => pluck),
    );
    for (const [n, { pluck }] of known.entries()) {
      if (!near[n]) yield;
      const marks = { ...(lifted.get(uid!) ?? NO_INK), pluck };
      const inked = new Map(lifted).set(uid!, marks);
      const found = near[n] ?? this.hands.maybePlanSoon(inked);
      if (!found) {
        const extraCost = this.hands.dearerThan(inked, best.cost);
        priced.push({ pluck, extraCost, exact: false, words: [], strings: [] });
        continue;
      }
      const { cost, states, played } = found;
      const extraCost = cost - best.cost;
      const words =
        extraCost === 0
          ? figure
          : strokeReasons(
              problem,
              walked,
              walkedWithLedgers(problem, setting, { states, played }, walked),
              k,
            );
      const strings = otherStrings(problem, best.states, states);
      priced.push({ pluck, extraCost, exact: true, words, strings });
    }
    return priced.sort((a, b) => a.extraCost - b.extraCost);
  }

  /**
   * One choice for a note against the best one there, priced by the left hand alone, its own ink lifted: fast enough to
   * ask for every note of a piece. Null where there is none such.
   */
  comparedByLeftHand(ink: Ink, uid: string, isMeant: (place: Placement) => boolean): ComparedChoice | null {
    const { problem } = this;
    const strike = problem.strikes.find((one) => one.uids.includes(uid));
    if (!strike) return null;
    const candidates = this.left.candidates(without(ink, strike, ['finger', 'string']), strike.index);
    const [best] = candidates;
    const chosen = candidates.find(({ place }) => isMeant(place));
    if (!best || !chosen) return null;
    if (chosen === best)
      return { chosen: chosen.place, better: best.place, extraCost: 0, reasons: [], words: [] };
    const k = problem.moments.findIndex((moment) => moment.struck.includes(strike.index));
    const [better, other] = [best.states(), chosen.states()];
    return {
      chosen: chosen.place,
      better: best.place,
      extraCost: chosen.extraCost,
      reasons: reasonsBetween(problem, better, other).slice(0, REASONS_SHOWN),
      words: reasonsAgainst(problem, better, other, k, chosen.place.finger),
    };
  }

  private asked(ink: Ink, uid: string): Asked | null {
    const strike = this.problem.strikes.find((one) => one.uids.includes(uid));
    if (!strike) return null;
    const lifted = isSet(ink, strike) ? without(ink, strike, ['finger', 'string']) : ink;
    const best = lifted === ink ? this.hands.current(ink) : this.hands.plan(lifted);
    const bounds = this.hands.about(lifted).boundsFor(strike.index);
    const chosen = placeOf(best.states, this.problem, strike.index);
    const isChosen = ({ place }: Candidate) => chosen !== null && placeId(place) === placeId(chosen);
    const byLeftHand = this.hands.candidates(lifted, strike.index);
    const candidates = byLeftHand
      .map((one) => ({
        ...one,
        extraCost: isChosen(one) ? 0 : (bounds.get(placeId(one.place)) ?? one.extraCost),
      }))
      .sort(byPrice);
    const first = candidates.findIndex(isChosen);
    if (first > 0) candidates.unshift(...candidates.splice(first, 1));
    // Where the left hand by itself would take another string, it is the right hand that speaks against it.
    const [own] = byLeftHand;
    const spurned = own && chosen && own.place.string !== chosen.string ? own : null;
    return { strike, lifted, best, candidates, spurned };
  }

  private explained(
    { strike, best, spurned }: Asked,
    candidates: readonly Candidate[],
    count: number,
    ink: Ink,
  ): readonly LeftChoice[] {
    const { problem, setting } = this;
    const [first, ...others] = candidates.slice(0, count);
    const k = problem.moments.findIndex((moment) => moment.struck.includes(strike.index));
    // What speaks for the best choice is what speaks against the nearest other finger on its string.
    const onItsString = candidates.slice(1).filter(({ place }) => place.string === first?.place.string);
    const isHeld = ({ place }: Candidate) => holdsOther(problem, best.states, k, place.finger);
    const rival = onItsString.find(isHeld) ?? onItsString[0] ?? others[0];
    const walked = this.walked(best);
    const against = (states: BothHands['states'], known?: BothHands['played']) => {
      const played = known ?? this.right.plan(this.placedOn(states), ink).played;
      return strokeReasons(
        problem,
        walked,
        walkedWithLedgers(problem, setting, { states, played }, walked),
        k,
      );
    };
    return candidates.map(({ place, extraCost, states, played, exact = false }, rank) => {
      if (rank >= count || !states)
        return { ...place, extraCost, exact, reasons: [], words: [], strokeWords: [] };
      if (rank === 0) {
        const words = rival?.states
          ? reasonsAgainst(problem, best.states, rival.states(), k, rival.place.finger)
          : [];
        return {
          ...place,
          extraCost,
          exact,
          reasons: [],
          words,
          strokeWords: spurned?.states ? against(spurned.states()) : [],
        };
      }
      const other = states();
      const otherString = place.string !== first!.place.string;
      return {
        ...place,
        extraCost,
        exact,
        reasons: reasonsBetween(problem, best.states, other).slice(0, REASONS_SHOWN),
        words: reasonsAgainst(problem, best.states, other, k, place.finger),
        strokeWords: otherString || played ? against(other, played) : [],
      };
    });
  }

  /** On the strings of the plan. */
  private rightChoices(ink: Ink, strike: Strike): readonly RightChoice[] {
    const { problem, setting } = this;
    const { states } = this.hands.current(ink);
    const k = problem.moments.findIndex((moment) => moment.struck.includes(strike.index));
    const candidates = this.right.candidates(
      this.placedOn(states),
      without(ink, strike, ['pluck']),
      strike.index,
    );
    const [first, ...others] = candidates;
    if (!first) return [];
    const best = walkedWithLedgers(problem, setting, { states, played: first.played() }, this.walkedLast);
    const wordsOf = (one: RightCandidate, against: StrokesWalked) =>
      strokeReasons(
        problem,
        against,
        walkedWithLedgers(problem, setting, { states, played: one.played() }, against),
        k,
      );
    return [
      {
        pluck: first.pluck,
        extraCost: first.extraCost,
        exact: false,
        words: this.figureAround(strike, best),
        strings: [],
      },
      ...others.map((one) => ({
        pluck: one.pluck,
        extraCost: one.extraCost,
        exact: false,
        words: wordsOf(one, best),
        strings: [],
      })),
    ];
  }

  /** Where the notes of a plan lie: most of them as in the plan that was asked about last. */
  private placedOn(states: BothHands['states']): readonly (readonly PlacedStrike[])[] {
    const { moments } = this.problem;
    return this.placed.of(states.length, [before(states), here(states)], (k, last, state) =>
      placedAt(this.problem, moments[k]!, last, state),
    );
  }

  /** What the right hand does in a plan: most of it is as in the plan that was asked about last. */
  private walked(hands: BothHands): StrokesWalked {
    this.walkedLast = walkedWithLedgers(this.problem, this.setting, hands, this.walkedLast);
    return this.walkedLast;
  }

  private figureAround(strike: Strike, { steps }: StrokesWalked): readonly StrokeReason[] {
    const starts = this.score.measures.map(({ startTicks }) => startTicks);
    const figure = figureReason(this.problem, this.setting, steps, strike.index, starts);
    return figure ? [figure] : [];
  }
}

interface Candidate extends PlannedCandidate {
  readonly exact?: boolean;
  readonly played?: BothHands['played'];
}

/** One note asked about: the best plan without its own ink, and everything it could be instead. */
interface Asked {
  readonly strike: Strike;
  readonly lifted: Ink;
  readonly best: BothHands;
  readonly candidates: readonly Candidate[];
  /** What the left hand by itself would do, where that is another string. */
  readonly spurned: Candidate | null;
}

const byPrice = (a: Candidate, b: Candidate) =>
  a.extraCost - b.extraCost || placeId(a.place) - placeId(b.place);

/** The ink with some marks of one strike lifted. */
function without(ink: Ink, { uids }: Strike, marks: readonly (keyof InkMarks)[]): Ink {
  const lifted = new Map(ink);
  for (const uid of uids) {
    const own = lifted.get(uid);
    if (own) lifted.set(uid, { ...own, ...Object.fromEntries(marks.map((mark) => [mark, null])) });
  }
  return lifted;
}

const isSet = (ink: Ink, { uids }: Strike) =>
  uids.some((uid) => (ink.get(uid)?.finger ?? null) !== null || (ink.get(uid)?.string ?? null) !== null);

const letterOf = (ink: Ink, { uids }: Strike) =>
  uids.map((uid) => ink.get(uid)?.pluck ?? null).find((letter) => letter !== null) ?? null;

/** Notes that lie on another string than in the best plan, the first few. */
function otherStrings(
  problem: FingeringProblem,
  best: BothHands['states'],
  other: BothHands['states'],
): RightChoice['strings'] {
  return problem.moments
    .flatMap(({ index: k, tick, struck }) =>
      best[k] === other[k]
        ? []
        : struck.flatMap((strike) => {
            const [was, is] = [stringIn(best[k]!, strike), stringIn(other[k]!, strike)];
            return is === null || is === was ? [] : [{ ticks: tick, string: is }];
          }),
    )
    .slice(0, STRINGS_SHOWN);
}

const stringIn = ({ strikes, placements }: HandState, strike: number): number | null =>
  placements[strikes.indexOf(strike)]?.string ?? null;

const lettersOf = (ink: Ink, { uids }: Strike): InkMarks =>
  uids.map((uid) => ink.get(uid)).find((marks) => marks?.pluck) ?? NO_INK;

function placeOf(states: BothHands['states'], problem: FingeringProblem, strike: number): Placement | null {
  const k = problem.moments.findIndex(({ struck }) => struck.includes(strike));
  const slot = states[k]?.strikes.indexOf(strike) ?? -1;
  return slot < 0 ? null : states[k]!.placements[slot]!;
}
