/** `npm run bench`: prints a table and writes bench/results.json. Cold: a process that has planned another piece. */
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import type { Ink } from '../src/core/fingering/ink';
import { LeftPlanner } from '../src/core/fingering/left/planLeft';
import { stateCost } from '../src/core/fingering/left/stateCost';
import { follows, transitionCost } from '../src/core/fingering/left/transition';
import { Planner } from '../src/core/fingering/planner';
import { CONCERT_FRETBOARD } from '../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../src/core/instrument/handProfile';
import { closePool } from '../src/lib/server/db';
import { seedDemo } from '../scripts/demo/seed';
import { buildOnce } from '../scripts/run/build';
import { freePort, startCluster } from '../scripts/run/cluster';
import { prepareDatabase } from '../scripts/run/database';
import { chromiumOrThrow } from '../scripts/run/debian';
import { DEMO_FOLDER } from '../scripts/run/paths';
import { startServer, stopServer } from '../scripts/run/server';
import { scoreOrThrow } from '../tests/helpers/music';
import { twoVoices } from './music';

interface Figure {
  readonly what: string;
  readonly value: number;
  readonly unit: string;
}

const figures: Figure[] = [];
const note = (what: string, value: number, unit: string) => {
  figures.push({ what, value: Math.round(value * 100) / 100, unit });
  console.log(`${what.padEnd(62)} ${value.toFixed(2).padStart(10)} ${unit}`);
};

const timed = <T>(work: () => T): readonly [T, number] => {
  const started = performance.now();
  const result = work();
  return [result, performance.now() - started];
};

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

function coldPlans() {
  plannerOf(twoVoices(16, 99)).plan(new Map());
  for (const { name, xml } of demo) {
    const [planner, buildMs] = timed(() => plannerOf(xml));
    const [, planMs] = timed(() => planner.plan(new Map()));
    note(`cold plan, both hands: ${name}`, buildMs + planMs, 'ms');
  }
}

function slope() {
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
    note(`two voices, ${bars} bars: plan`, ms, 'ms');
    note(`two voices, ${bars} bars: plan per bar`, ms / bars, 'ms');
    note(`two voices, ${bars} bars: plan ÷ naive Viterbi of the left hand`, ms / naiveMs, 'ratio');
    note(
      `two voices, ${bars} bars: states a moment`,
      counts.reduce((sum, one) => sum + one, 0) / counts.length,
      'states',
    );
  }
}

function replans() {
  for (const { name, xml } of demo) {
    const planner = plannerOf(xml);
    const plan = planner.plan(new Map());
    const times = plan.notes.map((one) => {
      const ink: Ink = new Map([[one.uid, { finger: one.finger === 2 ? 3 : 2, string: null, pluck: null }]]);
      return timed(() => planner.plan(ink))[1];
    });
    times.sort((a, b) => a - b);
    note(`re-plan after one edit, median: ${name}`, times[Math.floor(times.length / 2)]!, 'ms');
    note(`re-plan after one edit, 95th percentile: ${name}`, times[Math.floor(times.length * 0.95)]!, 'ms');
  }
}

/** From starting the database and the server to the first painted score in a new browser. */
async function startToScore() {
  const folder = mkdtempSync(join(tmpdir(), 'oculon-bench-'));
  buildOnce();
  const first = await startCluster(folder);
  process.env.OCULON_DATABASE_URL = await prepareDatabase(first.ownerUrl, folder);
  await seedDemo(first.ownerUrl);
  await closePool();
  first.stop();

  const started = performance.now();
  const cluster = await startCluster(folder);
  const databaseUrl = await prepareDatabase(cluster.ownerUrl, folder);
  const server = await startServer({ port: await freePort(0), databaseUrl, demo: true });
  note('start with data: to the answering server', performance.now() - started, 'ms');
  const args = [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--no-first-run',
    '--disable-quic',
  ];
  const browser = await chromium.launch({ executablePath: chromiumOrThrow(), args });
  const page = await browser.newPage();
  await page.goto(server.address);
  const clicked = performance.now();
  await page.getByRole('link', { name: /Mill Bridge Dance/ }).click();
  await page.locator('[data-testid=score]').waitFor();
  note('piece clicked: to the painted score', performance.now() - clicked, 'ms');
  await page.locator('[data-mark=finger]').first().waitFor();
  note('piece clicked: to the fingered score', performance.now() - clicked, 'ms');
  note('start with data: to the fingered score', performance.now() - started, 'ms');
  await browser.close();
  await stopServer(server);
  cluster.stop();
  rmSync(folder, { recursive: true, force: true });
}

coldPlans();
slope();
replans();
await startToScore();
const machine = { cpu: cpus()[0]?.model ?? 'unknown', cores: cpus().length, node: process.version };
writeFileSync(new URL('results.json', import.meta.url), `${JSON.stringify({ machine, figures }, null, 2)}\n`);
