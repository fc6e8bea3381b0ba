/** One passage played in several ways on the same strings: with a formula, or by a school, each in numbers. */
import type { Pluck } from '../../score/model';
import type { Ink, InkMarks } from '../problem/ink';
import { NO_INK } from '../problem/ink';
import type { FingeringProblem } from '../problem/problem';
import type { HandState } from '../left/rules/handState';
import { RightPlanner } from '../right/lattice/planRight';
import { RIGHT_SCHOOL_IDS, type RightSchoolId } from '../right/rules/schools';
import type { RightSetting } from '../right/rules/setting';
import { placedOn, type StrokeGroup } from '../right/rules/strokes';
import { walkRight } from '../right/explain/walk';
import type { Formula } from './formulas';
import { FORMULAS } from './formulas';
import { measureStrokes, type StrokeMeasure } from './measure';

export interface Way {
  /** A formula's letters or a school's id; null for the plan as it is. */
  readonly formula: string | null;
  readonly school: RightSchoolId | null;
  readonly letters: readonly Pluck[];
  readonly measure: StrokeMeasure;
}

/** Formulas that do not fit a chord leave it to the planner; so many are compared, the easiest first. */
const MOST_FORMULAS = 8;
const LETTERS_SHOWN = 12;

/** Letters of a formula dealt to the groups of a passage: by strike. Chords take the next finger on top, p below. */
export function dealt(groups: readonly StrokeGroup[], { letters }: Formula): ReadonlyMap<number, Pluck> {
  const given = new Map<number, Pluck>();
  let n = 0;
  for (const { strokes } of groups) {
    if (strokes.length === 0) continue;
    const letter = letters[n++ % letters.length]!;
    if (strokes.length === 1) given.set(strokes[0]!.strike, letter);
    else if (strokes.length === 2 && letter !== 'p') {
      given.set(strokes[0]!.strike, 'p');
      given.set(strokes[1]!.strike, letter);
    }
  }
  return given;
}

/** From one moment to another. */
export interface MomentSpan {
  readonly from: number;
  readonly to: number;
}

/** The ink that plays a formula over some moments; what is inked there already stays. */
export function formulaInk(
  problem: FingeringProblem,
  groups: readonly StrokeGroup[],
  { from, to }: MomentSpan,
  formula: Formula,
  ink: Ink,
): Ink {
  const next = new Map<string, InkMarks>(ink);
  for (const [strike, pluck] of dealt(groups.slice(from, to + 1), formula)) {
    const uid = problem.strikes[strike]!.uids[0]!;
    const marks = next.get(uid) ?? NO_INK;
    if (marks.pluck === null) next.set(uid, { ...marks, pluck });
  }
  return next;
}

/** The plan as it is, then formulas from the easiest on, then every school. */
export function compareWays(
  problem: FingeringProblem,
  setting: RightSetting,
  settingOf: (school: RightSchoolId) => RightSetting,
  states: readonly HandState[],
  { ink, from, to }: MomentSpan & { readonly ink: Ink },
): readonly Way[] {
  const placed = placedOn(problem, states);
  const free: Ink = new Map([...ink].map(([uid, marks]) => [uid, { ...marks, pluck: null }]));
  const wayOf = (own: RightSetting, planner: RightPlanner, marks: Ink) => {
    const plan = planner.plan(placed, marks);
    if (plan.conflicts.some((strikes) => strikes.some((strike) => within(problem, strike, from, to))))
      return null;
    const steps = walkRight(problem, own, states, plan.played);
    return {
      letters: plan.played
        .slice(from, to + 1)
        .flatMap(({ letters }) => letters)
        .slice(0, LETTERS_SHOWN),
      measure: measureStrokes(problem, steps, from, to),
    };
  };
  const planner = new RightPlanner(problem, setting);
  const present = wayOf(setting, planner, ink)!;
  const groups = planner.plan(placed, ink).groups;
  const singles = groups.slice(from, to + 1).filter(({ strokes }) => strokes.length > 0).length;
  const formulas = FORMULAS.filter(({ letters }) => letters.length <= singles).flatMap((formula): Way[] => {
    const way = wayOf(setting, planner, formulaInk(problem, groups, { from, to }, formula, free));
    return way ? [{ formula: formula.id, school: null, ...way }] : [];
  });
  const schools = RIGHT_SCHOOL_IDS.flatMap((school): Way[] => {
    const own = settingOf(school);
    const way = wayOf(own, new RightPlanner(problem, own), free);
    return way ? [{ formula: null, school, ...way }] : [];
  });
  return [
    { formula: null, school: null, ...present },
    ...formulas.sort((a, b) => a.measure.effort - b.measure.effort).slice(0, MOST_FORMULAS),
    ...schools,
  ];
}

const within = ({ moments }: FingeringProblem, strike: number, from: number, to: number) =>
  moments.slice(from, to + 1).some(({ struck }) => struck.includes(strike));
