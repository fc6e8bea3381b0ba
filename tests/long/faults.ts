/**
 * `npm run test:faults`: puts deliberate faults into a copy of the planner, one by one, and runs its unit tests on
 * each: every fault must make a test fail. A row that no longer finds its text is an error, too. With a word after it
 * only faults are tried whose name or file has it.
 */
import { spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Fault } from './fault';
import { FAULTS } from './faultRows';

const TESTS = ['src/core/fingering/left', 'src/core/fingering/solver'];
const root = fileURLToPath(new URL('../../', import.meta.url));
const copy = mkdtempSync(join(tmpdir(), 'oculon-faults-'));
const PARTS = [
  'src',
  'tests',
  'calibration',
  'demo',
  'scripts',
  'static',
  '.svelte-kit',
  'package.json',
  'tsconfig.json',
  'svelte.config.js',
  'vite.config.ts',
];

function noticed({ name, file, find, put, tests = TESTS }: Fault): boolean {
  const path = join(copy, file);
  const text = readFileSync(path, 'utf8');
  if (!text.includes(find)) throw new Error(`${name}: ${file} no longer has “${find}”`);
  writeFileSync(path, text.replace(find, put));
  const run = spawnSync(join(root, 'node_modules/.bin/vitest'), ['run', '--bail', '1', ...tests], {
    cwd: copy,
    encoding: 'utf8',
  });
  writeFileSync(path, text);
  // A fault must be noticed by a test, not by a file that cannot be loaded.
  return run.status !== 0 && /Tests .*failed/.test(run.stdout);
}

try {
  for (const part of PARTS) cpSync(join(root, part), join(copy, part), { recursive: true });
  symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'));
  const word = process.argv[2] ?? '';
  const tried = FAULTS.filter(({ name, file }) => `${name} ${file}`.includes(word));
  const missed = tried.filter((fault) => {
    const found = noticed(fault);
    console.log(`${found ? 'noticed' : 'MISSED '}  ${fault.name}`);
    return !found;
  });
  console.log(`${tried.length - missed.length} passed, ${missed.length} failed`);
  process.exitCode = missed.length === 0 ? 0 : 1;
} finally {
  rmSync(copy, { recursive: true, force: true });
}
