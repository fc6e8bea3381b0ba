/** Both hands of one piece: the object that a worker, the server or the command line talks to. */
import type { Fretboard } from '../instrument/fretboard';
import type { HandProfile } from '../instrument/handProfile';
import type { Texture } from '../figures/texture';
import type { Score } from '../score/model';
import { type Ink, type InkMarks, NO_INK } from './problem/ink';
import { pickAlternatives } from './takes/alternatives';
import { reasonsBetween, termTotals } from './left/explain/explain';
import { holdsOther, reasonsAgainst } from './left/explain/reasons';
import { type HandAction, handScript } from './left/explain/handScript';
import { placeId, type Placement } from './left/rules/place';
import type { HandState } from './left/rules/handState';
import { type LeftCandidate, LeftPlanner } from './left/lattice/planLeft';
import { type BothHands, JointPlanner } from './dual/planBoth';
import type { FingeringPlan, LeftChoice, NoteChoices, RightChoice } from './report/plan';
import { type FingeringProblem, problemOf } from './problem/problem';
import type { Strike } from './problem/strike';
import type { LeftSchoolId } from './left/rules/schools';
import { leftWeights } from './left/rules/weights';
import { inkedLetters } from './right/lattice/inkedLetters';
import { figureReason } from './right/explain/figureReason';
import { type RightCandidate, RightPlanner } from './right/lattice/planRight';
import {
  type StrokeReason,
  strokeReasons,
  type StrokesWalked,
  walkedWithLedgers,
} from './right/explain/reasons';
import { type StrokeAction, strokeScript } from './right/explain/strokeScript';
import { compareWays, formulaInk, type Way } from './formulas/compare';
import type { Formula } from './formulas/formulas';
import { type SlurSuggestion, suggestSlurs } from './slurs/suggest';
import type { RightSchoolId } from './right/rules/schools';
import { type RightSetting, rightSettingOf } from './right/rules/setting';
import { placedOn, strokeGroup } from './right/rules/strokes';
import { PLAIN_STYLE, type RightStyle } from './right/rules/style';
import { walkRight } from './right/explain/walk';
import { PlanReport } from './report/planReport';
import { ringsOf } from '../rings/ring';

/** Reasons worth showing beside a choice, and for how many of them they are worked out. */
const REASONS_SHOWN = 2;
const CHOICES_EXPLAINED = 8;
/** Notes that go to another string with a letter: so many are named. */
const STRINGS_SHOWN = 3;

/** Whose right hand: its style, and the bars that have a school of their own. */
export interface RightWishes {
  readonly style: RightStyle;
  readonly schoolOfBar: (barUid: string) => RightSchoolId | null;
  /** The teacher's word on the texture of a note; none where it is left out. */
  readonly textureOf?: (noteUid: string) => Texture | null;
  /** Notes to which no slur shall be proposed. */
  readonly refusedSlurs: ReadonlySet<string>;
}

export const NO_WISHES: RightWishes = {
  style: PLAIN_STYLE,
  schoolOfBar: () => null,
  refusedSlurs: new Set(),
};

export class Planner {
  readonly problem: FingeringProblem;
  readonly setting: RightSetting;
  private readonly left: LeftPlanner;
  private readonly right: RightPlanner;
  private readonly both: JointPlanner;
  private readonly report: PlanReport;
  /** The last plan, since whoever asks for choices has just asked for it. */
  private lastAsked: Ink | null = null;
  private latest: { readonly ink: Ink; readonly hands: BothHands } | null = null;

  constructor(
    private readonly score: Score,
    fretboard: Fretboard,
    hand: HandProfile,
    school: LeftSchoolId = 'balanced',
    private readonly wishes: RightWishes = NO_WISHES,
  ) {
    const { style, schoolOfBar, textureOf } = wishes;
    this.problem = problemOf(score, fretboard, hand, leftWeights(school, hand), textureOf);
    this.setting = rightSettingOf(score, this.problem, style, { schoolOfBar });
    this.left = new LeftPlanner(this.problem);
    this.right = new RightPlanner(this.problem, this.setting);
    this.both = new JointPlanner(this.problem, this.left, this.setting);
    this.report = new PlanReport(this.problem, this.setting, score);
  }

  /** The best fingering around the ink. */
  plan(ink: Ink): FingeringPlan {
    return this.report.of(this.handsFor(ink), ink);
  }

  private handsFor(ink: Ink): BothHands {
    if (this.latest?.ink !== ink) this.latest = { ink, hands: this.planBoth(ink) };
    return this.latest.hands;
  }

  /**
   * Up to `count` other good plans of both hands, the cheapest first: each is the best one with some string or finger
   * that the best of all has not. Only for a piece without ink.
   */
  alternatives(count: number): readonly FingeringPlan[] {
    const none: Ink = new Map();
    const { states } = this.handsFor(none);
    const { placements } = this.left.planOf(states, []);
    const candidates = this.problem.strikes.flatMap((strike) => {
      const bounds = this.both.boundsFor(strike.index);
      const planned = placements[strike.index];
      const others = this.left
        .candidates(none, strike.index)
        .filter(({ place }) => !planned || placeId(place) !== placeId(planned));
      return others.map((candidate) => ({
        ...candidate,
        uid: strike.uids[0]!,
        extraCost: bounds.get(placeId(candidate.place)) ?? candidate.extraCost,
      }));
    });
    return pickAlternatives(this.problem, states, candidates, count)
      .map(({ uid, place: { finger, string } }) => {
        const ink: Ink = new Map([[uid, { finger, string, pluck: null }]]);
        return this.report.of(this.planBoth(ink), none);
      })
      .sort((a, b) => a.cost - b.cost);
  }

  /** What the left hand does, step by step, in the best fingering around the ink. */
  script(ink: Ink): readonly HandAction[] {
    return handScript(this.problem, this.handsFor(ink).states);
  }

  /** What the right hand does, step by step. */
  strokeScript(ink: Ink): readonly StrokeAction[] {
    const { problem, setting } = this;
    const { states, played } = this.handsFor(ink);
    const steps = walkRight(problem, setting, states, played, { kept: inkedLetters(problem, ink).adapt });
    return strokeScript(problem, steps, ringsOf(problem, states));
  }

  /** After a plan, while nobody asks: makes the next one faster. Changes no answer. */
  prepare(): void {
    this.both.prepare();
  }

  /** Slurs that would cure something, the best first; refused ones are left out. */
  slurs(ink: Ink): readonly SlurSuggestion[] {
    const { problem, setting } = this;
    const { states, played } = this.handsFor(ink);
    const steps = walkRight(problem, setting, states, played, { kept: inkedLetters(problem, ink).adapt });
    const refused = new Set(
      problem.strikes
        .filter(({ uids }) => uids.some((uid) => this.wishes.refusedSlurs.has(uid)))
        .map(({ index }) => index),
    );
    return suggestSlurs(problem, states, steps, refused, (placed) => {
      const { cost, played: then } = this.right.plan(placed, ink);
      return { cost, letters: then.map(({ letters }) => letters) };
    });
  }

  /** Several ways to play moments `from` to `to` on the strings of the plan. */
  ways(ink: Ink, from: number, to: number): readonly Way[] {
    const { style } = this.wishes;
    const settingOf = (school: RightSchoolId) =>
      rightSettingOf(this.score, this.problem, { ...style, school });
    return compareWays(this.problem, this.setting, settingOf, this.handsFor(ink).states, { ink, from, to });
  }

  /** The ink that plays a formula over moments `from` to `to`. */
  withFormula(ink: Ink, from: number, to: number, formula: Formula): Ink {
    const { problem, setting } = this;
    const groups = placedOn(problem, this.handsFor(ink).states).map((placed, k) =>
      strokeGroup(problem, setting, k, placed),
    );
    return formulaInk(problem, groups, { from, to }, formula, ink);
  }

  /**
   * Every choice for one note, so many of them with reasons; its own ink is lifted for the question. The prices are the
   * least that they can be, known at once. Null: no such note.
   */
  choices(ink: Ink, uid: string, explained = CHOICES_EXPLAINED): NoteChoices | null {
    const asked = this.asked(ink, uid);
    if (!asked) return null;
    const { strike, candidates } = asked;
    const right = this.rightChoices(ink, strike);
    return { uid, exact: false, left: this.explained(asked, candidates, explained, ink), right };
  }

  /**
   * The same with exact prices for those that are explained: both hands are planned anew for each. Between two of them
   * it yields, so that whoever has something newer to ask need not wait.
   */
  *exactChoices(ink: Ink, uid: string, explained = CHOICES_EXPLAINED): Generator<void, NoteChoices | null> {
    const asked = this.asked(ink, uid);
    if (!asked) return null;
    const { strike, lifted, best, candidates } = asked;
    const right = this.rightChoices(ink, strike);
    const priced: Candidate[] = [];
    for (const one of candidates.slice(0, explained)) {
      if (priced.length === 0) {
        priced.push({ ...one, played: best.played });
        continue;
      }
      yield;
      const { finger, string } = one.place;
      const marks = { ...lettersOf(ink, strike), finger, string };
      const { cost, states, played } = this.planBoth(new Map(lifted).set(strike.uids[0]!, marks));
      priced.push({ ...one, extraCost: cost - best.cost, states: () => states, played });
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
    const best = lifted === ink ? this.handsFor(ink) : this.planBoth(lifted);
    const k = problem.moments.findIndex((moment) => moment.struck.includes(strike.index));
    const walked = walkedWithLedgers(problem, setting, best.states, best.played);
    const figure = this.figureAround(strike, walked);
    const priced: RightChoice[] = [];
    for (const { pluck } of known) {
      yield;
      const marks = { ...(lifted.get(uid!) ?? NO_INK), pluck };
      const { cost, states, played } = this.planBoth(new Map(lifted).set(uid!, marks));
      const extraCost = cost - best.cost;
      const words =
        extraCost === 0
          ? figure
          : strokeReasons(problem, walked, walkedWithLedgers(problem, setting, states, played), k);
      priced.push({ pluck, extraCost, words, strings: otherStrings(problem, best.states, states) });
    }
    return priced.sort((a, b) => a.extraCost - b.extraCost);
  }

  /**
   * One choice for a note against the best one there, priced by the left hand alone, its own ink lifted: fast enough to
   * ask for every note of a piece. Null where there is none such.
   */
  comparedByLeftHand(
    ink: Ink,
    uid: string,
    isMeant: (place: Placement) => boolean,
  ): (Pick<LeftChoice, 'extraCost' | 'reasons' | 'words'> & { chosen: Placement; better: Placement }) | null {
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
      reasons: reasonsBetween(termTotals(problem, better), termTotals(problem, other)).slice(
        0,
        REASONS_SHOWN,
      ),
      words: reasonsAgainst(problem, better, other, k, chosen.place.finger),
    };
  }

  /** The last question to both hands, since its bounds are of that one only. */
  private planBoth(ink: Ink): BothHands {
    this.lastAsked = ink;
    return this.both.plan(ink);
  }

  private asked(ink: Ink, uid: string): Asked | null {
    const strike = this.problem.strikes.find((one) => one.uids.includes(uid));
    if (!strike) return null;
    const lifted = isSet(ink, strike) ? without(ink, strike, ['finger', 'string']) : ink;
    const best = lifted === ink ? this.handsFor(ink) : this.planBoth(lifted);
    if (this.lastAsked !== lifted) this.planBoth(lifted);
    const bounds = this.both.boundsFor(strike.index);
    const chosen = placeOf(best.states, this.problem, strike.index);
    const isChosen = ({ place }: LeftCandidate) => chosen !== null && placeId(place) === placeId(chosen);
    const byLeftHand = this.left.candidates(lifted, strike.index);
    const candidates: Candidate[] = byLeftHand
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
    const totals = termTotals(problem, best.states);
    // What speaks for the best choice is what speaks against the nearest other finger on its string.
    const onItsString = candidates.slice(1).filter(({ place }) => place.string === first?.place.string);
    const isHeld = ({ place }: Candidate) => holdsOther(problem, best.states, k, place.finger);
    const rival = onItsString.find(isHeld) ?? onItsString[0] ?? others[0];
    const walked = walkedWithLedgers(problem, setting, best.states, best.played);
    const against = (states: BothHands['states'], known?: BothHands['played']) => {
      const played = known ?? this.right.plan(placedOn(problem, states), ink).played;
      return strokeReasons(problem, walked, walkedWithLedgers(problem, setting, states, played), k);
    };
    return candidates.map(({ place, extraCost, states, played }, rank) => {
      if (rank >= count) return { ...place, extraCost, reasons: [], words: [], strokeWords: [] };
      if (rank === 0) {
        const words = rival
          ? reasonsAgainst(problem, best.states, rival.states(), k, rival.place.finger)
          : [];
        return {
          ...place,
          extraCost,
          reasons: [],
          words,
          strokeWords: spurned ? against(spurned.states()) : [],
        };
      }
      const other = states();
      const otherString = place.string !== first!.place.string;
      return {
        ...place,
        extraCost,
        reasons: reasonsBetween(totals, termTotals(problem, other)).slice(0, REASONS_SHOWN),
        words: reasonsAgainst(problem, best.states, other, k, place.finger),
        strokeWords: otherString || played ? against(other, played) : [],
      };
    });
  }

  /** On the strings of the plan. */
  private rightChoices(ink: Ink, strike: Strike): readonly RightChoice[] {
    const { problem, setting } = this;
    const { states } = this.handsFor(ink);
    const k = problem.moments.findIndex((moment) => moment.struck.includes(strike.index));
    const candidates = this.right.candidates(
      placedOn(problem, states),
      without(ink, strike, ['pluck']),
      strike.index,
    );
    const [first, ...others] = candidates;
    if (!first) return [];
    const best = walkedWithLedgers(problem, setting, states, first.played());
    const wordsOf = (one: RightCandidate, against: StrokesWalked) =>
      strokeReasons(problem, against, walkedWithLedgers(problem, setting, states, one.played()), k);
    return [
      {
        pluck: first.pluck,
        extraCost: first.extraCost,
        words: this.figureAround(strike, best),
        strings: [],
      },
      ...others.map((one) => ({
        pluck: one.pluck,
        extraCost: one.extraCost,
        words: wordsOf(one, best),
        strings: [],
      })),
    ];
  }

  private figureAround(strike: Strike, { steps }: StrokesWalked): readonly StrokeReason[] {
    const starts = this.score.measures.map(({ startTicks }) => startTicks);
    const figure = figureReason(this.problem, this.setting, steps, strike.index, starts);
    return figure ? [figure] : [];
  }
}

interface Candidate extends LeftCandidate {
  readonly played?: BothHands['played'];
}

/** One note asked about: the best plan without its own ink, and everything it could be instead. */
interface Asked {
  readonly strike: Strike;
  readonly lifted: Ink;
  readonly best: BothHands;
  readonly candidates: readonly Candidate[];
  /** What the left hand by itself would do, where that is another string. */
  readonly spurned: LeftCandidate | null;
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
