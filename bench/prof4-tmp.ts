import { LeftPlanner } from '../src/core/fingering/left/planLeft';
import { problemFrom } from '../tests/helpers/music';
import { twoVoices } from './music';
const p = problemFrom(twoVoices(64, 1));
const t0 = performance.now(); const l = new LeftPlanner(p); const t1 = performance.now(); l.plan(new Map());
console.log('fresh', (t1 - t0).toFixed(0), (performance.now() - t1).toFixed(0));
