/**
 * Fits the weights of both hands at once: what each hand's own passages say, as `../fit.ts` and `../right/fit.ts` hear
 * it, and what the left hand's passages say of a plan of both hands: where that is cheaper than every accepted
 * fingering, weights of both hands change.
 */
import { termTotals } from '../../src/core/fingering/left/explain/explain';
import type { LeftTermId } from '../../src/core/fingering/left/rules/terms';
import { LEFT_TERM_IDS } from '../../src/core/fingering/left/rules/terms';
import type { RightTermId } from '../../src/core/fingering/right/rules/terms';
import { RIGHT_TERM_IDS } from '../../src/core/fingering/right/rules/terms';
import { walkRight } from '../../src/core/fingering/right/explain/walk';
import { LEFT_RULES, leftGradient } from '../fit';
import { inkOfPlaces, nearestAccepted } from '../measure';
import type { Passage } from '../passage';
import type { RightPassage } from '../right/passages';
import { RIGHT_RULES, rightGradient } from '../right/fit';
import type { PricedShape } from '../shapeCosts';
import { Average, normOf, stepped } from '../step';
import { type BothPlan, type BothTask, bothTaskOf, type BothWeights } from './plan';

const EPOCHS = 12;
const STEP = 0.1;
/** A plan that is cheaper counts up to this much, in tenths of a point. */
const LARGEST = 120;

export interface Material {
  readonly left: readonly Passage[];
  readonly right: readonly RightPassage[];
  readonly shapes: readonly PricedShape[];
}

interface Gradients {
  readonly left: Map<LeftTermId, number>;
  readonly right: Map<RightTermId, number>;
}

export function fitBoth(
  start: BothWeights,
  { left, right, shapes }: Material,
  log: (line: string) => void,
): BothWeights {
  let weights = start;
  const averages = { left: new Average(start.left), right: new Average(start.right) };
  // What each hand was fitted to by itself counts as one member of the average: a step back towards it.
  averages.left.add(start.left);
  averages.right.add(start.right);
  for (let epoch = 0; epoch < EPOCHS; epoch++) {
    const rate = STEP / (1 + epoch / 6);
    const ofLeft = leftGradient(left, shapes, weights.left);
    const ofRight = rightGradient(right, weights.right);
    const gradients = { left: ofLeft.gradient, right: ofRight.gradient };
    let loss = 0;
    for (const passage of left) loss += addGradient(passage, weights, gradients);
    const step = rate / normOf(gradients.left, gradients.right);
    weights = {
      left: stepped(weights.left, start.left, gradients.left, { rate: step, pullRate: rate }, LEFT_RULES),
      right: stepped(
        weights.right,
        start.right,
        gradients.right,
        { rate: step, pullRate: rate },
        RIGHT_RULES,
      ),
    };
    if (epoch >= EPOCHS / 2) {
      averages.left.add(weights.left);
      averages.right.add(weights.right);
    }
    const losses = [ofLeft.loss, ofRight.loss, loss].map(Math.round);
    log(
      `epoch ${epoch}: loss of the left hand ${losses[0]}, of the right ${losses[1]}, of both ${losses[2]}`,
    );
  }
  return { left: averages.left.rounded, right: averages.right.rounded };
}

function addGradient(passage: Passage, weights: BothWeights, gradients: Gradients): number {
  const task = bothTaskOf(passage, weights);
  const free = task.plan(new Map());
  const accepted = task.accepted
    .map((variant) =>
      task.plan(inkOfPlaces(task, nearestAccepted({ ...task, accepted: [variant] }, free.placements))),
    )
    .filter(({ conflicts }) => conflicts.length === 0);
  const lack = Math.min(LARGEST, Math.min(...accepted.map(({ cost }) => cost)) - free.cost);
  if (!(lack > 0)) return 0;
  const wanted = accepted.reduce((a, b) => (b.cost < a.cost ? b : a));
  const share = lack / LARGEST;
  const [left, otherLeft] = [leftTotals(task, wanted), leftTotals(task, free)];
  const [right, otherRight] = [rightTotals(task, wanted), rightTotals(task, free)];
  for (const id of LEFT_TERM_IDS) add(gradients.left, id, share, left, otherLeft);
  for (const id of RIGHT_TERM_IDS) add(gradients.right, id, share, right, otherRight);
  return lack;
}

function add<Id extends string>(
  gradient: Map<Id, number>,
  id: Id,
  share: number,
  wanted: ReadonlyMap<Id, number>,
  other: ReadonlyMap<Id, number>,
): void {
  const against = (wanted.get(id) ?? 0) - (other.get(id) ?? 0);
  if (against !== 0) gradient.set(id, (gradient.get(id) ?? 0) + share * against);
}

const leftTotals = ({ problem }: BothTask, { states }: BothPlan) =>
  termTotals(problem, states) as ReadonlyMap<LeftTermId, number>;

function rightTotals(
  { problem, setting }: BothTask,
  { states, played }: BothPlan,
): ReadonlyMap<RightTermId, number> {
  const totals = new Map<RightTermId, number>();
  const ledger = (term: RightTermId, cost: number) => void totals.set(term, (totals.get(term) ?? 0) + cost);
  walkRight(problem, setting, states, played, { ledger: () => ledger });
  return totals;
}
