import { LeftPlanner } from '../src/core/fingering/left/planLeft';
import { problemFrom } from '../tests/helpers/music';
import { twoVoices } from './music';
new LeftPlanner(problemFrom(twoVoices(16, 99))).plan(new Map());
const p = problemFrom(twoVoices(64, 1));
const out: string[] = [];
for (let s = 1; s <= 12; s++) {  const t0 = performance.now(); const l = new LeftPlanner(p); const t1 = performance.now(); l.plan(new Map()); out.push([(t1 - t0).toFixed(0), (performance.now() - t1).toFixed(0)].join('+')); }
console.log(out.join(' '));
