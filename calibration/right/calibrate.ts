/**
 * `npm run calibrate:strokes` fits the right hand to half of its passages, then weighs both hands against each other on
 * the passages of both sets, writes the weights into the table of terms and the report to docs/calibration-strokes.md;
 * `npm run calibrate:strokes report` only reports on the weights that stand in the table.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { JointPlanner } from '../../src/core/fingering/joint/planBoth';
import { LeftPlanner } from '../../src/core/fingering/left/planLeft';
import { plainSetting } from '../../src/core/fingering/right/setting';
import {
  PLAIN_STYLE,
  type RightWeights,
  rightWeights,
  TABLE_WEIGHTS,
} from '../../src/core/fingering/right/style';
import { RIGHT_TERM_IDS } from '../../src/core/fingering/right/terms';
import { scoreOf, type Totals } from '../measure';
import { CATEGORIES, checkingHalf } from '../passages/all';
import { type Passage, taskOf } from '../passage';
import { fitRight, measuredRight, type RightTotals } from './fit';
import { RIGHT_PASSAGES, type RightPassage } from './passages';
import { START } from './start';

const TERMS = new URL('../../src/core/fingering/right/terms.ts', import.meta.url);
const REPORT = new URL('../../docs/calibration-strokes.md', import.meta.url);

const everySecond = (category: string, rest: 0 | 1): readonly RightPassage[] =>
  RIGHT_PASSAGES[category]!.filter((_passage, k) => k % 2 === rest);
const ALL = Object.keys(RIGHT_PASSAGES);
const fitting = ALL.flatMap((name) => everySecond(name, 0));
const checking = ALL.flatMap((name) => everySecond(name, 1));

const percent = (part: number, whole: number) => `${((100 * part) / whole).toFixed(1)} %`;
const row = (name: string, { passages, whole, strokes, letters }: RightTotals) =>
  `| ${name} | ${whole} of ${passages} (${percent(whole, passages)}) | ${percent(letters, strokes)} |`;

/** What the right hand weighs against the left: tried on the passages of the left hand, planned with both. */
const SCALES = [0.5, 0.75, 1, 1.5, 2, 3] as const;

const scaled = (weights: RightWeights, factor: number) =>
  Object.fromEntries(RIGHT_TERM_IDS.map((id) => [id, weights[id] * factor])) as RightWeights;

function leftUnderBoth(passages: readonly Passage[], base: RightWeights): Totals {
  const scores = passages.map((passage) => {
    const task = taskOf(passage);
    const { problem } = task;
    const left = new LeftPlanner(problem);
    const setting = plainSetting(problem);
    const weights = rightWeights(PLAIN_STYLE.school, problem.hand, base);
    const styles = setting.styles.map((manner) => ({ ...manner, weights }));
    const { states, conflicts } = new JointPlanner(problem, left, { ...setting, styles }).plan(new Map());
    return scoreOf(task, left.planOf(states, conflicts).placements);
  });
  const sum = (of: (one: (typeof scores)[number]) => number) =>
    scores.reduce((total, one) => total + of(one), 0);
  return {
    passages: scores.length,
    whole: scores.filter(({ whole }) => whole).length,
    fretted: sum(({ fretted }) => fretted),
    strings: sum(({ strings }) => strings),
    fingers: sum(({ fingers }) => fingers),
  };
}

const bothRow = (factor: number, left: Totals, right: RightTotals) =>
  `| ${factor} | ${left.whole} of ${left.passages} | ${percent(left.strings, left.fretted)} | ${percent(left.fingers, left.fretted)} | ${right.whole} of ${right.passages} |`;

function writeWeights(weights: RightWeights): void {
  let text = readFileSync(TERMS, 'utf8');
  for (const id of RIGHT_TERM_IDS)
    text = text.replace(new RegExp(`(\\n {2}${id}: \\{[^}]*?weight: )[0-9.]+`), `$1${weights[id]}`);
  writeFileSync(TERMS, text);
}

function report(fitted: RightWeights, joint: readonly string[]): string {
  const moved = RIGHT_TERM_IDS.filter((id) => fitted[id] !== START[id]);
  return `# Calibration of the right hand, and of both together

Written by \`npm run calibrate:strokes\`. ${fitting.length + checking.length} invented passages in ${ALL.length} categories (\`calibration/right/passages.ts\`), each with every set of letters that its school accepts; every second one of a category was used for fitting, the others check. A passage is whole when every letter agrees with the nearest accepted set. Passages and terms were worked on together by the same hand, and some terms came in after failures in both halves had been seen: the check tells how well the weights carry over, not how well the passages stand for all music.

| | whole passages | letters |
|---|---|---|
${row('unfitted start, fitting half', measuredRight(fitting, START))}
${row('unfitted start, checking half', measuredRight(checking, START))}
${row('fitted, fitting half', measuredRight(fitting, fitted))}
${row('fitted, checking half', measuredRight(checking, fitted))}

By category, checking half, fitted:

| | whole passages | letters |
|---|---|---|
${ALL.map((name) => row(name, measuredRight(everySecond(name, 1), fitted))).join('\n')}

Leave one category out: fitted on the fitting halves of the others, checked on the whole category.

| | whole passages | letters |
|---|---|---|
${ALL.map((left) => {
  const others = ALL.filter((name) => name !== left).flatMap((name) => everySecond(name, 0));
  return row(left, measuredRight(RIGHT_PASSAGES[left]!, fitRight(START, others)));
}).join('\n')}

Both hands: what the right hand weighs against the left. The checking half of the left hand's passages planned by both hands, and the right hand's checking half, with all weights of the right hand times a factor:

| factor | left whole | strings | strings and fingers | right whole |
|---|---|---|---|---|
${joint.join('\n')}

Weights that moved:

| term | start | fitted |
|---|---|---|
${moved.map((id) => `| ${id} | ${START[id]} | ${fitted[id]} |`).join('\n')}
`;
}

function jointRows(fitted: RightWeights): readonly string[] {
  const passages = CATEGORIES.flatMap(checkingHalf);
  return SCALES.map((factor) => {
    const weights = scaled(fitted, factor);
    const line = bothRow(factor, leftUnderBoth(passages, weights), measuredRight(checking, weights));
    console.log(line);
    return line;
  });
}

const fitted = process.argv[2] === 'report' ? TABLE_WEIGHTS : fitRight(START, fitting, console.log);
const text = report(fitted, jointRows(fitted));
if (process.argv[2] === 'report') console.log(text);
else {
  writeWeights(fitted);
  writeFileSync(REPORT, text);
}
