/**
 * Plans of the demo and of generated études. The left hand is measured alone, with all prices (both directions of
 * the recursion). Warm: the best of five in this process, for both hands and 64 bars of fifteen. Tables of the hand (what
 * two places or two ranges cost, whatever the piece) stand ready in a warm process; nothing of the piece does. A worker's first plan:
 * the median of three processes that have planned only what a planner worker plans as it starts. Fresh: of three that
 * have planned nothing. Edits: the least of three planners that have not been asked for it before.
 */
import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Ink } from '../src/core/fingering/problem/ink';
import type { PlannedNote } from '../src/core/fingering/report/plan';
import { LeftPlanner } from '../src/core/fingering/left/lattice/planLeft';
import { stateCost, transitionCost } from '../src/core/fingering/left/rules/prices';
import { follows } from '../src/core/fingering/left/rules/follows';
import { Planner } from '../src/core/fingering/planner';
import type { Score } from '../src/core/score/model';
import { DEFAULT_PLAYER } from '../src/core/instrument/hands';
import { DEMO_FOLDER, ROOT } from '../scripts/run/paths';
import { problemFrom, scoreOrThrow } from '../tests/helpers/music';
import { maybeJudgementFolder } from '../calibration/judgement/passages';
import { note, percentile, timed } from './figures';
import { barredVoices, chordal, longHeld, repeatedVoices, tremolo, twoVoices } from './music';

const { hand, fretboard } = DEFAULT_PLAYER;
const plannerOf = (xml: string) => new Planner(scoreOrThrow(xml), fretboard, hand);
const demo = readdirSync(DEMO_FOLDER).map((name) => ({
  name,
  xml: readFileSync(join(DEMO_FOLDER, name), 'utf8'),
}));

export const ETUDES = { 'two voices': twoVoices, chordal, tremolo, 'long held': longHeld } as const;
export type EtudeName = keyof typeof ETUDES;

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
        least = Math.min(least, costs[s]! + transitionCost(problem, from, moment, to));
      });
      return least + own;
    });
  });
  return Math.min(...costs);
}

/** The left hand with all prices; also run by `coldPlan.ts` in a process of its own. */
export function leftPlanMs(name: EtudeName, bars: number): number {
  const problem = problemFrom(ETUDES[name](bars));
  return timed(() => new LeftPlanner(problem).plan(new Map()))[1];
}

function coldMs(name: EtudeName, bars: number, start: 'fresh' | 'warmed'): number {
  const script = join(ROOT, 'out/bench/coldPlan.js');
  const runs = [1, 2, 3].map(() => {
    const { stdout } = spawnSync(process.execPath, [script, name, String(bars), start], { encoding: 'utf8' });
    return Number(stdout.trim());
  });
  return percentile(runs, 0.5);
}

export function etudes() {
  for (const name of Object.keys(ETUDES) as EtudeName[]) {
    let perBarAt64 = 0;
    for (const bars of [8, 64, 512]) {
      const problem = problemFrom(ETUDES[name](bars));
      const before = process.memoryUsage();
      const runs = Array.from({ length: bars === 512 ? 2 : 5 }, () =>
        timed(() => {
          const made = new LeftPlanner(problem);
          const plan = made.plan(new Map());
          return { made, gap: plan.cost - plan.lowerBound };
        }),
      );
      const warmMs = Math.min(...runs.map(([, ms]) => ms));
      const { made, gap } = runs.at(-1)![0];
      const after = process.memoryUsage();
      const counts = made.stateCounts;
      const label = `${name}, ${bars} bars`;
      note('planning', `${label}: left hand with all prices, warm`, warmMs, 'ms');
      if (bars === 64) {
        note('planning', `${label}: the same, a worker's first plan`, coldMs(name, bars, 'warmed'), 'ms');
        note('planning', `${label}: the same in a fresh process`, coldMs(name, bars, 'fresh'), 'ms');
        perBarAt64 = warmMs / bars;
      }
      note(
        'planning',
        `${label}: states a moment`,
        counts.reduce((sum, one) => sum + one, 0) / counts.length,
        'states',
      );
      note('planning', `${label}: most states`, Math.max(...counts), 'states');
      note(
        'planning',
        `${label}: memory taken`,
        (after.heapUsed + after.arrayBuffers - before.heapUsed - before.arrayBuffers) / runs.length / 1e6,
        'MB',
      );
      note('planning', `${label}: cost above the lower bound`, gap, 'tenths');
      if (bars === 512)
        note('planning', `${label}: a bar ÷ a bar of 64`, warmMs / bars / perBarAt64, 'ratio');
      if (bars === 64 && name === 'two voices') {
        const [, naiveMs] = timed(() => naiveViterbi(made));
        note('planning', `${label}: warm ÷ naive Viterbi, forward only`, warmMs / naiveMs, 'ratio');
      }
    }
  }
}

/** The best plan of some runs in ms, and how far its cost may be from the best there is. */
function bothMs(xml: string, runs: number): { readonly ms: number; readonly gap: number } {
  const score = scoreOrThrow(xml);
  const plans = Array.from({ length: runs }, () =>
    timed(() => new Planner(score, fretboard, hand).plan(new Map())),
  );
  const { cost, lowerBound } = plans[0]![0];
  return { ms: Math.min(...plans.map(([, ms]) => ms)), gap: cost - lowerBound };
}

/** By bars: so many plans in a row, of which the best counts; after some the machine has compiled everything. */
const RUNS: Readonly<Record<number, number>> = { 8: 1, 64: 15 };

/** As many bars in pieces of 64 as in one of 512, by turns: each ratio is of neighbours in time, and the median counts. */
function slope(rounds = 5): void {
  const pieces = Array.from({ length: 8 }, (_, k) => scoreOrThrow(barredVoices(64, k + 1)));
  const whole = scoreOrThrow(barredVoices(512));
  const planOf = (score: Score) => new Planner(score, fretboard, hand).plan(new Map());
  const times = Array.from({ length: rounds }, () => {
    const [, parts] = timed(() => pieces.forEach(planOf));
    const [plan, ms] = timed(() => planOf(whole));
    return { parts, ms, gap: plan.cost - plan.lowerBound };
  });
  const label = 'two voices, 512 bars: both hands, rings and findings';
  note('both', `${label}, warm`, Math.min(...times.map(({ ms }) => ms)), 'ms');
  note('both', `${label}, cost above the lower bound`, times[0]!.gap, 'tenths');
  const ratios = times.map(({ ms, parts }) => ms / parts);
  note('both', `${label} ÷ eight pieces of 64 bars`, percentile(ratios, 0.5), 'ratio');
}

export function bothHands() {
  for (const { name, xml } of demo) {
    const { ms, gap } = bothMs(xml, 3);
    note('both', `both hands, rings and findings, warm: ${name}`, ms, 'ms');
    note('both', `both hands, cost above the lower bound: ${name}`, gap, 'tenths');
  }
  for (const name of Object.keys(ETUDES) as EtudeName[]) {
    for (const bars of [8, 64]) {
      const { ms, gap } = bothMs(ETUDES[name](bars), RUNS[bars]!);
      const label = `${name}, ${bars} bars: both hands, rings and findings`;
      note('both', `${label}, warm`, ms, 'ms');
      note('both', `${label}, cost above the lower bound`, gap, 'tenths');
      if (bars === 64 && name === 'two voices') {
        const made = new LeftPlanner(problemFrom(ETUDES[name](bars)));
        const [, naiveMs] = timed(() => naiveViterbi(made));
        note('both', `${label} ÷ naive Viterbi of the left hand`, ms / naiveMs, 'ratio');
      }
    }
  }
  judgedPassages();
  // Long pieces are measured on one kind only: both hands take their time.
  slope();
}

/** Textures that used to be slow: a tremolo of 44 notes, and a line with thousands of states. Only where they lie. */
const JUDGED = [
  ['arp', 'arp37'],
  ['line', 'lin27'],
] as const;

function judgedPassages() {
  const folder = maybeJudgementFolder();
  if (!folder) return;
  for (const [family, id] of JUDGED) {
    const xml = readFileSync(join(folder, 'passages', family, `${id}.musicxml`), 'utf8');
    const { ms, gap } = bothMs(xml, 5);
    note('both', `passage ${id}: both hands, rings and findings, warm`, ms, 'ms');
    note('both', `passage ${id}: cost above the lower bound`, gap, 'tenths');
  }
}

/** So many notes at most, evenly spread, are edited where both hands are planned anew. */
const MOST_EDITS = 60;

const NO_INK: Ink = new Map();

function spread(label: string, times: readonly number[]) {
  note('both', `${label}, median`, percentile(times, 0.5), 'ms');
  note('both', `${label}, 95th percentile`, percentile(times, 0.95), 'ms');
}

/** One note after the other gets another finger, and that is taken back: two edits. */
function editTimes(plan: (ink: Ink) => unknown, inks: readonly Ink[]): readonly number[] {
  return inks.flatMap((ink) => [timed(() => plan(ink))[1], timed(() => plan(new Map(NO_INK)))[1]]);
}

/** The machine is noisy: the same edits are made on so many planners, each for the first time, and the least counts. */
const PLANNERS = 3;

function leastTimes(times: () => readonly number[]): readonly number[] {
  const runs = Array.from({ length: PLANNERS }, times);
  return runs[0]!.map((_ms, k) => Math.min(...runs.map((run) => run[k]!)));
}

/** Note by note what is proposed is inked and stays: what a teacher does who agrees. */
function acceptTimes(planner: Planner, notes: readonly PlannedNote[]): readonly number[] {
  let ink: Ink = NO_INK;
  let proposed = notes;
  return notes.map(({ uid }, n) => {
    const { finger, string, pluck } = proposed[n]!;
    ink = new Map(ink).set(uid, { finger, string, pluck });
    const [plan, ms] = timed(() => planner.plan(ink));
    proposed = plan.notes;
    return ms;
  });
}

/** A planner as the desk's worker has it once it has prepared itself, while nobody asks. */
function openedPlanner(xml: string): Planner {
  const planner = plannerOf(xml);
  planner.plan(NO_INK);
  for (const _ of planner.preparing()) continue;
  return planner;
}

const ASKED = 24;

/** What a note's panel asks for: bounds at once, then exact prices, in steps between which others are heard. */
export function prices() {
  const pieces = [
    ...demo,
    { name: 'repeats and endings, 12 bars', xml: repeatedVoices(12) },
    { name: 'two voices, 64 bars', xml: barredVoices(64) },
    { name: 'two voices, 200 bars', xml: barredVoices(200) },
  ];
  for (const { name, xml } of pieces) {
    const planner = openedPlanner(xml);
    const { notes } = planner.plan(NO_INK);
    const asked = notes.filter((_note, k) => k % Math.ceil(notes.length / ASKED) === 0);
    const bounds: number[] = [];
    const exact: number[] = [];
    for (const { uid } of asked) {
      bounds.push(timed(() => planner.choices(NO_INK, uid))[1]);
      exact.push(timed(() => finish(planner.exactChoices(NO_INK, uid)))[1]);
    }
    spread(`bounds of a note: ${name}`, bounds);
    spread(`exact prices of a note: ${name}`, exact);
  }
}

function finish(steps: Generator<void, unknown>): void {
  while (!steps.next().done) continue;
}

/** The left hand alone, and everything. */
export function replans() {
  const pieces = [
    ...demo,
    { name: 'two voices, 64 bars', xml: twoVoices(64) },
    { name: 'two voices, 200 bars', xml: barredVoices(200) },
  ];
  for (const { name, xml } of pieces) {
    const { problem } = plannerOf(xml);
    const { notes } = openedPlanner(xml).plan(NO_INK);
    const inked = notes.map(
      (one): Ink => new Map([[one.uid, { finger: one.finger === 2 ? 3 : 2, string: null, pluck: null }]]),
    );
    const left = () => {
      const planner = new LeftPlanner(problem);
      planner.plan(NO_INK);
      return editTimes((ink) => planner.plan(ink), inked);
    };
    spread(`left hand after one edit: ${name}`, leastTimes(left));
    const every = Math.ceil(inked.length / MOST_EDITS);
    const sample = inked.filter((_ink, k) => k % every === 0);
    const everything = () => {
      const planner = openedPlanner(xml);
      return editTimes((ink) => planner.plan(ink), sample);
    };
    spread(`everything after one edit: ${name}`, leastTimes(everything));
    spread(
      `everything as note after note is accepted: ${name}`,
      leastTimes(() => acceptTimes(openedPlanner(xml), notes)),
    );
  }
}
