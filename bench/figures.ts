/** The figures of a run: noted, printed, and written to bench/results.json beside those of other sections. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { z } from 'zod';
import { ROOT } from '../scripts/run/paths';

const RESULTS = join(ROOT, 'bench/results.json');

const figure = z.object({ section: z.string(), what: z.string(), value: z.number(), unit: z.string() });
type Figure = z.infer<typeof figure>;

const figures: Figure[] = [];

export function note(section: string, what: string, value: number, unit: string): void {
  figures.push({ section, what, value: Math.round(value * 100) / 100, unit });
  console.log(`${what.padEnd(70)} ${value.toFixed(2).padStart(10)} ${unit}`);
}

export function timed<T>(work: () => T): readonly [T, number] {
  const started = performance.now();
  const result = work();
  return [result, performance.now() - started];
}

export async function timedAsync<T>(work: () => Promise<T>): Promise<readonly [T, number]> {
  const started = performance.now();
  const result = await work();
  return [result, performance.now() - started];
}

/** The value below which so large a share of `times` lies. */
export const percentile = (times: readonly number[], share: number): number =>
  [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))] ?? NaN;

/** Sections that were not run keep the figures of an earlier run. */
export function writeResults(): void {
  const run = new Set(figures.map((one) => one.section));
  const stored = z.object({ figures: z.array(figure) });
  const earlier = existsSync(RESULTS)
    ? (stored.safeParse(JSON.parse(readFileSync(RESULTS, 'utf8'))).data?.figures ?? [])
    : [];
  const machine = { cpu: cpus()[0]?.model ?? 'unknown', cores: cpus().length, node: process.version };
  const all = [...earlier.filter((one) => !run.has(one.section)), ...figures];
  writeFileSync(RESULTS, `${JSON.stringify({ machine, figures: all }, null, 2)}\n`);
}
