/**
 * `npm run calibrate` fits, writes the weights into the table of terms and the report to docs/calibration.md;
 * `npm run calibrate report` only reports on the weights that stand in the table.
 */
import { writeFileSync } from 'node:fs';
import { LEFT_TERM_IDS, LEFT_TERMS } from '../src/core/fingering/left/rules/terms';
import { type BaseWeights, fit, weightsOfBase } from './fit';
import { measured, type Totals } from './measure';
import { CATEGORIES, checkingHalf, fittingHalf, PASSAGES } from './passages/all';
import { type PricedShape, pricedShape, rankOf } from './shapeCosts';
import { checkingShapes, fittingShapes } from './shapes';
import { LEFT_START as START } from './start';
import { percent, writeWeights } from './text';

const REPORT = new URL('../docs/calibration.md', import.meta.url);

const standing = Object.fromEntries(LEFT_TERM_IDS.map((id) => [id, LEFT_TERMS[id].weight])) as BaseWeights;

function totalsRow(name: string, totals: Totals): string {
  const { passages, whole, fretted, strings, fingers } = totals;
  return `| ${name} | ${whole} of ${passages} (${percent(whole, passages)}) | ${percent(strings, fretted)} | ${percent(fingers, fretted)} |`;
}

function shapesRow(name: string, shapes: readonly PricedShape[], weights: BaseWeights): string {
  const row = LEFT_TERM_IDS.map((id) => weights[id]);
  const ranks = shapes.map((shape) => rankOf(shape, row));
  const within = (count: number) => percent(ranks.filter((rank) => rank < count).length, ranks.length);
  return `| ${name} | ${shapes.length} | ${within(1)} | ${within(3)} |`;
}

const HEAD = `| | whole passages | strings | strings and fingers |\n|---|---|---|---|`;

function report(fitted: BaseWeights, leftOut: readonly string[]): string {
  const fitting = CATEGORIES.flatMap(fittingHalf);
  const checking = CATEGORIES.flatMap(checkingHalf);
  const shapes = { fitting: fittingShapes.map(pricedShape), checking: checkingShapes.map(pricedShape) };
  const [before, after] = [weightsOfBase(START), weightsOfBase(fitted)];
  const moved = LEFT_TERM_IDS.filter((id) => fitted[id] !== START[id]);
  return `# Calibration of the left hand

Written by \`npm run calibrate\`. ${Object.values(PASSAGES).flat().length} invented passages in ${CATEGORIES.length} categories (\`calibration/passages\`), each with every fingering that common practice would accept; every second one of a category was used for fitting, the others check. Counted against the single nearest accepted fingering: fretted notes on its string, and there under its finger; a passage is whole when every note agrees. The passages and the form of the terms were worked on together by the same hand, so the check tells how well the weights carry over, not how well the passages stand for all music. What a shift costs (\`shift\`, \`shiftDistance\`), a slide from fret to fret (\`lineSlide\`) and a broken chord that does not ring on (\`cutRing\`) is set by hand, after looking at plans of music outside of the passages, which say little about them; the start of \`barre\`, \`smallBarre\` and \`contraction\` was chosen among six settings while the checking halves were seen, too.

${HEAD}
${totalsRow('unfitted start, fitting half', measured(fitting, before))}
${totalsRow('unfitted start, checking half', measured(checking, before))}
${totalsRow('fitted, fitting half', measured(fitting, after))}
${totalsRow('fitted, checking half', measured(checking, after))}

By category, checking half, fitted:

${HEAD}
${CATEGORIES.map((name) => totalsRow(name, measured(checkingHalf(name), after))).join('\n')}
${
  leftOut.length === 0
    ? ''
    : `
Leave one category out: fitted on the fitting halves of the others, checked on the whole category.

${HEAD}
${leftOut.join('\n')}
`
}
Chord shapes of @tombatossals/chords-db with sound fingers, for their strings and frets (every fourth one was used for fitting):

| | shapes | first choice | among the three cheapest |
|---|---|---|---|
${shapesRow('unfitted start, checking', shapes.checking, START)}
${shapesRow('fitted, fitting', shapes.fitting, fitted)}
${shapesRow('fitted, checking', shapes.checking, fitted)}

Weights that moved:

| term | start | fitted |
|---|---|---|
${moved.map((id) => `| ${id} | ${START[id]} | ${fitted[id]} |`).join('\n')}
`;
}

function leaveOneOut(shapes: readonly PricedShape[]): readonly string[] {
  return CATEGORIES.map((left) => {
    const others = CATEGORIES.filter((name) => name !== left).flatMap(fittingHalf);
    const row = totalsRow(left, measured(PASSAGES[left]!, weightsOfBase(fit(START, others, shapes))));
    console.log(row);
    return row;
  });
}

if (process.argv[2] === 'report') {
  console.log(report(standing, []));
} else {
  const shapes = fittingShapes.map(pricedShape);
  const fitted = fit(START, CATEGORIES.flatMap(fittingHalf), shapes, console.log);
  writeWeights('left', fitted);
  writeFileSync(REPORT, report(fitted, leaveOneOut(shapes)));
}
