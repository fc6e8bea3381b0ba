/**
 * Fits the weights of the left hand to the fitting half of the passages: inverse optimisation with a margin. For
 * every note the planner gives the exact price of every other choice; where one that nobody accepts is not dearer
 * than the accepted fingering by the margin, the weights of the terms that speak against the accepted one go down
 * and those of the terms that speak against the other go up. Multiplicative steps keep them positive; a pull to the
 * start keeps what no passage speaks about where it was. Deterministic.
 *
 *   npm run calibrate            fits, reports, writes the weights into terms.ts
 *   npm run calibrate report     reports on the weights that stand there
 */
import { LEFT_TERM_IDS, type LeftTermId } from '../src/core/fingering/left/rules/terms';
import { termTotals } from '../src/core/fingering/left/explain/explain';
import { LeftPlanner } from '../src/core/fingering/left/lattice/planLeft';
import { LEFT_SCHOOLS } from '../src/core/fingering/left/rules/schools';
import { maybePlayer } from '../src/core/instrument/hands';
import { weightsFrom } from '../src/core/fingering/left/rules/weights';
import { inkOfPlaces, nearestAccepted, type WeightsOf } from './measure';
import { type Passage, taskOf } from './passage';
import { costsOf, type PricedShape } from './shapeCosts';
import { Average, normOf, stepped, type StepRules } from './step';
import { LEFT_SET } from './start';

export type BaseWeights = Readonly<Record<LeftTermId, number>>;

const EPOCHS = 40;
const STEP = 0.35;
const MARGIN = 25;
/** Violations count up to this much, so that one wrong passage does not drown the others. In tenths of a point. */
const LARGEST = 120;
/** Set by decree, not by taste: the teacher's word and what nobody plays. */
export const LEFT_RULES: StepRules<LeftTermId> = {
  pull: 0.012,
  farthest: 8,
  fixed: LEFT_SET,
};

export const weightsOfBase =
  (base: BaseWeights): WeightsOf =>
  (school, passage) =>
    weightsFrom(base, LEFT_SCHOOLS[school].factors, maybePlayer(passage.hand ?? 'adult-medium')!.hand);

export function fit(
  start: BaseWeights,
  passages: readonly Passage[],
  shapes: readonly PricedShape[],
  log: (line: string) => void = () => {},
): BaseWeights {
  let weights = start;
  const average = new Average(start);
  for (let epoch = 0; epoch < EPOCHS; epoch++) {
    const rate = STEP / (1 + epoch / 12);
    const { loss, gradient } = leftGradient(passages, shapes, weights);
    weights = stepped(
      weights,
      start,
      gradient,
      { rate: rate / normOf(gradient), pullRate: rate },
      LEFT_RULES,
    );
    if (epoch >= EPOCHS / 2) average.add(weights);
    if (epoch % 5 === 0) log(`epoch ${epoch}: loss ${Math.round(loss)}`);
  }
  return average.rounded;
}

/** What all passages and shapes say about the logarithms of the weights. */
export function leftGradient(
  passages: readonly Passage[],
  shapes: readonly PricedShape[],
  weights: BaseWeights,
): { readonly loss: number; readonly gradient: Map<LeftTermId, number> } {
  const gradient = new Map<LeftTermId, number>();
  let loss = 0;
  for (const passage of passages) loss += addGradient(passage, weights, gradient);
  for (const shape of shapes)
    loss += addShapeGradient(shape, weights, passages.length / shapes.length, gradient);
  return { loss, gradient };
}

/** Adds what the passage says about the logarithms of the weights; gives its loss. */
function addGradient(passage: Passage, weights: BaseWeights, gradient: Map<LeftTermId, number>): number {
  const weightsOf = weightsOfBase(weights);
  const task = taskOf(passage, (school) => weightsOf(school, passage));
  const planner = new LeftPlanner(task.problem);
  const none = new Map();
  const free = planner.plan(none);
  const forced = task.accepted
    .map((variant) =>
      planner.plan(inkOfPlaces(task, nearestAccepted({ ...task, accepted: [variant] }, free.placements))),
    )
    .filter((plan) => plan.conflicts.length === 0);
  if (forced.length === 0)
    throw new Error(`${passage.id}: no accepted fingering can be played under the rules`);
  const accepted = forced.reduce((a, b) => (b.cost < a.cost ? b : a));
  const right = termTotals(task.problem, accepted.states);
  let loss = 0;
  for (const strike of task.problem.strikes) {
    const wrong = planner
      .candidates(none, strike.index)
      .find(
        ({ place }) =>
          !task.accepted.some((variant) =>
            variant[strike.index]!.some((one) => one.string === place.string && one.finger === place.finger),
          ),
      );
    if (!wrong) continue;
    const lack = Math.min(LARGEST, accepted.cost + MARGIN - (free.cost + wrong.extraCost));
    if (lack <= 0) continue;
    loss += lack / task.problem.strikes.length;
    const other = termTotals(task.problem, wrong.states());
    const share = lack / LARGEST / task.problem.strikes.length;
    for (const id of LEFT_TERM_IDS) {
      const against = (right.get(id) ?? 0) - (other.get(id) ?? 0);
      if (against !== 0) gradient.set(id, (gradient.get(id) ?? 0) + share * against);
    }
  }
  return loss;
}

const SHAPE_MARGIN = 12;
/** All shapes together weigh so much of what all passages weigh. */
const SHAPES_SHARE = 0.3;

/** The same for a chord of the data set, against the cheapest other fingering of its strings and frets. */
function addShapeGradient(
  shape: PricedShape,
  weights: BaseWeights,
  share: number,
  gradient: Map<LeftTermId, number>,
): number {
  if (shape.wanted < 0 || shape.barsNeedlessly) return 0;
  const row = LEFT_TERM_IDS.map((id) => weights[id]);
  const costs = costsOf(shape, row);
  let other = -1;
  costs.forEach((cost, k) => {
    if (k !== shape.wanted && (other < 0 || cost < costs[other]!)) other = k;
  });
  if (other < 0) return 0;
  const lack = Math.min(LARGEST, costs[shape.wanted]! + SHAPE_MARGIN - costs[other]!);
  if (lack <= 0) return 0;
  LEFT_TERM_IDS.forEach((id, t) => {
    const against = (shape.amounts[shape.wanted]![t]! - shape.amounts[other]![t]!) * row[t]!;
    if (against !== 0)
      gradient.set(id, (gradient.get(id) ?? 0) + (SHAPES_SHARE * share * lack * against) / LARGEST);
  });
  return SHAPES_SHARE * share * lack;
}
