/** `npm run test:long [first seed] [count]`: random pieces against brute force; prints the seeds that fail. */
import { LeftPlanner } from '../../src/core/fingering/left/lattice/planLeft';
import { JointPlanner } from '../../src/core/fingering/dual/planBoth';
import { RightPlanner } from '../../src/core/fingering/right/lattice/planRight';
import { plainSetting } from '../../src/core/fingering/right/rules/setting';
import { placedOn } from '../../src/core/fingering/right/rules/strokes';
import { barXml, problemFrom, randomNotes } from '../helpers/music';
import { naiveJointCost, naiveLeftCost, naiveRightCost } from '../helpers/naive';

const first = Number(process.argv[2] ?? Date.now() % 1_000_000);
const count = Number(process.argv[3] ?? 500);
const failed: number[] = [];
console.log(`seeds ${first} to ${first + count - 1}`);

for (let seed = first; seed < first + count; seed++) {
  const bare = problemFrom(barXml(randomNotes(seed, 3 + (seed % 3)), 60 + (seed % 7) * 20));
  const problem = { ...bare, hand: { ...bare.hand, highestFret: 5 } };
  const planner = new LeftPlanner(problem);
  const plan = planner.plan(new Map());
  if (plan.conflicts.length > 0) continue;
  const right = new RightPlanner(problem).plan(placedOn(problem, plan.states), new Map());
  const setting = plainSetting(problem);
  const both = new JointPlanner(problem, planner, setting).plan(new Map());
  if (
    plan.cost !== naiveLeftCost(problem) ||
    right.cost !== naiveRightCost(problem, right.groups) ||
    both.cost !== naiveJointCost(problem, setting, plan.cost) ||
    both.cost !== both.lowerBound
  ) {
    failed.push(seed);
    console.log(`seed ${seed}: not the optimum`);
  }
}
console.log(`${count - failed.length} passed, ${failed.length} failed`);
process.exit(failed.length === 0 ? 0 : 1);
