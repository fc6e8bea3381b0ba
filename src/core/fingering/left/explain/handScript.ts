/**
 * The script of the left hand: what each finger does and when, and how early it could. Source: handbook, "Looking
 * ahead": earliest placement is when the finger is free, the hand is there, and laying it silences nothing — its
 * string is silent, or the new stop lies nutwards of the one that sounds.
 */
import type { FingeringProblem } from '../../problem/problem';
import { playable } from '../rules/constraints';
import { coversString } from '../rules/stand';
import type { HandState } from '../rules/handState';
import type { Placement } from '../rules/place';
import { measureShift } from '../rules/prices';
import { type Grip, gripCovers, gripOf, isBarreGrip, sameGrip, type Stint, stintsOf } from './grips';

/**
 * place, lift, slide (along its string to another fret), stay (left down between two notes at one place), barre
 * (laid), hinge (part of a lying barre is freed), prepare (a place that could be taken well before its note).
 */
export type HandActionKind = 'place' | 'prepare' | 'lift' | 'slide' | 'stay' | 'barre' | 'hinge';

export interface HandAction {
  readonly kind: HandActionKind;
  readonly finger: number;
  readonly grip: Grip;
  /** Fret where a slide begins. */
  readonly fromFret: number | null;
  readonly momentIndex: number;
  /** Ticks from the start: when it must be done, and from when on it can. */
  readonly ticks: number;
  readonly earliestTicks: number;
  /** In ms before its time. */
  readonly leadMs: number;
}

/** A place taken at least so long before its note is prepared. From memory. */
const PREPARED_MS = 120;

/** In order of time; at one time what lifts comes first, then by finger. */
export function handScript(problem: FingeringProblem, states: readonly HandState[]): readonly HandAction[] {
  const actions = [1, 2, 3, 4].flatMap((finger) =>
    fingerScript(problem, states, stintsOf(problem, states, finger)),
  );
  const rank = (action: HandAction) => (action.kind === 'lift' ? 0 : 1);
  return actions.sort((a, b) => a.ticks - b.ticks || rank(a) - rank(b) || a.finger - b.finger);
}

function fingerScript(
  problem: FingeringProblem,
  states: readonly HandState[],
  stints: readonly Stint[],
): readonly HandAction[] {
  return stints.flatMap((stint, n) => {
    const before = stints[n - 1] ?? null;
    const after = stints[n + 1] ?? null;
    const actions = [arrival(problem, states, before, stint)];
    const goesOn = after !== null && wayBetween(problem, states, stint, after) !== 'lift';
    if (!goesOn) actions.push(departure(stint));
    return actions;
  });
}

const departure = (stint: Stint): HandAction => ({
  kind: 'lift',
  finger: stint.finger,
  grip: stint.grip,
  fromFret: null,
  momentIndex: stint.to,
  ticks: stint.endTicks,
  earliestTicks: stint.endTicks,
  leadMs: 0,
});

function arrival(
  problem: FingeringProblem,
  states: readonly HandState[],
  before: Stint | null,
  stint: Stint,
): HandAction {
  const way = before ? wayBetween(problem, states, before, stint) : 'lift';
  const earliest = way === 'lift' ? earliestTicks(problem, states, stint) : stint.startTicks;
  const leadMs = problem.spans.spanMs(earliest, stint.startTicks);
  const kind = way === 'lift' ? laying(stint, leadMs) : way;
  return {
    kind: kind === 'stay' && before && grows(before.grip, stint.grip) ? 'barre' : kind,
    finger: stint.finger,
    grip: stint.grip,
    fromFret: way === 'slide' ? before!.grip.fret : null,
    momentIndex: stint.from,
    ticks: stint.startTicks,
    earliestTicks: earliest,
    leadMs,
  };
}

const grows = (a: Grip, b: Grip) => !gripCovers(a, b) && isBarreGrip(b);

const laying = (stint: Stint, leadMs: number): HandActionKind =>
  isBarreGrip(stint.grip) ? 'barre' : leadMs >= PREPARED_MS ? 'prepare' : 'place';

type FingerWay = 'stay' | 'slide' | 'hinge' | 'lift';

/** How a finger comes from one stint to its next. */
function wayBetween(
  problem: FingeringProblem,
  states: readonly HandState[],
  from: Stint,
  to: Stint,
): FingerWay {
  const shifts = shiftsBetween(problem, states, from.to, to.from);
  if (from.grip.fret === to.grip.fret)
    return shifts ? wayAlong(states, from, to, false) : wayOnFret(problem, states, from, to);
  return wayAlong(states, from, to, shifts);
}

/** The hand stays where it is: what covers the rest may lie. */
function wayOnFret(
  problem: FingeringProblem,
  states: readonly HandState[],
  from: Stint,
  to: Stint,
): FingerWay {
  const between = states.slice(from.to + 1, to.from);
  const mayKeep = (one: Stint) => between.every((state) => mayLie(problem, state, one));
  if (gripCovers(from.grip, to.grip) && isBarreGrip(from.grip) && mayKeep(to))
    return sameGrip(from.grip, to.grip) || !freesSomething(states[to.from]!, from.grip) ? 'stay' : 'hinge';
  return gripCovers(to.grip, from.grip) && mayKeep(from) ? 'stay' : 'lift';
}

/** A tip slides along a string that is silent meanwhile; a barre moves as it is. */
function wayAlong(states: readonly HandState[], from: Stint, to: Stint, shifts: boolean): FingerWay {
  const between = states.slice(from.to + 1, to.from);
  const string = from.grip.firstString;
  const oneString = !isBarreGrip(from.grip) && !isBarreGrip(to.grip) && string === to.grip.firstString;
  const silent = () =>
    between.every(({ placements }) => placements.every((place) => place.string !== string));
  if (shifts && oneString && silent()) return 'slide';
  return isBarreGrip(from.grip) && isBarreGrip(to.grip) && between.length === 0 ? 'slide' : 'lift';
}

function shiftsBetween(
  problem: FingeringProblem,
  states: readonly HandState[],
  from: number,
  to: number,
): boolean {
  for (let k = from + 1; k <= to; k++) {
    if (measureShift(problem, problem.moments[k - 1]!, states[k - 1]!, problem.moments[k]!, states[k]!))
      return true;
  }
  return false;
}

/** Whether something sounds on the strings of a barre that it would silence. */
const freesSomething = (state: HandState, grip: Grip) =>
  state.placements.some(({ string, fret }) => coversString(grip, string) && fret < grip.fret);

/** Whether the finger may lie there, in the way of nothing, while the hand is in this state. */
const mayLie = (problem: FingeringProblem, state: HandState, stint: Stint): boolean =>
  gripOf(state, stint.finger) === null && fitsWith(problem, state.placements, stint);

function fitsWith(
  problem: FingeringProblem,
  placements: readonly Placement[],
  { finger, grip }: Stint,
): boolean {
  if (placements.some((place) => silences(grip, place))) return false;
  const others = placements.filter(({ string }) => !coversString(grip, string));
  return playable([...others, ...placesOf(grip, finger)], problem.fretboard, problem.hand);
}

/** Whether a finger laid there would end the note: it lies on its string, not behind its stop. */
const silences = (grip: Grip, { string, fret }: Placement) => coversString(grip, string) && fret <= grip.fret;

const placesOf = (grip: Grip, finger: number): readonly Placement[] =>
  isBarreGrip(grip)
    ? [grip.firstString, grip.lastString].map((string) => ({ string, fret: grip.fret, finger }))
    : [{ string: grip.firstString, fret: grip.fret, finger }];

/** Walks back from the note as far as the finger may lie there already. */
function earliestTicks(problem: FingeringProblem, states: readonly HandState[], stint: Stint): number {
  let ticks = stint.startTicks;
  for (let k = stint.from - 1; k >= 0; k--) {
    const next = problem.moments[k + 1]!;
    if (measureShift(problem, problem.moments[k]!, states[k]!, next, states[k + 1]!)) break;
    if (!mayLie(problem, states[k]!, stint)) return freeWithin(problem, states[k]!, stint, ticks);
    ticks = problem.moments[k]!.tick;
  }
  return ticks;
}

/**
 * Inside a moment where something is in the way: when the last of that has ended, its own finger's notes among it;
 * `otherwise` where the rest of the hand is in the way, too.
 */
function freeWithin(problem: FingeringProblem, state: HandState, stint: Stint, otherwise: number): number {
  const isInTheWay = (place: Placement) => place.finger === stint.finger || silences(stint.grip, place);
  const rest = state.placements.filter((place) => !isInTheWay(place));
  if (!fitsWith(problem, rest, stint)) return otherwise;
  const ends = state.strikes
    .filter((_strike, slot) => isInTheWay(state.placements[slot]!))
    .map((strike) => problem.strikes[strike]!.endTicks);
  return Math.min(otherwise, Math.max(...ends));
}

/** Actions that go down together: the shape as a block. */
export interface HandBlock {
  readonly ticks: number;
  readonly momentIndex: number;
  readonly actions: readonly HandAction[];
}

const LAYS = new Set<HandActionKind>(['place', 'prepare', 'barre', 'slide', 'stay']);

/**
 * The same script as blocks: every finger that could lie already when a shape begins goes down with it. The plain
 * script is the hand finger by finger. Source: handbook, "Block or finger by finger".
 */
export function asBlocks(script: readonly HandAction[]): readonly HandBlock[] {
  const blocks: { ticks: number; momentIndex: number; actions: HandAction[] }[] = [];
  for (const action of script.filter(({ kind }) => LAYS.has(kind))) {
    const block = blocks.at(-1);
    if (block && action.earliestTicks <= block.ticks) block.actions.push(action);
    else blocks.push({ ticks: action.ticks, momentIndex: action.momentIndex, actions: [action] });
  }
  return blocks;
}
