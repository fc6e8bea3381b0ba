import { readFileSync, readdirSync } from 'node:fs';
import { LeftPlanner } from '../src/core/fingering/left/planLeft';
import { JointPlanner } from '../src/core/fingering/joint/planBoth';
import { PLAIN_STYLE } from '../src/core/fingering/right/style';
import { rightSettingOf } from '../src/core/fingering/right/setting';
import { problemOf } from '../src/core/fingering/problem';
import { CONCERT_FRETBOARD } from '../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../src/core/instrument/hands';
import { scoreOrThrow } from '../tests/helpers/music';
import * as music from './music';
const t = () => performance.now();
const scores: [string, any][] = readdirSync('demo').slice(0, process.argv[3] ? 9 : 0).map((n) => [n, scoreOrThrow(readFileSync('demo/' + n, 'utf8'))]);
for (const kind of (process.argv[2] ?? 'twoVoices').split(',') as const) scores.push([kind, scoreOrThrow((music as any)[kind](64))]);
for (let round = 0; round < 2; round++)
for (const [name, score] of scores) {
  const p0 = t();
  const problem = problemOf(score, CONCERT_FRETBOARD, ADULT_MEDIUM);
  const left = new LeftPlanner(problem); const l = left.plan(new Map());
  const p1 = t();
  const setting = rightSettingOf(score, problem, PLAIN_STYLE, () => null);
  const jp = new JointPlanner(problem, left, setting);
  const j = jp.plan(new Map());
  const p2 = t();
  const times: number[] = [];
  for (let k = 0; k < 40; k++) {
    const strike = problem.strikes[Math.floor(k * problem.strikes.length / 40)]!;
    const c = left.candidates(new Map(), strike.index);
    const other = c[Math.min(1, c.length - 1)]!.place;
    const a = t();
    jp.plan(new Map([[strike.uids[0]!, { finger: other.finger, string: other.string, pluck: null }]]));
    times.push(t() - a);
  }
  times.sort((a, b) => a - b);
  console.log(name, problem.moments.length, 'left', Math.round(p1 - p0), 'joint', Math.round(p2 - p1), 'cost', l.cost, j.cost, j.lowerBound, 'replan', times[20]!.toFixed(1), times[37]!.toFixed(1));
}
