/** `npm run test:long [first seed] [count]`: random pieces against brute force; prints the seeds that fail. */
import { LeftPlanner } from '../../src/core/fingering/left/planLeft';
import { RightPlanner, strokeLayers } from '../../src/core/fingering/right/planRight';
import { strokeGroupsOf } from '../../src/core/fingering/right/strokes';
import { solveLattice } from '../../src/core/fingering/lattice';
import { barXml, problemFrom, randomNotes } from '../helpers/music';
import { naiveLeftCost, naiveRightCost } from '../helpers/naive';

const first = Number(process.argv[2] ?? Date.now() % 1_000_000);
const count = Number(process.argv[3] ?? 500);
const failed: number[] = [];
console.log(`seeds ${first} to ${first + count - 1}`);

for (let seed = first; seed < first + count; seed++) {
  const bare = problemFrom(barXml(randomNotes(seed, 3 + (seed % 3)), 60 + (seed % 7) * 20));
  const problem = { ...bare, hand: { ...bare.hand, highestFret: 5 } };
  const plan = new LeftPlanner(problem).plan(new Map());
  const left = plan.conflicts.length > 0 ? Infinity : plan.cost;
  const groups = strokeGroupsOf(problem, plan.placements);
  const layers = strokeLayers(groups, problem.hand);
  const right = solveLattice(
    layers,
    layers.map(() => null),
  )!.cost;
  const kept = new RightPlanner(problem).plan(plan.placements, new Map()).cost;
  if (left !== naiveLeftCost(problem) || right !== naiveRightCost(groups, problem.hand) || kept !== right) {
    failed.push(seed);
    console.log(`seed ${seed}: not the optimum`);
  }
}
console.log(`${count - failed.length} passed, ${failed.length} failed`);
process.exit(failed.length === 0 ? 0 : 1);
