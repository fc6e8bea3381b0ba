/** What the reports and the tables of terms have in common. */
import { readFileSync, writeFileSync } from 'node:fs';

export const percent = (part: number, whole: number) => `${((100 * part) / whole).toFixed(1)} %`;

/** Each term's weight is the first number after its name and "weight:". */
export function writeTerms(hand: 'left' | 'right', weights: Readonly<Record<string, number>>): void {
  const table = new URL(`../src/core/fingering/${hand}/terms.ts`, import.meta.url);
  let text = readFileSync(table, 'utf8');
  for (const [id, weight] of Object.entries(weights))
    text = text.replace(new RegExp(`(\\n {2}${id}: \\{[^}]*?weight: )[0-9.]+`), `$1${weight}`);
  writeFileSync(table, text);
}
