/** What the reports and the tables of terms have in common. */
import { writeFileSync } from 'node:fs';

export const percent = (part: number, whole: number) => `${((100 * part) / whole).toFixed(1)} %`;

/** The weights of a hand are a file of their own. */
export function writeWeights(hand: 'left' | 'right', weights: Readonly<Record<string, number>>): void {
  const file = new URL(`../src/core/fingering/${hand}/rules/weights.json`, import.meta.url);
  writeFileSync(file, `${JSON.stringify(weights, null, 2)}\n`);
}
