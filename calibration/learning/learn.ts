/** Learns weights of both hands from lessons: rounds of looking for rivals and fitting against all of them. */
import type { Example } from '../../src/core/fingering/learning/example';
import { fitFactors, type FitRules } from '../../src/core/fingering/learning/fit';
import { LEFT_TERMS } from '../../src/core/fingering/left/rules/terms';
import { RIGHT_TERMS } from '../../src/core/fingering/right/rules/terms';
import type { CostTerm } from '../../src/core/fingering/rules/costTerm';
import type { Lesson } from './lessons';
import { lookAt, type Look } from './rivals';
import { byName, type Hand, nameOf, type Weights, withFactors } from './weights';

const freeOf = (hand: Hand, terms: Readonly<Record<string, CostTerm>>) =>
  Object.values(terms)
    .filter(({ fitted }) => fitted)
    .map(({ id }) => nameOf(hand, id));

/** Names of the free weights; a physical term, stretch, is the scale of both hands and stays. */
export const FREE_TERMS: readonly string[] = [...freeOf('left', LEFT_TERMS), ...freeOf('right', RIGHT_TERMS)];

/** What no fit may turn round. Common practice. */
const ORDERS = [
  ['left.lineHop', 'left.hop'],
  ['left.shiftTooFast', 'left.shiftHaste'],
  ['left.opening', 'left.extension'],
  ['right.repeat', 'right.repeatInTune'],
] as const;

const PULL = 1;
const MOST_LOSS = 60;
const FARTHEST = 4;
const ROUNDS = 5;
/** Rivals of so many rounds are kept: older ones were compared with another completion of what is accepted. */
const KEPT_ROUNDS = 3;

export const rulesFor = (start: Weights): FitRules => ({
  terms: FREE_TERMS,
  weights: byName(start),
  pull: PULL,
  mostLoss: MOST_LOSS,
  farthest: FARTHEST,
  orders: ORDERS,
});

export interface Learnt {
  readonly weights: Weights;
  readonly examples: readonly Example[];
}

export function learn(lessons: readonly Lesson[], start: Weights, log: (line: string) => void): Learnt {
  const rounds: (readonly Example[])[] = [];
  let weights = start;
  let best = { weights, missed: Infinity };
  const looked = (): readonly Look[] => {
    const looks = lessons.map((lesson) => lookAt(lesson, weights, start));
    const missed = missedIn(lessons, looks);
    if (missed < best.missed) best = { weights, missed };
    return looks;
  };
  for (let round = 0; round < ROUNDS; round++) {
    rounds.push(looked().flatMap(({ example }) => (example ? [example] : [])));
    const { factors, loss } = fitFactors(merged(rounds.slice(-KEPT_ROUNDS)), rulesFor(start));
    log(`round ${round}: marks missed at best ${best.missed}, loss ${loss.toFixed(2)}`);
    weights = withFactors(start, factors);
  }
  looked();
  return { weights: best.weights, examples: merged(rounds.slice(-KEPT_ROUNDS)) };
}

/** Share of missed marks, each family counting equally, in thousandths. */
function missedIn(lessons: readonly Lesson[], looks: readonly Look[]): number {
  const byFamily = new Map<string, [number, number]>();
  lessons.forEach(({ family }, k) => {
    const sums = byFamily.get(family) ?? [0, 0];
    byFamily.set(family, [sums[0] + looks[k]!.missed, sums[1] + looks[k]!.marks]);
  });
  const shares = [...byFamily.values()].map(([missed, all]) => missed / all);
  return Math.round((1000 * shares.reduce((a, b) => a + b, 0)) / shares.length);
}

function merged(rounds: readonly (readonly Example[])[]): readonly Example[] {
  const byId = new Map<string, Example>();
  for (const example of rounds.flat()) {
    const before = byId.get(example.id);
    byId.set(example.id, { ...example, rivals: [...(before?.rivals ?? []), ...example.rivals] });
  }
  return [...byId.values()];
}
