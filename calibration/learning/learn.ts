/** Learns weights of the left hand from lessons: rounds of looking for rivals and fitting against all of them. */
import type { Example } from '../../src/core/fingering/learning/example';
import { fitFactors, type FitRules } from '../../src/core/fingering/learning/fit';
import type { LeftTermId } from '../../src/core/fingering/left/rules/terms';
import { type Lesson, missesOf } from './lessons';
import { exampleOf, plannerFor, type Weights } from './rivals';

/** The free weights; a physical term, stretch, is the scale and stays. */
export const FREE_TERMS: readonly LeftTermId[] = [
  'extension',
  'contraction',
  'order',
  'grip',
  'finger',
  'hop',
  'hopHaste',
  'lineHop',
  'lineSlide',
  'barre',
  'barreHold',
  'shift',
  'shiftDistance',
  'shiftHaste',
  'shiftTooFast',
  'squeeze',
  'opening',
  'position',
  'highNote',
  'wound',
  'regrip',
  'fingerChanged',
  'crossedVoices',
  'parallelFinger',
  'slowStringChange',
];

/** What no fit may turn round. Common practice. */
const ORDERS = [
  ['lineHop', 'hop'],
  ['shiftTooFast', 'shiftHaste'],
  ['opening', 'extension'],
] as const;

const PULL = 1;
const MOST_LOSS = 60;
const FARTHEST = 4;
const ROUNDS = 5;
/** Rivals of so many rounds are kept: older ones were compared with another completion of what is accepted. */
const KEPT_ROUNDS = 3;

export const rulesFor = (start: Weights): FitRules => ({
  terms: FREE_TERMS,
  weights: start,
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
  let best = { weights, misses: Infinity };
  for (let round = 0; round < ROUNDS; round++) {
    const looked = lessons.map((lesson) => exampleOf(lesson, weights, start)).filter((one) => one !== null);
    rounds.push(looked);
    const misses = missesAt(lessons, weights);
    if (misses < best.misses) best = { weights, misses };
    const examples = merged(rounds.slice(-KEPT_ROUNDS));
    const { factors, loss } = fitFactors(examples, rulesFor(start));
    log(`round ${round}: marks missed ${misses}, loss ${loss.toFixed(2)}`);
    weights = withFactors(start, factors);
  }
  if (missesAt(lessons, weights) < best.misses) best = { weights, misses: missesAt(lessons, weights) };
  return { weights: best.weights, examples: merged(rounds.slice(-KEPT_ROUNDS)) };
}

/** Share of missed marks, each family counting equally, in thousandths. */
function missesAt(lessons: readonly Lesson[], weights: Weights): number {
  const byFamily = new Map<string, [number, number]>();
  for (const lesson of lessons) {
    const { placements } = plannerFor(lesson, weights).plan(new Map());
    const sums = byFamily.get(lesson.family) ?? [0, 0];
    byFamily.set(lesson.family, [sums[0] + missesOf(lesson, placements), sums[1] + placements.length]);
  }
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

const round = (weight: number) => Math.round(10 * weight) / 10;

export const withFactors = (start: Weights, factors: ReadonlyMap<string, number>): Weights => {
  const changed = [...factors].map(([term, factor]) => [term, round(start[term as LeftTermId] * factor)]);
  return { ...start, ...(Object.fromEntries(changed) as Partial<Record<LeftTermId, number>>) };
};
