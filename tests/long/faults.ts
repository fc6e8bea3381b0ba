/**
 * `npm run test:faults`: puts deliberate faults into a copy of the planner, one by one, and runs its unit tests on
 * each: every fault must make a test fail. A row that no longer finds its text is an error, too.
 */
import { spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

interface Fault {
  readonly name: string;
  readonly file: string;
  readonly find: string;
  readonly put: string;
}

const LEFT = 'src/core/fingering/left';
const PACKED = `${LEFT}/packed`;

const FAULTS: readonly Fault[] = [
  {
    name: 'two notes on one string',
    file: `${LEFT}/constraints.ts`,
    find: 'if (a.string === b.string) return false;',
    put: '',
  },
  {
    name: 'fingers may cross along the neck',
    file: `${LEFT}/constraints.ts`,
    find: 'if (low.fret > high.fret) return false;',
    put: '',
  },
  { name: 'reach without end', file: `${LEFT}/constraints.ts`, find: '.atMostMm;', put: '.atMostMm * 9;' },
  {
    name: 'open strings under a barre',
    file: `${LEFT}/constraints.ts`,
    find: '|| fret >= barre.fret',
    put: '|| fret >= 0',
  },
  {
    name: 'own cost of a state forgotten',
    file: 'src/core/fingering/lattice.ts',
    find: 'here[s]! += own[k]![s]!',
    put: 'here[s]! += 0 * own[k]![s]!',
  },
  {
    name: 'messages kept beyond the change',
    file: 'src/core/fingering/lattice.ts',
    find: 'known && k > last && sameCosts',
    put: 'known && k >= 0 && true || sameCosts',
  },
  {
    name: 'a bound that is too high',
    file: `${PACKED}/packedWays.ts`,
    find: 'soFar + times * step.leastWay(state, to) > best',
    put: 'soFar + 2 * step.leastWay(state, to) + 5 > best',
  },
  {
    name: 'the first neighbour wins',
    file: `${PACKED}/packedWays.ts`,
    find: 'if (soFar > best) break;',
    put: 'if (n > start) break;',
  },
  {
    name: 'a taken finger takes a note over',
    file: `${PACKED}/packedWays.ts`,
    find: 'this.before.down[from]!) !== 0;',
    put: 'this.before.down[from]!) > 99;',
  },
  {
    name: 'cuts cost nothing',
    file: `${PACKED}/packedWays.ts`,
    find: 'UNREACHABLE : this.arrivalCuts[arrival]! + ',
    put: 'UNREACHABLE : ',
  },
  {
    name: 'an open string may be let go at will',
    file: `${PACKED}/stateRows.ts`,
    find: 'sources.filter(({ freedOpen }) => (freedOpen & ~used) === 0)',
    put: 'sources',
  },
  {
    name: 'a hand-over for nothing',
    file: `${PACKED}/keptHands.ts`,
    find: '(cutCosts[h] === null ? 0 : handOver)',
    put: '0',
  },
  {
    name: 'a freed hand forgets where it was',
    file: `${PACKED}/keptHands.ts`,
    find: 'known.push({ range: before.range[s]!, waitedTicks, fingers });',
    put: 'known.push({ range: 0, waitedTicks, fingers });',
  },
  {
    name: 'steps that differ share their prices',
    file: `${PACKED}/step.ts`,
    find: 'JSON.stringify([step, pulseKey(problem, next)])',
    put: 'JSON.stringify([{ ...step, cuts: 0 }, pulseKey(problem, next)])',
  },
  {
    name: 'slurs left out of the key',
    file: `${PACKED}/step.ts`,
    find: 'JSON.stringify([step, pulseKey(problem, next)])',
    put: 'JSON.stringify([{ ...step, links: 0 }, pulseKey(problem, next)])',
  },
  {
    name: 'pivot and guide confused',
    file: `${PACKED}/stepPrice.ts`,
    find: 'if (p === q) return PIVOT;',
    put: 'if (p === q) return GUIDE;',
  },
  { name: 'hops cost nothing', file: `${PACKED}/stepPrice.ts`, find: 'sum += fingers & COST_BITS;', put: '' },
  {
    name: 'squeak on every guide',
    file: `${PACKED}/stepPrice.ts`,
    find: '=== guides ? this.once.squeak',
    put: '>= 0 ? this.once.squeak',
  },
  {
    name: 'ink is advice',
    file: `${LEFT}/planLeft.ts`,
    find: 'if (inked.length === 0) return null;',
    put: 'return null;',
  },
  {
    name: 'the strike keeps its own ink when it is priced',
    file: `${LEFT}/planLeft.ts`,
    find: 'for (const uid of strike.uids) others.delete(uid);',
    put: '',
  },
  {
    name: 'spread of fingers from the wrong one',
    file: `${PACKED}/handTables.ts`,
    find: '      last = k;\n    }\n    return sum;',
    put: '      last = 0;\n    }\n    return sum;',
  },
  {
    name: 'a way back costs nothing',
    file: `${LEFT}/returns.ts`,
    find: 'one.times * returnCost(',
    put: '0 * returnCost(',
  },
  {
    name: 'the first hand tried is taken',
    file: `${LEFT}/returns.ts`,
    find: '>= best.cost) break;',
    put: '>= 0) break;',
  },
  {
    name: 'the first barre costs nothing',
    file: `${PACKED}/layerStore.ts`,
    find: 'stateCost[s]! += entryCost(tables.geometry, state);',
    put: 'stateCost[s]! += 0 * entryCost(tables.geometry, state);',
  },
  {
    name: 'a released finger is never late',
    file: `${PACKED}/stepTimes.ts`,
    find: 'Math.max(least, ms)',
    put: 'Math.max(least, 4 * ms + 1000)',
  },
];

const TESTS = ['src/core/fingering/left', 'src/core/fingering/lattice.test.ts'];
const root = fileURLToPath(new URL('../../', import.meta.url));
const copy = mkdtempSync(join(tmpdir(), 'oculon-faults-'));
const PARTS = [
  'src',
  'tests',
  'calibration',
  'static',
  '.svelte-kit',
  'package.json',
  'tsconfig.json',
  'svelte.config.js',
  'vite.config.ts',
];

function noticed({ name, file, find, put }: Fault): boolean {
  const path = join(copy, file);
  const text = readFileSync(path, 'utf8');
  if (!text.includes(find)) throw new Error(`${name}: ${file} no longer has “${find}”`);
  writeFileSync(path, text.replace(find, put));
  const run = spawnSync(join(root, 'node_modules/.bin/vitest'), ['run', '--bail', '1', ...TESTS], {
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
  const missed = FAULTS.filter((fault) => {
    const found = noticed(fault);
    console.log(`${found ? 'noticed' : 'MISSED '}  ${fault.name}`);
    return !found;
  });
  console.log(`${FAULTS.length - missed.length} passed, ${missed.length} failed`);
  process.exitCode = missed.length === 0 ? 0 : 1;
} finally {
  rmSync(copy, { recursive: true, force: true });
}
