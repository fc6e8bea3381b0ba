/** Running other programs. */
import { spawn, spawnSync, type SpawnSyncReturns } from 'node:child_process';

/** Something the person at the terminal can mend; shown without a stack. */
export class StartProblem extends Error {}

export interface Outcome {
  readonly code: number;
  readonly output: string;
}

/** Runs to the end and collects what was printed. */
export function capture(
  command: string,
  args: readonly string[],
  options: { cwd?: string; env?: NodeJS.ProcessEnv } = {},
): Outcome {
  const done: SpawnSyncReturns<string> = spawnSync(command, args, { encoding: 'utf8', ...options });
  return {
    code: done.status ?? 127,
    output: `${done.stdout ?? ''}${done.stderr ?? ''}${done.error?.message ?? ''}`,
  };
}

/** Runs to the end with the terminal's own streams; gives the exit code. */
export function run(
  command: string,
  args: readonly string[],
  options: { env?: NodeJS.ProcessEnv; cwd?: string } = {},
): Promise<number> {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: ['ignore', 'inherit', 'inherit'], ...options });
    child.on('error', reject);
    child.on('exit', (code) => resolve(code ?? 1));
  });
}

export const isRoot = () => process.getuid?.() === 0;
