/** All rules of the left hand. A new one is a file beside this and a line here. */
import { heldRule } from './cuts';
import { linkRule } from './connections';
import { BARRES, HOPS } from './fingers';
import type { OwnRule, StepRules, WayRule } from './rule';
import { SHIFT } from './shift';
import { STANDING } from './standing';
import type { HandStep, StruckNote } from './step';
import { stoppingRule, struckRule } from './struck';
import { WEAK_PAIR_MS } from './terms';
import { TURN_WEAKNESS } from './turns';

/** What a state costs by itself as these notes are struck. */
export const ownRules = (struck: readonly StruckNote[]): readonly OwnRule[] => [
  STANDING,
  stoppingRule(struck.length),
  ...struck.map(struckRule),
];

const MOVING: readonly WayRule[] = [...HOPS, ...BARRES];
const MOVING_FAST: readonly WayRule[] = [...MOVING, TURN_WEAKNESS];

/** What a step costs, apart from what is held. */
export const stepRules = (step: HandStep): StepRules => ({
  plain: [...(step.ms < WEAK_PAIR_MS ? MOVING_FAST : MOVING), ...step.links.map(linkRule)],
  carried: SHIFT,
});

/** What it costs not to hold, as it was, what should sound on. */
export const heldRules = ({ held }: HandStep): readonly WayRule[] => held.map(heldRule);

/** What a state costs as the first one: a barre must be laid there, too. */
export const ENTRY: readonly WayRule[] = BARRES;
