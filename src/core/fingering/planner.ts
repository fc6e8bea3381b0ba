/** Both hands of one piece: the object that a worker, the server or the command line talks to. */
import type { Fretboard } from '../instrument/fretboard';
import type { HandProfile } from '../instrument/handProfile';
import type { Texture } from '../figures/texture';
import type { Score } from '../score/model';
import { type ComparedChoice, NoteChoicesPlanner } from './choices/noteChoices';
import { HandsPlanner } from './dual/handsPlanner';
import { compareWays, formulaInk, type Way } from './formulas/compare';
import type { Formula } from './formulas/formulas';
import { type HandAction, handScript } from './left/explain/handScript';
import { LeftPlanner } from './left/lattice/planLeft';
import { placeId, type Placement } from './left/rules/place';
import type { LeftSchoolId } from './left/rules/schools';
import { leftWeights } from './left/rules/weights';
import type { Ink } from './problem/ink';
import { type FingeringProblem, problemOf } from './problem/problem';
import type { FingeringPlan, NoteChoices } from './report/plan';
import { PlanReport } from './report/planReport';
import { type StrokeAction, strokeScript } from './right/explain/strokeScript';
import { walkRight } from './right/explain/walk';
import { inkedLetters } from './right/lattice/inkedLetters';
import { RightPlanner } from './right/lattice/planRight';
import type { RightSchoolId } from './right/rules/schools';
import { type RightSetting, rightSettingOf } from './right/rules/setting';
import { placedOn, strokeGroup } from './right/rules/strokes';
import { PLAIN_STYLE, type RightStyle } from './right/rules/style';
import { type SlurSuggestion, suggestSlurs } from './slurs/suggest';
import { pickAlternatives } from './takes/alternatives';
import { ringsOf } from '../rings/ring';

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
  private readonly hands: HandsPlanner;
  private readonly noteChoices: NoteChoicesPlanner;
  private readonly report: PlanReport;

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
    this.hands = new HandsPlanner(this.problem, this.left, this.setting);
    this.report = new PlanReport(this.problem, this.setting, score);
    const { left, right, hands } = this;
    this.noteChoices = new NoteChoicesPlanner(this.problem, this.setting, score, { left, right, hands });
  }

  /** The best fingering around the ink. */
  plan(ink: Ink): FingeringPlan {
    return this.report.of(this.hands.current(ink), ink);
  }

  /**
   * Up to `count` other good plans of both hands, the cheapest first: each is the best one with some string or finger
   * that the best of all has not. Only for a piece without ink.
   */
  alternatives(count: number): readonly FingeringPlan[] {
    const none: Ink = new Map();
    const { states } = this.hands.current(none);
    const { placements } = this.left.planOf(states, []);
    const both = this.hands.about(none);
    const candidates = this.problem.strikes.flatMap((strike) => {
      const bounds = both.boundsFor(strike.index);
      const planned = placements[strike.index];
      const others = this.left
        .candidateBounds(none, strike.index)
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
        return this.report.of(this.hands.plan(ink), none);
      })
      .sort((a, b) => a.cost - b.cost);
  }

  /** What the left hand does, step by step, in the best fingering around the ink. */
  script(ink: Ink): readonly HandAction[] {
    return handScript(this.problem, this.hands.current(ink).states);
  }

  /** What the right hand does, step by step. */
  strokeScript(ink: Ink): readonly StrokeAction[] {
    const { problem, setting } = this;
    const { states, played } = this.hands.current(ink);
    const steps = walkRight(problem, setting, states, played, { kept: inkedLetters(problem, ink).adapt });
    return strokeScript(problem, steps, ringsOf(problem, states));
  }

  /** After a plan, while nobody asks: makes the next one faster; yields between two steps. Changes no answer. */
  preparing(): Generator<void> {
    return this.hands.preparing();
  }

  /** Slurs that would cure something, the best first; refused ones are left out. */
  slurs(ink: Ink): readonly SlurSuggestion[] {
    const { problem, setting } = this;
    const { states, played } = this.hands.current(ink);
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
    return compareWays(this.problem, this.setting, settingOf, this.hands.current(ink).states, { ink, from, to });
  }

  /** The ink that plays a formula over moments `from` to `to`. */
  withFormula(ink: Ink, from: number, to: number, formula: Formula): Ink {
    const { problem, setting } = this;
    const groups = placedOn(problem, this.hands.current(ink).states).map((placed, k) =>
      strokeGroup(problem, setting, k, placed),
    );
    return formulaInk(problem, groups, { from, to }, formula, ink);
  }

  /**
   * Every choice for one note, so many of them with reasons; its own ink is lifted for the question. The prices are the
   * least that they can be, known at once. Null: no such note.
   */
  choices(ink: Ink, uid: string, explained?: number): NoteChoices | null {
    return this.noteChoices.bounds(ink, uid, explained);
  }

  /**
   * The same with exact prices for those that are explained. Between two of them it yields, so that whoever has something
   * newer to ask need not wait.
   */
  exactChoices(ink: Ink, uid: string, explained?: number): Generator<void, NoteChoices | null> {
    return this.noteChoices.exactly(ink, uid, explained);
  }

  /**
   * One choice for a note against the best one there, priced by the left hand alone, its own ink lifted: fast enough to
   * ask for every note of a piece. Null where there is none such.
   */
  comparedByLeftHand(ink: Ink, uid: string, isMeant: (place: Placement) => boolean): ComparedChoice | null {
    return this.noteChoices.comparedByLeftHand(ink, uid, isMeant);
  }
}
