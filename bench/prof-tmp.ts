import { LeftPlanner } from '../src/core/fingering/left/planLeft';
import { JointPlanner } from '../src/core/fingering/joint/planBoth';
import { PLAIN_STYLE } from '../src/core/fingering/right/style';
import { rightSettingOf } from '../src/core/fingering/right/setting';
import { problemOf } from '../src/core/fingering/problem';
import { CONCERT_FRETBOARD } from '../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../src/core/instrument/hands';
import { scoreOrThrow } from '../tests/helpers/music';
import * as music from './music';
const score = scoreOrThrow((music as any)[process.argv[2] ?? 'twoVoices'](64));
const problem = problemOf(score, CONCERT_FRETBOARD, ADULT_MEDIUM);
const left = new LeftPlanner(problem); left.plan(new Map());
const jp = new JointPlanner(problem, left, rightSettingOf(score, problem, PLAIN_STYLE, () => null)) as any;
const sums: Record<string, number> = {}; let counts: Record<string, number> = {};
for (const name of ['ask', 'kept', 'agree', 'bound', 'better', 'onStringsOf', 'together']) { const o = jp[name].bind(jp); jp[name] = (...a: any[]) => { const t = performance.now(); const r = o(...a); sums[name] = (sums[name] ?? 0) + performance.now() - t; counts[name] = (counts[name] ?? 0) + 1; return r; }; }
const o = left.solve.bind(left); (left as any).solve = (...a: any[]) => { const t = performance.now(); const r = (o as any)(...a); sums.left = (sums.left ?? 0) + performance.now() - t; return r; };
const show = (n: number) => { console.log(Object.entries(sums).map(([k, v]) => `${k} ${(v / n).toFixed(1)}×${((counts[k] ?? n) / n).toFixed(1)}`).join('  ')); for (const k in sums) { sums[k] = 0; counts[k] = 0; } };
const t0 = performance.now(); jp.plan(new Map()); console.log('cold', performance.now() - t0); show(1);
const N = 30; const all: number[] = [];
for (let k = 0; k < N; k++) { const strike = problem.strikes[Math.floor(k * problem.strikes.length / N)]!; const c = left.candidates(new Map(), strike.index); const other = c[Math.min(1, c.length - 1)]!.place; sums.left = 0; const t = performance.now(); jp.plan(new Map([[strike.uids[0]!, { finger: other.finger, string: other.string, pluck: null }]])); all.push(performance.now() - t); }
all.sort((a, b) => a - b); console.log('replan median', all[N >> 1], 'p95', all[Math.floor(N * 0.95)]); show(N);
