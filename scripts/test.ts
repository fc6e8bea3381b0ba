/** `./test`: every check and test against a throw-away cluster; the last line reads "N passed, N failed". */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { closePool } from '../src/lib/server/db';
import { seedDemo } from './demo/seed';
import { buildOnce } from './run/build';
import { freePort, startCluster } from './run/cluster';
import { prepareDatabase } from './run/database';
import { chromiumOrThrow } from './run/debian';
import { ROOT } from './run/paths';
import { startServer, stopServer } from './run/server';
import { run } from './run/shell';

interface Tally {
  readonly passed: number;
  readonly failed: number;
}

const bin = (name: string) => join(ROOT, 'node_modules/.bin', name);

/** A tool that passes or fails as a whole. */
async function check(name: string, command: string, args: readonly string[]): Promise<Tally> {
  console.log(`\n— ${name}`);
  const code = await run(command, args, { cwd: ROOT });
  return code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
}

async function unitTests(folder: string, env: NodeJS.ProcessEnv): Promise<Tally> {
  console.log('\n— unit, reference and server tests');
  const file = join(folder, 'vitest.json');
  const code = await run(
    bin('vitest'),
    ['run', '--reporter=default', '--reporter=json', `--outputFile=${file}`],
    { cwd: ROOT, env },
  );
  const report = JSON.parse(readFileSync(file, 'utf8')) as { numPassedTests: number; numFailedTests: number };
  // A file that cannot even be loaded counts as a failure, too.
  const failed = Math.max(report.numFailedTests, code === 0 ? 0 : 1);
  return { passed: report.numPassedTests, failed };
}

async function browserTests(folder: string, env: NodeJS.ProcessEnv): Promise<Tally> {
  console.log('\n— browser tests');
  const file = join(folder, 'playwright.json');
  const browserEnv = { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: file };
  const code = await run(bin('playwright'), ['test', '--reporter=list,json'], { cwd: ROOT, env: browserEnv });
  const { stats } = JSON.parse(readFileSync(file, 'utf8')) as {
    stats: { expected: number; unexpected: number; flaky: number };
  };
  return { passed: stats.expected, failed: Math.max(stats.unexpected + stats.flaky, code === 0 ? 0 : 1) };
}

async function main(): Promise<Tally> {
  const folder = mkdtempSync(join(tmpdir(), 'oculon-test-'));
  const chromium = chromiumOrThrow();
  // Side by side: each keeps one core busy.
  const tallies: Tally[] = await Promise.all([
    check('types', bin('svelte-check'), ['--tsconfig', './tsconfig.json', '--fail-on-warnings']),
    check('lint', bin('eslint'), ['.']),
    check('unused', bin('knip'), ['--no-progress']),
    check('format', bin('prettier'), ['--check', '--log-level', 'warn', '.']),
  ]);
  const cluster = await startCluster(folder);
  try {
    const database = await prepareDatabase(cluster.ownerUrl, folder);
    process.env.OCULON_DATABASE_URL = database.app;
    await seedDemo(cluster.ownerUrl);
    await closePool();
    buildOnce();
    const server = await startServer({ port: await freePort(0), database, demo: true });
    const env = {
      ...process.env,
      OCULON_TEST_ADDRESS: server.address,
      OCULON_TEST_OWNER_URL: cluster.ownerUrl,
      OCULON_TEST_JOBS_URL: database.jobs,
      OCULON_CHROMIUM: chromium,
      NO_COLOR: '1',
    };
    tallies.push(await unitTests(folder, env), await browserTests(folder, env));
    await stopServer(server);
  } finally {
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
  return {
    passed: tallies.reduce((sum, tally) => sum + tally.passed, 0),
    failed: tallies.reduce((sum, tally) => sum + tally.failed, 0),
  };
}

main().then(
  ({ passed, failed }) => {
    console.log(`\n${passed} passed, ${failed} failed`);
    process.exit(failed === 0 ? 0 : 1);
  },
  (error: unknown) => {
    console.error(error);
    console.log('\n0 passed, 1 failed');
    process.exit(1);
  },
);
