/**
 * `npm run judgement [family …]`: how far plans agree with fingerings that teachers accept, family by family, and
 * writes docs/judgement.md. `npm run judgement remember` keeps today's figures as those of "before".
 */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { z } from 'zod';
import { lessonsIn } from '../learning/lessons';
import { learnedSchema } from '../learning/learned';
import { worstOf } from '../learning/worst';
import { measured } from '../measure';
import { PASSAGES } from '../passages/all';
import { measuredRight } from '../right/measure';
import { RIGHT_PASSAGES } from '../right/passages';
import { type Family, familySchema } from './family';
import {
  familiesIn,
  maybeJudgementFolder,
  passagesOf,
  resultNotes,
  type ScoredRow,
  scorerIn,
} from './passages';
import { reportOf, tableOf } from './report';

const BEFORE = resolve('calibration/judgement/before.json');
const LEARNED = resolve('calibration/learning/learned.json');
const REPORT = resolve('docs/judgement.md');
const RESULTS = resolve('out/judgement/results');

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
  const learned = existsSync(LEARNED) ? learnedSchema.parse(JSON.parse(readFileSync(LEARNED, 'utf8'))) : null;
  const scorer = await scorerIn(folder);
  const worst = worstOf(familiesIn(folder).flatMap((family) => lessonsIn(folder, family, scorer)));
  writeFileSync(REPORT, reportOf({ now: families, before, learned, worst }));
}
