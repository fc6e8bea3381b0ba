import { LeftPlanner } from '../src/core/fingering/left/planLeft';
import { problemFrom } from '../tests/helpers/music';
import { twoVoices } from './music';
import { readFileSync } from 'node:fs';
for (const [n, xml] of [['64', twoVoices(64, 1)], ['lan', readFileSync('demo/lantern-stairs.musicxml', 'utf8')]] as const) {
  const p = new LeftPlanner(problemFrom(xml));
  p.plan(new Map());
  let all = 0, priced = 0, arr = 0, feas = 0, crowds = 0;
  for (const l of p.layers) { const w = l.ways as any; if (!w) continue; all += w.prices.length; arr += w.arrivalTo.length; crowds += w.members.length; for (const x of w.prices) { if (x >= 0) priced++; if (x >= 1e9) feas++; } }
  console.log(n, 'pairs', all, 'priced', priced, 'infeasible', feas, 'arrivals', arr, 'crowds', crowds, 'layers', p.layers.length);
}
