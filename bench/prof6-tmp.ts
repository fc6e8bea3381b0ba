import { LeftPlanner } from '../src/core/fingering/left/planLeft';
import { RightPlanner } from '../src/core/fingering/right/planRight';
import { scoreOrThrow } from '../tests/helpers/music';
import { problemOf } from '../src/core/fingering/problem';
import { CONCERT_FRETBOARD } from '../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../src/core/instrument/hands';
import { twoVoices } from './music';
for (const bars of [16, 64, 64, 512, 512]) {
const xml = twoVoices(bars, 1);
const t: number[] = [performance.now()];
const mark = () => t.push(performance.now());
const score = scoreOrThrow(xml); mark();
const p = problemOf(score, CONCERT_FRETBOARD, ADULT_MEDIUM); mark();
const l = new LeftPlanner(p); mark();
const plan = l.plan(new Map()); mark();
const r = new RightPlanner(p).plan(plan.placements, new Map()); mark();
const n = t.slice(1).map((x, i) => (x - t[i]!).toFixed(0));
console.log(bars, 'parse', n[0], 'problem', n[1], 'build', n[2], 'solve', n[3], 'right', n[4], (process.memoryUsage().heapUsed / 1e6).toFixed(0), (process.memoryUsage().arrayBuffers / 1e6).toFixed(0));
}
