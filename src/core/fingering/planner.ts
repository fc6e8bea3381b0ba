/** Both hands of one piece: the object that a worker, the server or the command line talks to. */
import type { Fretboard } from '../instrument/fretboard';
import type { HandProfile } from '../instrument/handProfile';
import type { Texture } from '../figures/texture';
import type { Score } from '../score/model';
import { type ComparedChoice, NoteChoicesPlanner, type Planners } from './choices/noteChoices';
import { HandsPlanner } from './dual/handsPlanner';
import { compareWays, formulaInk, type Way } from './formulas/compare';
import type { Formula } from './formulas/formulas';
import { type HandAction, handScript } from './left/explain/handScript';
import { growing, LeftPlanner } from './left/lattice/planLeft';
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

/** What is made of a problem; for a long piece that takes a while. */
interface Parts extends Planners {
  readonly noteChoices: NoteChoicesPlanner;
  readonly report: PlanReport;
}

export class Planner {
  readonly problem: FingeringProblem;
  readonly setting: RightSetting;
  private made: Parts | null = null;

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
  }

  /** Makes ready what the first question needs; in between it yields the share that is done. */
  *growing(): Generator<number> {
    if (this.made) return;
    const grown = yield* growing(this.problem);
    this.made ??= this.partsWith(new LeftPlanner(this.problem, grown));
  }

  private get parts(): Parts {
    return (this.made ??= this.partsWith(new LeftPlanner(this.problem)));
  }

  private partsWith(left: LeftPlanner): Parts {
    const { problem, setting, score } = this;
    const right = new RightPlanner(problem, setting);
    const hands = new HandsPlanner(problem, left, setting);
    const planners = { left, right, hands };
    return {
      ...planners,
      report: new PlanReport(problem, setting, score),
      noteChoices: new NoteChoicesPlanner(problem, setting, score, planners),
    };
  }

  /** The best fingering around the ink. */
  plan(ink: Ink): FingeringPlan {
    const { report, hands } = this.parts;
    return report.of(hands.current(ink), ink);
  }

  /**
   * Up to `count` other good plans of both hands, the cheapest first: each is the best one with some string or finger
   * that the best of all has not. Only for a piece without ink.
   */
  alternatives(count: number): readonly FingeringPlan[] {
    const none: Ink = new Map();
    const { states } = this.parts.hands.current(none);
    const { placements } = this.parts.left.planOf(states, []);
    const both = this.parts.hands.about(none);
    const candidates = this.problem.strikes.flatMap((strike) => {
      const bounds = both.boundsFor(strike.index);
      const planned = placements[strike.index];
      const others = this.parts.left
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
        return this.parts.report.of(this.parts.hands.plan(ink), none);
      })
      .sort((a, b) => a.cost - b.cost);
  }

  /** What the left hand does, step by step, in the best fingering around the ink. */
  script(ink: Ink): readonly HandAction[] {
    return handScript(this.problem, this.parts.hands.current(ink).states);
  }

  /** What the right hand does, step by step. */
  strokeScript(ink: Ink): readonly StrokeAction[] {
    const { problem, setting } = this;
    const { states, played } = this.parts.hands.current(ink);
    const steps = walkRight(problem, setting, states, played, { kept: inkedLetters(problem, ink).adapt });
    return strokeScript(problem, steps, ringsOf(problem, states));
  }

  /** After a plan, while nobody asks: makes the next one faster; yields between two steps. Changes no answer. */
  preparing(): Generator<void> {
    return this.parts.hands.preparing();
  }

  /** Slurs that would cure something, the best first; refused ones are left out. */
  slurs(ink: Ink): readonly SlurSuggestion[] {
    const { problem, setting } = this;
    const { states, played } = this.parts.hands.current(ink);
    const steps = walkRight(problem, setting, states, played, { kept: inkedLetters(problem, ink).adapt });
    const refused = new Set(
      problem.strikes
        .filter(({ uids }) => uids.some((uid) => this.wishes.refusedSlurs.has(uid)))
        .map(({ index }) => index),
    );
    return suggestSlurs(problem, states, steps, refused, (placed) => {
      const { cost, played: then } = this.parts.right.plan(placed, ink);
      return { cost, letters: then.map(({ letters }) => letters) };
    });
  }

  /** Several ways to play moments `from` to `to` on the strings of the plan. */
  ways(ink: Ink, from: number, to: number): readonly Way[] {
    const { style } = this.wishes;
    const settingOf = (school: RightSchoolId) =>
      rightSettingOf(this.score, this.problem, { ...style, school });
    return compareWays(this.problem, this.setting, settingOf, this.parts.hands.current(ink).states, {
      ink,
      from,
      to,
    });
  }

  /** The ink that plays a formula over moments `from` to `to`. */
  withFormula(ink: Ink, from: number, to: number, formula: Formula): Ink {
    const { problem, setting } = this;
    const groups = placedOn(problem, this.parts.hands.current(ink).states).map((placed, k) =>
      strokeGroup(problem, setting, k, placed),
    );
    return formulaInk(problem, groups, { from, to }, formula, ink);
  }

  /**
   * Every choice for one note, so many of them with reasons; its own ink is lifted for the question. The prices are the
   * least that they can be, known at once. Null: no such note.
   */
  choices(ink: Ink, uid: string, explained?: number): NoteChoices | null {
    return this.parts.noteChoices.bounds(ink, uid, explained);
  }

  /**
   * The same with exact prices for those that are explained. Between two of them it yields, so that whoever has something
   * newer to ask need not wait.
   */
  exactChoices(ink: Ink, uid: string, explained?: number): Generator<void, NoteChoices | null> {
    return this.parts.noteChoices.exactly(ink, uid, explained);
  }

  /**
   * One choice for a note against the best one there, priced by the left hand alone, its own ink lifted: fast enough to
   * ask for every note of a piece. Null where there is none such.
   */
  comparedByLeftHand(ink: Ink, uid: string, isMeant: (place: Placement) => boolean): ComparedChoice | null {
    return this.parts.noteChoices.comparedByLeftHand(ink, uid, isMeant);
  }
}
