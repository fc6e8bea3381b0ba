/** Builds the application when its sources have changed since the last build. */
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { ROOT } from './paths';
import { capture, StartProblem } from './shell';

const INPUTS = [
  'src',
  'static',
  'package-lock.json',
  'svelte.config.js',
  'vite.config.ts',
  'vite.thread.config.ts',
  'tsconfig.json',
];
const STAMP = join(ROOT, 'build/.stamp');

export function buildOnce(): void {
  const wanted = fingerprint();
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) return;
  console.log('Building …');
  for (const config of ['vite.config.ts', 'vite.thread.config.ts']) {
    const done = capture('npx', ['vite', 'build', '--logLevel', 'warn', '--config', config], { cwd: ROOT });
    if (done.code !== 0) throw new StartProblem(`The build failed:\n${done.output}`);
  }
  mkdirSync(dirname(STAMP), { recursive: true });
  writeFileSync(STAMP, wanted);
}

function fingerprint(): string {
  const hash = createHash('sha256');
  const visit = (path: string) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) visit(join(path, name));
    else hash.update(path).update(readFileSync(path));
  };
  for (const input of INPUTS) visit(join(ROOT, input));
  return hash.digest('hex');
}
