/**
 * Which lessons no weights seem to separate: each is fitted by itself, again and again against whatever the planner
 * prefers then, until the plan of both hands is accepted. Weights that are found are a proof; that none are found is none.
 */
import type { Rival } from '../../src/core/fingering/learning/example';
import { fitFactors, type FitRules } from '../../src/core/fingering/learning/fit';
import { FREE_TERMS } from './learn';
import type { Lesson } from './lessons';
import { lookAt } from './rivals';
import { byName, STANDING, withFactors } from './weights';

/** As far from the weights that stand as a structure is given before it is said to lack a state. */
const FARTHEST = 20;
const ROUNDS = 8;
/** Almost no pull: only the range of the factors holds them. */
const FREE_PULL = 1e-6;
const NO_LIMIT = 1e6;

const RULES: FitRules = {
  terms: FREE_TERMS.filter((name) => byName(STANDING)[name]! > 0),
  weights: byName(STANDING),
  pull: FREE_PULL,
  mostLoss: NO_LIMIT,
  farthest: FARTHEST,
  orders: [],
};

export function isSeparatedAlone(lesson: Lesson): boolean {
  let weights = STANDING;
  const rivals: Rival[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const { example, missed } = lookAt(lesson, weights, STANDING);
    if (missed === 0) return true;
    if (!example) return false;
    rivals.push(...example.rivals);
    weights = withFactors(STANDING, fitFactors([{ ...example, rivals }], RULES).factors);
  }
  return lookAt(lesson, weights, STANDING).missed === 0;
}
