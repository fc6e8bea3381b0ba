/**
 * `npm run calibrate`: fits the weights of both hands to what teachers accept, with five folds, and keeps what came
 * of it for the report (`npm run judgement`); `npm run calibrate write` also puts the fitted weights into the tables.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { foldsOf } from '../../src/core/fingering/learning/folds';
import { notSeparable } from '../../src/core/fingering/learning/separable';
import { familiesIn, maybeJudgementFolder, scorerIn } from '../judgement/passages';
import { type Agreement, agreementOf, sumOf } from './agreement';
import { isSeparatedAlone } from './alone';
import { factsKept } from './facts';
import { FREE_TERMS, learn, rulesFor } from './learn';
import type { Learned } from './learned';
import { type Lesson, lessonsIn } from './lessons';
import { byName, type Hand, ofHand, STANDING, startOf } from './weights';

const FOLDS = 5;
const KEPT = resolve('calibration/learning/learned.json');
const TABLES: Readonly<Record<Hand, string>> = {
  left: resolve('src/core/fingering/left/rules/weights.json'),
  right: resolve('src/core/fingering/right/rules/weights.json'),
};

async function run(folder: string): Promise<void> {
  // From numbers set by hand, so that what is checked on a fold knows nothing of it.
  const start = startOf(FREE_TERMS);
  const scorer = await scorerIn(folder);
  const families = familiesIn(folder);
  const lessons = families.flatMap((family) => lessonsIn(folder, family, scorer));
  const { weights, examples } = learn(lessons, start, console.log);
  const separable = notSeparable(examples, rulesFor(start));
  const folds = foldsOf(lessons, FOLDS, ({ music }) => music);
  const checked = folds.map((fold, k) => {
    const others = lessons.filter((one) => !fold.includes(one));
    const { weights: learnt } = learn(others, start, () => {});
    console.log(`fold ${k + 1} of ${FOLDS}`);
    return fold.map((lesson) => [lesson, agreementOf(lesson, learnt)] as const);
  });
  const byFamily = (of: (lesson: Lesson) => Agreement) =>
    families.map((family) => ({ family, ...sumOf(lessons.filter((one) => one.family === family).map(of)) }));
  const cross = new Map(checked.flat());
  const learned: Learned = {
    standing: byFamily((lesson) => agreementOf(lesson, STANDING)),
    before: byFamily((lesson) => agreementOf(lesson, start)),
    fitted: byFamily((lesson) => agreementOf(lesson, weights)),
    cross: byFamily((lesson) => cross.get(lesson)!),
    moved: FREE_TERMS.map((term) => ({
      term,
      standing: byName(STANDING)[term]!,
      before: byName(start)[term]!,
      fitted: byName(weights)[term]!,
    })),
    set: Object.keys(byName(STANDING)).filter((term) => !FREE_TERMS.includes(term)),
    never: lessons.filter((lesson) => !isSeparatedAlone(lesson)).map(({ id }) => id),
    notSeparable: separable,
    facts: families.map((family) => ({ family, ...factsKept(folder, family, scorer) })),
  };
  writeFileSync(KEPT, `${JSON.stringify(learned, null, 1)}\n`);
  if (process.argv.includes('write')) {
    for (const hand of ['left', 'right'] as const) {
      const table = JSON.parse(readFileSync(TABLES[hand], 'utf8')) as Record<string, number>;
      const fitted = ofHand(hand, FREE_TERMS).map((term) => [term, weights[hand][term as never]]);
      writeFileSync(
        TABLES[hand],
        `${JSON.stringify({ ...table, ...Object.fromEntries(fitted) }, null, 2)}\n`,
      );
    }
  }
  console.log(JSON.stringify({ fitted: sumOf(learned.fitted), cross: sumOf(learned.cross) }));
}

const folder = maybeJudgementFolder();
if (folder) await run(folder);
else console.log('The shared passages are not here: there is nothing to learn from.');
