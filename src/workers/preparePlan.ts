/** The plan of a stored document. The name of the model is made from this file and all that it is made of. */
import { inkOf, lensOf, listRegisters, type Registers } from '../core/fingering/edition/registers';
import { Planner } from '../core/fingering/planner';
import type { FingeringPlan } from '../core/fingering/report/plan';
import type { Score } from '../core/score/model';
import { type DocumentInput, readInput, registersOf } from './readInput';

/** A planner for whoever the piece is fingered for. */
export function plannerFor(score: Score, registers: Registers): Planner {
  const { player, school, right, schoolOfBar, textureOf } = lensOf(registers);
  return new Planner(score, player.fretboard, player.hand, school, {
    style: right,
    schoolOfBar: (bar) => schoolOfBar.get(bar) ?? null,
    textureOf: (note) => textureOf.get(note) ?? null,
    refusedSlurs: new Set(
      listRegisters(registers)
        .filter(({ attribute, value }) => attribute === 'slur' && value === false)
        .map(({ target }) => target),
    ),
  });
}

export function preparePlan(input: DocumentInput): { readonly plan: FingeringPlan; readonly score: Score } {
  const { document } = readInput(input);
  const planner = plannerFor(document.score, registersOf(input));
  return { plan: planner.plan(inkOf(registersOf(input))), score: document.score };
}
