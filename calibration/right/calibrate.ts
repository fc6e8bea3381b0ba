/**
 * `npm run calibrate:strokes` fits the right hand to half of its passages, writes the weights into the table of terms
 * and the report to docs/calibration-strokes.md; `npm run calibrate:strokes report` only reports on the weights that
 * stand in the table.
 */
import { writeFileSync } from 'node:fs';
import { type RightWeights, TABLE_WEIGHTS } from '../../src/core/fingering/right/rules/weights';
import { RIGHT_TERM_IDS } from '../../src/core/fingering/right/rules/terms';
import { percent, writeWeights } from '../text';
import { fitRight, measuredRight, type RightTotals } from './fit';
import { checkingRight, checkingRightHalf, fittingRight, fittingRightHalf, RIGHT_CATEGORIES } from './halves';
import { RIGHT_PASSAGES } from './passages';
import { RIGHT_START as START } from '../start';

const REPORT = new URL('../../docs/calibration-strokes.md', import.meta.url);

const row = (name: string, { passages, whole, strokes, letters }: RightTotals) =>
  `| ${name} | ${whole} of ${passages} (${percent(whole, passages)}) | ${percent(letters, strokes)} |`;

function report(fitted: RightWeights): string {
  const moved = RIGHT_TERM_IDS.filter((id) => fitted[id] !== START[id]);
  return `# Calibration of the right hand

Written by \`npm run calibrate:strokes\`. ${fittingRight.length + checkingRight.length} invented passages in ${RIGHT_CATEGORIES.length} categories (\`calibration/right/passages.ts\`), each with every set of letters that its school accepts; every second one of a category was used for fitting, the others check. A passage is whole when every letter agrees with the nearest accepted set. Passages and terms were worked on together by the same hand, and some terms came in after failures in both halves had been seen: the check tells how well the weights carry over, not how well the passages stand for all music.${moved.length === 0 ? ' The weights in the table are set by hand against handbook 13: fitting has not moved any of them.' : ''}

| | whole passages | letters |
|---|---|---|
${row('unfitted start, fitting half', measuredRight(fittingRight, START))}
${row('unfitted start, checking half', measuredRight(checkingRight, START))}
${row('fitted, fitting half', measuredRight(fittingRight, fitted))}
${row('fitted, checking half', measuredRight(checkingRight, fitted))}

By category, checking half, fitted:

| | whole passages | letters |
|---|---|---|
${RIGHT_CATEGORIES.map((name) => row(name, measuredRight(checkingRightHalf(name), fitted))).join('\n')}

Leave one category out: fitted on the fitting halves of the others, checked on the whole category.

| | whole passages | letters |
|---|---|---|
${RIGHT_CATEGORIES.map((left) => {
  const others = RIGHT_CATEGORIES.filter((name) => name !== left).flatMap(fittingRightHalf);
  return row(left, measuredRight(RIGHT_PASSAGES[left]!, fitRight(START, others)));
}).join('\n')}

Weights that moved:

| term | start | fitted |
|---|---|---|
${moved.map((id) => `| ${id} | ${START[id]} | ${fitted[id]} |`).join('\n')}
`;
}

const fitted = process.argv[2] === 'report' ? TABLE_WEIGHTS : fitRight(START, fittingRight, console.log);
const text = report(fitted);
if (process.argv[2] === 'report') console.log(text);
else {
  writeWeights('right', fitted);
  writeFileSync(REPORT, text);
}
