/** docs/judgement.md as text. */
import { LEFT_TERM_IDS, LEFT_TERMS } from '../../src/core/fingering/left/rules/terms';
import type { Learned } from '../learning/learned';
import { ofHand } from '../learning/weights';
import type { WorstLesson } from '../learning/worst';
import { type PricedShape, pricedShape, rankOf } from '../shapeCosts';
import { checkingShapes } from '../shapes';
import type { Family } from './family';

const percent = ([right, all]: readonly [number, number]) =>
  all === 0 ? '–' : ((100 * right) / all).toFixed(1);
const whole = ([right, all]: readonly [number, number]) => (all === 0 ? '–' : `${right} of ${all}`);

const HEAD = `| family | strings | fingers | letters | facts | whole left | whole right | not proven |
|---|---|---|---|---|---|---|---|`;
const rowOf = (one: Family) =>
  `| ${one.family} | ${percent(one.strings)} | ${percent(one.fingers)} | ${percent(one.letters)} | ${percent(one.facts)} | ${whole(one.left)} | ${whole(one.right)} | ${one.unproven} |`;
export const tableOf = (families: readonly Family[]) => [HEAD, ...families.map(rowOf)].join('\n');

type Agreements = Learned['before'];

function agreementRow(name: string, some: Agreements): string {
  const sum = (key: Exclude<keyof Agreements[number], 'family'>): [number, number] => [
    some.reduce((all, one) => all + one[key][0], 0),
    some.reduce((all, one) => all + one[key][1], 0),
  ];
  return `| ${name} | ${percent(sum('strings'))} | ${percent(sum('fingers'))} | ${percent(sum('letters'))} | ${whole(sum('left'))} | ${whole(sum('right'))} |`;
}

const listOf = (ids: readonly string[]) => `${ids.length}${ids.length > 0 ? `: ${ids.join(', ')}` : ''}`;

function factsText(facts: Learned['facts']): string {
  const sum = (of: 'kept' | 'all') => facts.reduce((total, one) => total + one[of], 0);
  const rows = facts.map(({ family, kept, all }) => `${family} ${kept} of ${all}`);
  return `${percent([sum('kept'), sum('all')])} %, ${rows.join(', ')}`;
}

function learnedText({
  standing,
  before,
  fitted,
  cross,
  moved,
  set,
  never,
  notSeparable,
  facts,
}: Learned): string {
  const free = moved.map(({ term }) => term);
  const byFamily = cross.map((one) => {
    const fit = fitted.find(({ family }) => family === one.family)!;
    return `| ${one.family} | ${percent(fit.fingers)} | ${percent(one.fingers)} | ${percent(fit.letters)} | ${percent(one.letters)} | ${whole(fit.left)} | ${whole(one.left)} | ${whole(fit.right)} | ${whole(one.right)} |`;
  });
  return `## What was learnt

Written down by \`npm run calibrate\`: both hands together, ${moved.length} weights free (${ofHand('left', free).length} of the left hand, ${ofHand('right', free).length} of the right), fitted in one from numbers set by hand (a hinge with one slack a passage, families weighing equally, a pull to the start; rivals of the left hand by itself, of the right hand on accepted strings, and of both), and checked with five folds, the same music in one fold. The weights that stand in the tables: those of the right hand are the numbers set by hand, those of the left hand were found by a search over single weights on the same passages, which does better on them than the fit and has no check of its own; read the fold's figures as what a fit of this kind carries over.

| both hands | strings | fingers | letters | whole left | whole right |
|---|---|---|---|---|---|
${agreementRow('numbers set by hand', before)}
${agreementRow('fitted, on what it saw', fitted)}
${agreementRow('fitted, on the fold left out', cross)}
${agreementRow('weights that stand', standing)}

| family | fingers, fitted | fingers, left out | letters, fitted | letters, left out | whole left, fitted | whole left, left out | whole right, fitted | whole right, left out |
|---|---|---|---|---|---|---|---|---|
${byFamily.join('\n')}

Facts as inequalities, both hands together at the weights that stand (a fact counts where neither the best plan nor one with another choice for a note that it names breaks it at no more than an accepted fingering costs): ${factsText(facts)}.

Fitted by itself, within a factor of twenty of the weights that stand, a passage's plan becomes the accepted one in all but ${listOf(never)}.

In the fit, not separated by weights within a factor of four of those set by hand, among the rivals of both hands that were seen: alone ${listOf(notSeparable.alone)}; in its family ${listOf(notSeparable.inFamily)}; beside all others ${listOf(notSeparable.together)}.

| free weight | set by hand | fitted | stands |
|---|---|---|---|
${moved.map((one) => `| ${one.term} | ${one.before} | ${one.fitted} | ${one.standing} |`).join('\n')}

Set by hand: ${set.join(', ')}.
`;
}

function shapesText(): string {
  const weights = LEFT_TERM_IDS.map((id) => LEFT_TERMS[id].weight);
  const ranks = checkingShapes.map(pricedShape).map((shape: PricedShape) => rankOf(shape, weights));
  const within = (count: number) => percent([ranks.filter((rank) => rank < count).length, ranks.length]);
  return `## Chord shapes

${ranks.length} shapes of @tombatossals/chords-db with sound fingers, for their strings and frets: the data set's fingers are the cheapest in ${within(1)} %, among the three cheapest in ${within(3)} %.
`;
}

const worstText = (worst: readonly WorstLesson[]) => `## The ten worst

Left hand by itself, with the terms that speak most against the accepted fingering and for it (tenths of a point).

| passage | missed | dearer by | for what |
|---|---|---|---|
${worst.map(({ id, misses, above, terms }) => `| ${id} | ${misses} | ${above} | ${terms.map(([term, cost]) => `${term} ${cost > 0 ? '+' : ''}${cost}`).join(', ')} |`).join('\n')}
`;

export interface Judgement {
  readonly now: readonly Family[];
  readonly before: readonly Family[];
  readonly learned: Learned | null;
  readonly worst: readonly WorstLesson[];
}

export const reportOf = ({ now, before, learned, worst }: Judgement): string => `# Agreement with teachers

Written by \`npm run judgement\`: plans beside the fingerings that teachers accept, in per cent of what is judged; a passage is whole when everything judged in it agrees with one accepted fingering. The shared passages are read where they lie and are not part of the project; the project's own are measured each hand by itself. Not proven: passages whose cost lies above the bound. The weights were tuned on the shared passages: on others agreement is lower.

## Now

${tableOf(now)}

## Before figures and modes

${tableOf(before)}

${[learned ? learnedText(learned) : null, worstText(worst), shapesText()].filter((part) => part !== null).join('\n')}`;
