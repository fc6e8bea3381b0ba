/** All rules of the left hand. A new one is a file beside this and a line here. */
import { crossingRule } from './crossing';
import { heldRule } from './cuts';
import { freshAmong } from './fresh';
import { formRule, guideRule, linkRule } from './connections';
import { BARRES, HOPS } from './fingers';
import type { OwnRule, StepRules, WayRule } from './rule';
import { SHIFT } from './shift';
import { standingRule } from './standing';
import type { HandStep, PlacedNotes } from './step';
import { laidRule, reachingRule, stoppingRule, struckRule } from './struck';
import { WEAK_PAIR_MS } from './shares';
import { TURN_WEAKNESS } from './turns';

/** What a state costs by itself as these notes are struck: a shape and its fingers when they are taken, not again. */
export function ownRules(notes: PlacedNotes): readonly OwnRule[] {
  const { struck, laid } = notes;
  const fresh = freshAmong(notes);
  return [
    standingRule(fresh),
    stoppingRule(fresh),
    reachingRule(
      fresh,
      struck.every(({ manner }) => manner === 'figure'),
    ),
    crossingRule(notes, fresh),
    ...struck.map((note, k) => struckRule(note, k, fresh)),
    ...laid.map((note, k) => laidRule(note, struck.length + k, laid.length)),
  ];
}

const MOVING: readonly WayRule[] = [...HOPS, ...BARRES];
const MOVING_FAST: readonly WayRule[] = [...MOVING, TURN_WEAKNESS];

/** The lowest and the highest of what moves along; of a shape a middle note, too: it may be the one that guides. */
function guidesOf({ links }: HandStep): readonly WayRule[] {
  const along = links.filter(({ kind }) => kind === 'parallel' || kind === 'moved');
  if (along.length < 2) return [];
  const [low, middle, high] = [along[0]!, along[along.length >> 1]!, along.at(-1)!];
  return [
    guideRule(low.kind === 'moved' && middle !== high ? [low, middle, high] : [low, high]),
    formRule(low, high),
  ];
}

/** What a step costs, apart from what is held. */
export const stepRules = (step: HandStep): StepRules => ({
  plain: [...(step.ms < WEAK_PAIR_MS ? MOVING_FAST : MOVING), ...step.links.map(linkRule), ...guidesOf(step)],
  carried: SHIFT,
});

/** What it costs not to hold, as it was, what should sound on. */
export const heldRules = ({ held }: HandStep): readonly WayRule[] => held.map((note, h) => heldRule(note, h));

/** What a state costs as the first one: a barre must be laid there, too. */
export const ENTRY: readonly WayRule[] = BARRES;
