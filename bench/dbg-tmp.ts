import { readFileSync } from 'node:fs';
import { LeftPlanner } from '../src/core/fingering/left/planLeft';
import { JointPlanner } from '../src/core/fingering/joint/planBoth';
import { PLAIN_STYLE } from '../src/core/fingering/right/style';
import { rightSettingOf } from '../src/core/fingering/right/setting';
import { problemOf } from '../src/core/fingering/problem';
import { CONCERT_FRETBOARD } from '../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../src/core/instrument/hands';
import { scoreOrThrow } from '../tests/helpers/music';
const score = scoreOrThrow(readFileSync('demo/' + process.argv[2] + '.musicxml', 'utf8'));
const problem = problemOf(score, CONCERT_FRETBOARD, ADULT_MEDIUM);
const left = new LeftPlanner(problem); const l = left.plan(new Map());
console.log('returns', problem.passes.returns.length, 'moments', problem.moments.length, 'L', l.cost);
const setting = rightSettingOf(score, problem, PLAIN_STYLE, () => null);
const jp = new JointPlanner(problem, left, setting) as any;
for (const name of ['together','agree','bound','ask']) {
  const orig = jp[name].bind(jp);
  jp[name] = (...a: any[]) => { const t = performance.now(); const r = orig(...a); console.log(name, Math.round(performance.now() - t), 'ms', r?.cost, name==='ask' ? `nodes ${Math.max(...jp.core.map((m: any) => m.nodes.length))} sum ${jp.core.reduce((s: number, m: any) => s + m.nodes.length, 0)} sit ${Math.max(...jp.strokes.map((m: any) => m.shared.situations.count))} var ${Math.max(...jp.core.map((m:any)=>m.variants.length))}` : name === 'together' ? Math.max(...a[1].map((x: any) => x.length)) : ''); return r; };
}
const j = jp.plan(new Map());
console.log(j.cost, j.lowerBound);
{
  const q = jp.ask(left.solve(new Map()), () => null);
  const b = jp.bound(q, jp.prices);
  console.log('L', b.left.cost / 512, 'R', b.right.cost / 512);
  const { bestPath } = await import('../src/core/fingering/lattice');
  const { variantsByStrings: vb } = await import('../src/core/fingering/joint/bound'); const { stringsOf: so } = await import('../src/core/fingering/joint/core');
  const path = bestPath(b.left);
  const rpath = bestPath(b.right);
  console.log(path.map((s: number, k: number) => { const m = jp.core[k]; const v = vb(m).get(so(m.layer, m.struckColumns, s)); const isNode = m.nodes.some((n: any) => n.state === s); const rv = jp.strokes[k+1].shared.states[rpath[k+1]].variant; return (isNode ? 'n' : v ? 's' : 'W') + (v ? v[0] : 'w') + ':' + ((v ? jp.prices[k][v[0]] : jp.prices[k][m.variants.length-1])/512).toFixed(0) + '/' + (m.variants[rv].forgets ? m.variants[rv].strokes.length ? '~' : 'w' : '') + rv + ':' + (jp.prices[k][rv]/512).toFixed(0); }).join(' '));
}
