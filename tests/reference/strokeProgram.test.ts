/**
 * The right hand, and both hands together, against HiGHS (a general-purpose solver of integer programs) on seeded random
 * pieces: the same least cost. A planner that takes the left hand first and the right on its strings must miss it on
 * some of them, or the joint cases would prove little.
 */
import highsLoader from 'highs';
import { describe, expect, it } from 'vitest';
import { JointPlanner } from '../../src/core/fingering/dual/planBoth';
import { LeftPlanner } from '../../src/core/fingering/left/lattice/planLeft';
import { LEFT_TERM_IDS } from '../../src/core/fingering/left/rules/terms';
import type { LeftWeights } from '../../src/core/fingering/left/rules/weights';
import type { FingeringProblem } from '../../src/core/fingering/problem/problem';
import { type Placed, RightPlanner } from '../../src/core/fingering/right/lattice/planRight';
import { plainSetting, type RightSetting } from '../../src/core/fingering/right/rules/setting';
import { placedOn } from '../../src/core/fingering/right/rules/strokes';
import type { RightWeights } from '../../src/core/fingering/right/rules/weights';
import { leftHand, PRICED_TERMS } from '../helpers/integerProgram';
import { LinearProgram } from '../helpers/linearProgram';
import { barXml, problemFrom, randomFrom, randomNotes } from '../helpers/music';
import { linkHands, strokeProgram, UNPRICED_STROKES } from '../helpers/strokeProgram';

const highs = await highsLoader();

function solved(program: string): number {
  const { Status, ObjectiveValue } = highs.solve(program, { mip_rel_gap: 0, mip_abs_gap: 0 });
  if (Status !== 'Optimal') throw new Error(`the solver says ${Status}`);
  return Math.round(ObjectiveValue);
}

/** @param factor on every weight: a right hand as dear as this makes the left one look for other strings */
function settingFor(problem: FingeringProblem, factor = 1): RightSetting {
  const setting = plainSetting(problem);
  const styles = setting.styles.map((manner) => {
    const off = Object.fromEntries(UNPRICED_STROKES.map((id) => [id, 0])) as Partial<RightWeights>;
    const weights = Object.fromEntries(
      Object.entries(manner.weights).map(([id, weight]) => [id, factor * weight]),
    ) as RightWeights;
    return { ...manner, weights: { ...weights, ...off } };
  });
  return { ...setting, styles };
}

/** So dear that one piece in seven wants other strings than the left hand alone would take. */
const DEAR = 100;
/** As many as there is time for every day; OCULON_PROGRAMS=300 are those of a long run. */
const COUNT = Number(process.env['OCULON_PROGRAMS'] ?? 120);
const RIGHT_CASES = Array.from({ length: COUNT }, (_, seed) => seed);
const JOINT_CASES = Array.from({ length: Math.round(COUNT / 2) }, (_, seed) => seed);

function anyStrings(problem: FingeringProblem, seed: number): Placed {
  const random = randomFrom(seed + 900);
  return problem.moments.map(({ struck }) => {
    const free = [1, 2, 3, 4, 5, 6];
    return struck.map((strike) => {
      const [string] = free.splice(Math.floor(random() * free.length), 1);
      return { strike, place: { string: string!, fret: 2, finger: 1 }, slurred: random() < 0.08 };
    });
  });
}

describe('the right hand against HiGHS', () => {
  it.each(RIGHT_CASES)('random strokes %i', (seed) => {
    const problem = problemFrom(barXml(randomNotes(seed, 5), 60 + (seed % 9) * 20));
    const setting = settingFor(problem);
    const placed = anyStrings(problem, seed);
    const { cost } = new RightPlanner(problem, setting).plan(placed, new Map());
    expect(cost).toBe(
      solved(
        strokeProgram(
          problem,
          setting,
          placed.map((row) => [row]),
        ),
      ),
    );
  });
});

describe('both hands against HiGHS', () => {
  let [solvedCases, apart] = [0, 0];

  it.each(JOINT_CASES)('random piece %i', (seed) => {
    const notes = randomNotes(seed, 3).map((note) => ({ ...note, midi: Math.min(note.midi, 68) }));
    const bare = problemFrom(barXml(notes, 80 + (seed % 7) * 25));
    const weights = Object.fromEntries(
      LEFT_TERM_IDS.map((id) => [
        id,
        (PRICED_TERMS as readonly string[]).includes(id) ? bare.weights[id] : 0,
      ]),
    ) as LeftWeights;
    const hand = { ...bare.hand, highestFret: 5, barreStringsAtMost: 1, smallBarreStringsAtMost: 1 };
    const problem = { ...bare, hand, weights };
    const setting = settingFor(problem, DEAR);
    const left = new LeftPlanner(problem);
    const first = left.plan(new Map());
    const both = new JointPlanner(problem, left, setting).plan(new Map());
    if (first.conflicts.length > 0) return;
    solvedCases++;
    const model = new LinearProgram();
    linkHands(model, problem, setting, leftHand(model, problem, new Map(), false));
    expect(both.cost).toBe(solved(model.text()));
    expect(both.lowerBound).toBe(both.cost);
    const oneByOne = new RightPlanner(problem, setting).plan(placedOn(problem, first.states), new Map());
    if (first.cost + oneByOne.cost > both.cost) apart++;
  });

  it('were nearly all playable, and the left hand first would miss the best in many of them', () => {
    expect(solvedCases).toBeGreaterThan(JOINT_CASES.length * (100 / 150));
    expect(apart).toBeGreaterThan(JOINT_CASES.length * (15 / 150));
  });
});
