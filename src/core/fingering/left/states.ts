/** All states that a hand can take at a moment, given those of the moment before. */
import { STRINGS, openMidi } from '../../instrument/tuning';
import type { FingeringProblem, Moment, Strike } from '../problem';
import { barrePlayable, pairPlayable } from './constraints';
import { codeOf, type HandMemory, type HandState, handState, memoryKey, type Placement } from './handState';
import { memoryAfter } from './transition';

/** What a hand may keep of the strikes held into a moment, with the memories it may arrive with. */
interface Kept {
  readonly strikes: readonly number[];
  readonly placements: readonly Placement[];
  readonly memories: ReadonlyMap<string, HandMemory | null>;
}

/** Strings, frets and fingers that could sound one pitch: open first, then by string and finger. */
export function placementsOf(
  problem: FingeringProblem,
  { midi, touch }: Pick<Strike, 'midi' | 'touch'>,
): readonly Placement[] {
  if (touch) return touch.flatMap((place) => [1, 2, 3, 4].map((finger) => ({ ...place, finger })));
  const all: Placement[] = [];
  for (const string of STRINGS) {
    const fret = midi - openMidi(problem.tuning, string);
    if (fret === 0) all.push({ string, fret, finger: 0 });
    if (fret < 1 || fret > problem.hand.highestFret) continue;
    for (let finger = 1; finger <= 4; finger++) all.push({ string, fret, finger });
  }
  return all;
}

/**
 * Every playable state at `moment`: each struck strike but the `omitted` ones lies somewhere, each held one is
 * kept where it was or let go. States come in an order that depends on the problem alone.
 */
export function statesAt(
  problem: FingeringProblem,
  moment: Moment,
  before: readonly HandState[] | null,
  omitted: ReadonlySet<number>,
): readonly HandState[] {
  const struck = moment.struck.filter((strike) => !omitted.has(strike));
  const choices = struck.map((strike) => placementsOf(problem, problem.strikes[strike]!));
  const states: HandState[] = [];
  for (const kept of keptBy(problem, moment, before)) {
    const strikes = [...kept.strikes, ...struck];
    extend(problem, kept.placements, choices, (placements) => {
      const open = placements.every((place) => place.finger === 0);
      if (!open) return void states.push(handState(strikes, placements, null));
      for (const memory of kept.memories.values()) states.push(handState(strikes, placements, memory));
    });
  }
  return states;
}

function keptBy(
  problem: FingeringProblem,
  moment: Moment,
  before: readonly HandState[] | null,
): readonly Kept[] {
  if (!before) return [{ strikes: [], placements: [], memories: new Map([['', null]]) }];
  const found = new Map<string, Kept & { memories: Map<string, HandMemory | null> }>();
  for (const state of before) {
    const memory = memoryAfter(problem, state, moment);
    const slots = moment.held.map((strike) => state.strikes.indexOf(strike)).filter((slot) => slot >= 0);
    for (let subset = 0; subset < 1 << slots.length; subset++) {
      const kept = slots.filter((_, bit) => subset & (1 << bit));
      const key = kept.map((slot) => `${state.strikes[slot]}:${state.codes[slot]}`).join(' ');
      let entry = found.get(key);
      if (!entry) {
        entry = {
          strikes: kept.map((slot) => state.strikes[slot]!),
          placements: kept.map((slot) => state.placements[slot]!),
          memories: new Map(),
        };
        found.set(key, entry);
      }
      entry.memories.set(memoryKey(memory), memory);
    }
  }
  return [...found.values()];
}

/** Depth-first over the struck strikes; a placement that clashes with an earlier one is never gone into. */
function extend(
  problem: FingeringProblem,
  kept: readonly Placement[],
  choices: readonly (readonly Placement[])[],
  emit: (placements: readonly Placement[]) => void,
) {
  const chosen = [...kept];
  const descend = (depth: number) => {
    if (depth === choices.length) {
      if (barrePlayable(chosen, problem.hand)) emit([...chosen]);
      return;
    }
    for (const place of choices[depth]!) {
      if (!chosen.every((other) => pairPlayable(other, place, problem.fretboard, problem.hand))) continue;
      chosen.push(place);
      descend(depth + 1);
      chosen.pop();
    }
  };
  descend(0);
}

/** Codes of the strikes held into `next`, 0 for one that this state does not have. */
export function heldCodes(state: HandState, next: Moment): readonly number[] {
  return next.held.map((strike) => {
    const slot = state.strikes.indexOf(strike);
    return slot < 0 ? 0 : codeOf(state.placements[slot]!);
  });
}
