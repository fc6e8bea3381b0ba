import { LeftPlanner } from '../../src/core/fingering/left/planLeft';
import { JointPlanner } from '../../src/core/fingering/joint/planBoth';
import { plainSetting } from '../../src/core/fingering/right/setting';
import { barXml, problemFrom, randomNotes } from '../helpers/music';
import { naiveJointCost } from '../helpers/naive';
let wrong=0, open=0, better=0, n=0;
for (let seed = 1; seed <= 120; seed++) {
  const bare = problemFrom(barXml(randomNotes(seed, 3 + (seed % 3)), 60 + (seed % 7) * 20));
  const problem = { ...bare, hand: { ...bare.hand, highestFret: 5 } };
  const left = new LeftPlanner(problem);
  const lp = left.plan(new Map());
  if (lp.conflicts.length) continue;
  const setting = plainSetting(problem);
  const joint = new JointPlanner(problem, left, setting).plan(new Map());
  const naive = naiveJointCost(problem, setting, lp.cost);
  n++;
  if (joint.cost !== naive) { wrong++; console.log(seed, joint.cost, joint.lowerBound, naive); }
  if (joint.lowerBound < joint.cost) open++;
}
console.log({n, wrong, open});
