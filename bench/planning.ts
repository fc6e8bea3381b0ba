/** Plans of the demo and of generated music. Cold: a process that has planned another piece. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Ink } from '../src/core/fingering/ink';
import { LeftPlanner } from '../src/core/fingering/left/planLeft';
import { stateCost } from '../src/core/fingering/left/stateCost';
import { follows, transitionCost } from '../src/core/fingering/left/transition';
import { Planner } from '../src/core/fingering/planner';
import { CONCERT_FRETBOARD } from '../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../src/core/instrument/hands';
import { DEMO_FOLDER } from '../scripts/run/paths';
import { scoreOrThrow } from '../tests/helpers/music';
import { note, timed } from './figures';
import { twoVoices } from './music';

const plannerOf = (xml: string) => new Planner(scoreOrThrow(xml), CONCERT_FRETBOARD, ADULT_MEDIUM);
const demo = readdirSync(DEMO_FOLDER).map((name) => ({
  name,
  xml: readFileSync(join(DEMO_FOLDER, name), 'utf8'),
}));

/** Forward over all pairs of states, nothing shared, nothing kept. */
function naiveViterbi(planner: LeftPlanner): number {
  const { problem, layers } = planner;
  let costs: number[] = [];
  layers.forEach((layer, k) => {
    const moment = problem.moments[k]!;
    costs = layer.states.map((to) => {
      const own = stateCost(problem, moment, to);
      if (k === 0) return own;
      let least = Infinity;
      layers[k - 1]!.states.forEach((from, s) => {
        if (!follows(problem, from, to, moment)) return;
        least = Math.min(
          least,
          costs[s]! + transitionCost(problem, problem.moments[k - 1]!, from, moment, to),
        );
      });
      return least + own;
    });
  });
  return Math.min(...costs);
}

export function coldPlans() {
  plannerOf(twoVoices(16, 99)).plan(new Map());
  for (const { name, xml } of demo) {
    const [planner, buildMs] = timed(() => plannerOf(xml));
    const [, planMs] = timed(() => planner.plan(new Map()));
    note('planning', `cold plan, both hands: ${name}`, buildMs + planMs, 'ms');
  }
}

export function slope() {
  for (const bars of [8, 64, 512]) {
    const xml = twoVoices(bars);
    const [planner, ms] = timed(() => {
      const made = plannerOf(xml);
      made.plan(new Map());
      return made;
    });
    const left = new LeftPlanner(planner.problem);
    const [, naiveMs] = timed(() => naiveViterbi(left));
    const counts = left.stateCounts;
    note('planning', `two voices, ${bars} bars: plan`, ms, 'ms');
    note('planning', `two voices, ${bars} bars: plan per bar`, ms / bars, 'ms');
    note(
      'planning',
      `two voices, ${bars} bars: plan ÷ naive Viterbi of the left hand`,
      ms / naiveMs,
      'ratio',
    );
    note(
      'planning',
      `two voices, ${bars} bars: states a moment`,
      counts.reduce((sum, one) => sum + one, 0) / counts.length,
      'states',
    );
  }
}

export function replans() {
  for (const { name, xml } of demo) {
    const planner = plannerOf(xml);
    const plan = planner.plan(new Map());
    const times = plan.notes.map((one) => {
      const ink: Ink = new Map([[one.uid, { finger: one.finger === 2 ? 3 : 2, string: null, pluck: null }]]);
      return timed(() => planner.plan(ink))[1];
    });
    times.sort((a, b) => a - b);
    note('planning', `re-plan after one edit, median: ${name}`, times[Math.floor(times.length / 2)]!, 'ms');
    note(
      'planning',
      `re-plan after one edit, 95th percentile: ${name}`,
      times[Math.floor(times.length * 0.95)]!,
      'ms',
    );
  }
}
