/** The figures of the probes: kept as data, so that one probe can be run again, and shown as docs/trust.md. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { ROOT } from '../scripts/run/paths';

const DATA = join(ROOT, 'trust/figures.json');
const REPORT = join(ROOT, 'docs/trust.md');

const figuresSchema = z.record(
  z.string(),
  z.object({ on: z.string(), how: z.string(), rows: z.array(z.tuple([z.string(), z.string()])) }),
);

const figures = existsSync(DATA) ? figuresSchema.parse(JSON.parse(readFileSync(DATA, 'utf8'))) : {};

/** @param how what was done, in a sentence */
export function begin(title: string, how: string): void {
  figures[title] = { on: new Date().toISOString().slice(0, 10), how, rows: [] };
}

export function row(title: string, what: string, figure: string): void {
  console.log(`${what}: ${figure}`);
  figures[title]!.rows.push([what, figure]);
}

export const milliseconds = (values: readonly number[], share: number): string => {
  const sorted = [...values].sort((a, b) => a - b);
  return `${Math.round(sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? NaN)} ms`;
};

export function writeReport(): void {
  writeFileSync(DATA, `${JSON.stringify(figures, null, 2)}\n`);
  const sections = Object.entries(figures).map(([title, { on, how, rows }]) => {
    const lines = rows.map(([what, figure]) => `| ${what} | ${figure} |`);
    return [`## ${title}`, '', `${how} Run on ${on}.`, '', '| | |', '| --- | --- |', ...lines].join('\n');
  });
  const head = `# How far the work can be trusted\n\nFigures of \`npm run trust\`, on a machine with two cores; each probe can be run alone. Made by \`trust/report.ts\`: do not edit.`;
  writeFileSync(REPORT, `${[head, ...sections].join('\n\n')}\n`);
}
