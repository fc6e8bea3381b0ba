/**
 * `npm run calibrate:both` fits the weights of both hands together, from where `npm run calibrate` and `npm run
 * calibrate:strokes` left them, writes them into both tables of terms and the report to docs/calibration-both.md;
 * `npm run calibrate:both report` only reports on the weights that stand there.
 */
import { writeFileSync } from 'node:fs';
import { LEFT_TERM_IDS, LEFT_TERMS } from '../../src/core/fingering/left/rules/terms';
import { RIGHT_TERM_IDS } from '../../src/core/fingering/right/rules/terms';
import { type RightWeights, TABLE_WEIGHTS } from '../../src/core/fingering/right/rules/weights';
import { type BaseWeights, weightsOfBase } from '../fit';
import { measured, type Totals } from '../measure';
import { CATEGORIES, checkingHalf, fittingHalf } from '../passages/all';
import { measuredRight } from '../right/fit';
import { checkingRight, fittingRight } from '../right/halves';
import { pricedShape, rankOf } from '../shapeCosts';
import { checkingShapes, fittingShapes } from '../shapes';
import { percent, writeWeights } from '../text';
import { fitBoth } from './fit';
import { type BothWeights, measuredBoth } from './plan';

const REPORT = new URL('../../docs/calibration-both.md', import.meta.url);

const standing: BothWeights = {
  left: Object.fromEntries(LEFT_TERM_IDS.map((id) => [id, LEFT_TERMS[id].weight])) as BaseWeights,
  right: TABLE_WEIGHTS,
};
const fitting = { left: CATEGORIES.flatMap(fittingHalf), right: fittingRight };
const checking = { left: CATEGORIES.flatMap(checkingHalf), right: checkingRight };

const columns = ({ passages, whole, fretted, strings, fingers }: Totals) =>
  `${whole} of ${passages} | ${percent(strings, fretted)} | ${percent(fingers, fretted)}`;

function row(name: string, half: typeof fitting, weights: BothWeights): string {
  const alone = measured(half.left, weightsOfBase(weights.left));
  const right = measuredRight(half.right, weights.right);
  const both = measuredBoth(half.left, weights);
  return `| ${name} | ${columns(alone)} | ${columns(both)} | ${right.whole} of ${right.passages} |`;
}

function shapesRow(name: string, { left }: BothWeights): string {
  const weights = LEFT_TERM_IDS.map((id) => left[id]);
  const ranks = checkingShapes.map((shape) => rankOf(pricedShape(shape), weights));
  const within = (count: number) => percent(ranks.filter((rank) => rank < count).length, ranks.length);
  return `| ${name} | ${within(1)} | ${within(3)} |`;
}

/** What the right hand weighs against the left. */
const SCALES = [0.5, 0.75, 1, 1.5, 2, 3] as const;

function scaleRow(factor: number, { left, right }: BothWeights): string {
  const weights = Object.fromEntries(RIGHT_TERM_IDS.map((id) => [id, right[id] * factor])) as RightWeights;
  const one = measuredRight(checking.right, weights);
  return `| ${factor} | ${columns(measuredBoth(checking.left, { left, right: weights }))} | ${one.whole} of ${one.passages} |`;
}

const moved = <Id extends string>(
  hand: string,
  from: Readonly<Record<Id, number>>,
  to: Readonly<Record<Id, number>>,
) =>
  (Object.keys(from) as Id[])
    .filter((id) => from[id] !== to[id])
    .map((id) => `| ${hand} | ${id} | ${from[id]} | ${to[id]} |`);

const report = (before: BothWeights, fitted: BothWeights): string => `# Calibration of both hands together

Written by \`npm run calibrate:both\`, after each hand has been fitted by itself. The fitting halves of both hands' passages were used: what each hand's passages say of that hand, and what the left hand's say of a plan of both hands, in which the right hand chooses its own letters. Of two settings of the fit the one that did better on the fitting halves was kept; the checking halves were seen for both. What is counted: see [the left hand](calibration.md) and [the right](calibration-strokes.md).

| | left hand alone, whole | strings | strings and fingers | both hands, whole | strings | strings and fingers | right hand, whole |
|---|---|---|---|---|---|---|---|
${row('each by itself, fitting halves', fitting, before)}
${row('each by itself, checking halves', checking, before)}
${row('together, fitting halves', fitting, fitted)}
${row('together, checking halves', checking, fitted)}

Chord shapes of @tombatossals/chords-db that were not used in fitting:

| | first choice | among the three cheapest |
|---|---|---|
${shapesRow('each by itself', before)}
${shapesRow('together', fitted)}

What the right hand weighs against the left: the checking halves, with all weights of the right hand times a factor:

| factor | both hands, whole | strings | strings and fingers | right hand, whole |
|---|---|---|---|---|
${SCALES.map((factor) => scaleRow(factor, fitted)).join('\n')}

Weights that moved:

| hand | term | each by itself | together |
|---|---|---|---|
${[...moved('left', before.left, fitted.left), ...moved('right', before.right, fitted.right)].join('\n')}
`;

if (process.argv[2] === 'report') console.log(report(standing, standing));
else {
  const fitted = fitBoth(standing, { ...fitting, shapes: fittingShapes.map(pricedShape) }, console.log);
  writeFileSync(REPORT, report(standing, fitted));
  writeWeights('left', fitted.left);
  writeWeights('right', fitted.right);
}
