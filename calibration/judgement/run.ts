/**
 * `npm run judgement [family …]`: how far plans agree with fingerings that teachers accept, family by family, and
 * writes docs/judgement.md. `npm run judgement remember` keeps today's figures as those of "before".
 */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { z } from 'zod';
import { measured } from '../measure';
import { PASSAGES } from '../passages/all';
import { measuredRight } from '../right/fit';
import { RIGHT_PASSAGES } from '../right/passages';
import {
  familiesIn,
  maybeJudgementFolder,
  passagesOf,
  resultNotes,
  type ScoredRow,
  scorerIn,
} from './passages';

const BEFORE = resolve('calibration/judgement/before.json');
const REPORT = resolve('docs/judgement.md');
const RESULTS = resolve('out/judgement/results');

const pair = z.tuple([z.number(), z.number()]);
const familySchema = z.object({
  family: z.string(),
  strings: pair,
  fingers: pair,
  letters: pair,
  facts: pair,
  left: pair,
  right: pair,
  unproven: z.number(),
});
type Family = z.infer<typeof familySchema>;

/** Plans a family and lets the scorer compare. */
async function measuredFamily(folder: string, family: string): Promise<Family> {
  const results = join(RESULTS, family);
  mkdirSync(results, { recursive: true });
  let unproven = 0;
  for (const { id, score, planner } of passagesOf(folder, family)) {
    const plan = planner.plan(new Map());
    if (plan.lowerBound < plan.cost) unproven++;
    writeFileSync(
      join(results, `${id}.result.json`),
      JSON.stringify({ notes: resultNotes(score, plan), cost: plan.cost, lowerBound: plan.lowerBound }),
    );
  }
  const { scoreSet } = await scorerIn(folder);
  const rows = scoreSet(join(folder, 'passages', family), results);
  return { family, unproven, ...sumsOf(rows) };
}

function sumsOf(rows: readonly ScoredRow[]): Omit<Family, 'family' | 'unproven'> {
  const sum = (key: 'string' | 'finger' | 'pluck' | 'facts'): [number, number] => [
    rows.reduce((total, row) => total + row[key][0], 0),
    rows.reduce((total, row) => total + row[key][1], 0),
  ];
  const whole = (key: 'wholeLeft' | 'wholeRight'): [number, number] => [
    rows.filter((row) => row[key] === true).length,
    rows.filter((row) => row[key] !== null).length,
  ];
  return {
    strings: sum('string'),
    fingers: sum('finger'),
    letters: sum('pluck'),
    facts: sum('facts'),
    left: whole('wholeLeft'),
    right: whole('wholeRight'),
  };
}

/** The project's own passages, each hand by itself. */
function ownPassages(): readonly Family[] {
  const none: [number, number] = [0, 0];
  const left = measured(Object.values(PASSAGES).flat());
  const rights = Object.entries(RIGHT_PASSAGES).map(([name, passages]) => {
    const { passages: count, whole, strokes, letters } = measuredRight(passages);
    const row: Family = {
      family: `own, right: ${name}`,
      strings: none,
      fingers: none,
      letters: [letters, strokes],
      facts: none,
      left: none,
      right: [whole, count],
      unproven: 0,
    };
    return row;
  });
  return [
    {
      family: 'own, left hand',
      strings: [left.strings, left.fretted],
      fingers: [left.fingers, left.fretted],
      letters: none,
      facts: none,
      left: [left.whole, left.passages],
      right: none,
      unproven: 0,
    },
    ...rights,
  ];
}

const percent = ([right, all]: readonly [number, number]) =>
  all === 0 ? '–' : ((100 * right) / all).toFixed(1);
const whole = ([right, all]: readonly [number, number]) => (all === 0 ? '–' : `${right} of ${all}`);

function total(families: readonly Family[]): Family {
  const sum = (key: 'strings' | 'fingers' | 'letters' | 'facts' | 'left' | 'right'): [number, number] => [
    families.reduce((all, one) => all + one[key][0], 0),
    families.reduce((all, one) => all + one[key][1], 0),
  ];
  return {
    family: 'all families',
    strings: sum('strings'),
    fingers: sum('fingers'),
    letters: sum('letters'),
    facts: sum('facts'),
    left: sum('left'),
    right: sum('right'),
    unproven: families.reduce((all, one) => all + one.unproven, 0),
  };
}

const HEAD = `| family | strings | fingers | letters | facts | whole left | whole right | not proven |
|---|---|---|---|---|---|---|---|`;
const rowOf = (one: Family) =>
  `| ${one.family} | ${percent(one.strings)} | ${percent(one.fingers)} | ${percent(one.letters)} | ${percent(one.facts)} | ${whole(one.left)} | ${whole(one.right)} | ${one.unproven} |`;
const tableOf = (families: readonly Family[]) => [HEAD, ...families.map(rowOf)].join('\n');

function reportOf(now: readonly Family[], before: readonly Family[]): string {
  return `# Agreement with teachers

Written by \`npm run judgement\`: plans beside the fingerings that teachers accept, in per cent of what is judged; a passage is whole when everything judged in it agrees with one accepted fingering. The shared passages are read where they lie and are not part of the project; the project's own are measured each hand by itself. Not proven: passages whose cost lies above the bound.

## Now

${tableOf(now)}

## Before figures and modes

${tableOf(before)}
`;
}

const wanted = process.argv.slice(2).filter((word) => word !== 'remember');
const folder = maybeJudgementFolder();
const families: Family[] = [];
if (folder) {
  for (const family of familiesIn(folder)) {
    if (wanted.length > 0 && !wanted.includes(family)) continue;
    families.push(await measuredFamily(folder, family));
  }
  families.push(total(families));
} else console.log('The shared passages are not here: only the project’s own are measured.');
if (wanted.length === 0) families.push(...ownPassages());
console.log(tableOf(families));
if (process.argv.includes('remember')) writeFileSync(BEFORE, `${JSON.stringify(families)}\n`);
if (folder && wanted.length === 0) {
  const before = existsSync(BEFORE)
    ? z.array(familySchema).parse(JSON.parse(readFileSync(BEFORE, 'utf8')))
    : families;
  writeFileSync(REPORT, reportOf(families, before));
}
