import { PASSAGES } from '../calibration/passages/all';
import { taskOf } from '../calibration/passage';
import { scoreOf, nearestAccepted, inkOfPlaces } from '../calibration/measure';
import { LeftPlanner } from '../src/core/fingering/left/planLeft';
const txt = (p: any) => (p ? `${p.string}/${p.fret}-${p.finger}` : 'x');
for (const [cat, list] of Object.entries(PASSAGES)) {
  let ok = 0;
  for (const passage of list) {
    try {
      const task = taskOf(passage);
      const planner = new LeftPlanner(task.problem);
      const plan = planner.plan(new Map());
      const s = scoreOf(task, plan.placements);
      if (s.whole) ok++;
      else { const want = nearestAccepted(task, plan.placements);
        const forced = planner.plan(inkOfPlaces(task, want));
        console.log('  ', cat, passage.id, 'cost', plan.cost, 'accepted', forced.cost, forced.conflicts.length ? 'CONFLICT' : ''); console.log('      got ', plan.placements.map(txt).join(' ')); console.log('      want', want.map(txt).join(' ')); }
    } catch (e) { console.log('ERR', cat, passage.id, (e as Error).message); }
  }
  console.log(cat, ok, '/', list.length);
}
