/** The lattice of the left hand: a layer of states for each moment and the priced ways between them. */
import type { Layer } from '../lattice';
import type { FingeringProblem, Moment } from '../problem';
import { type HandState, memoryKey } from './handState';
import { stateCost } from './stateCost';
import { heldCodes, statesAt } from './states';
import { cutsCost, entryCost, memoryAfter, movementCost } from './transition';

export interface HandLayer extends Layer {
  readonly states: readonly HandState[];
  /** Struck strikes that are left out because no hand can play them with the rest. */
  readonly omitted: ReadonlySet<number>;
}

const NONE: ReadonlySet<number> = new Set();

/** Builds the layer of a moment on top of the one before; strikes are left out only where nothing else helps. */
export function handLayer(
  problem: FingeringProblem,
  moment: Moment,
  before: HandLayer | null,
  omitted: ReadonlySet<number> = NONE,
): HandLayer {
  let left = omitted;
  let states = statesAt(problem, moment, before?.states ?? null, left);
  for (const more of subsetsBySize(moment.struck.filter((strike) => !omitted.has(strike)))) {
    if (states.length > 0) break;
    left = new Set([...omitted, ...more]);
    states = statesAt(problem, moment, before?.states ?? null, left);
  }
  const costs = Int32Array.from(
    states,
    (state) => stateCost(problem, moment, state) + (before ? 0 : entryCost(state)),
  );
  const previous = before ? problem.moments[moment.index - 1]! : null;
  const edges =
    before && previous
      ? edgesBetween(problem, previous, before.states, moment, states)
      : noEdges(states.length);
  return { states, omitted: left, stateCost: costs, ...edges };
}

const noEdges = (count: number) => ({
  edgeStart: new Int32Array(count + 1),
  edgeFrom: new Int32Array(0),
  edgeCost: new Int32Array(0),
});

/** Non-empty subsets, the smallest first. */
export function subsetsBySize(items: readonly number[]): readonly (readonly number[])[] {
  const subsets = Array.from({ length: (1 << items.length) - 1 }, (_, k) =>
    items.filter((_item, bit) => (k + 1) & (1 << bit)),
  );
  return subsets.sort((a, b) => a.length - b.length);
}

function edgesBetween(
  problem: FingeringProblem,
  moment: Moment,
  before: readonly HandState[],
  next: Moment,
  states: readonly HandState[],
) {
  const groups = groupByHeld(problem, before, next);
  // Without a pitch that is struck again, what is cut depends on the held strikes alone: once for each group.
  const again = strikesAgain(problem, before, next);
  const edgeStart = new Int32Array(states.length + 1);
  const edgeFrom: number[] = [];
  const edgeCost: number[] = [];
  states.forEach((to, s) => {
    const wanted = heldCodes(to, next);
    for (const group of groups) {
      // Only a strike that is let go may differ.
      if (!wanted.every((code, h) => code === 0 || code === group.codes[h])) continue;
      const members = to.range ? group.members : (group.byMemory.get(memoryKey(to.memory)) ?? NOBODY);
      const cuts = again || members.length === 0 ? null : cutsCost(problem, before[members[0]!]!, next, to);
      for (const from of members) {
        const cut = cuts ?? cutsCost(problem, before[from]!, next, to);
        edgeFrom.push(from);
        edgeCost.push(cut + movementCost(problem, moment, before[from]!, next, to));
      }
    }
    edgeStart[s + 1] = edgeFrom.length;
  });
  return { edgeStart, edgeFrom: Int32Array.from(edgeFrom), edgeCost: Int32Array.from(edgeCost) };
}

const NOBODY: readonly number[] = [];

function strikesAgain(problem: FingeringProblem, before: readonly HandState[], next: Moment): boolean {
  const struck = new Set(next.struck.map((strike) => problem.strikes[strike]!.midi));
  const sounding = new Set(before.flatMap((state) => state.strikes));
  return [...sounding].some((strike) => struck.has(problem.strikes[strike]!.midi));
}

interface HeldGroup {
  readonly codes: readonly number[];
  readonly members: number[];
  /** Members by what they remember when nothing is stopped afterwards. */
  readonly byMemory: Map<string, number[]>;
}

function groupByHeld(
  problem: FingeringProblem,
  before: readonly HandState[],
  next: Moment,
): readonly HeldGroup[] {
  const groups = new Map<string, HeldGroup>();
  before.forEach((state, s) => {
    const codes = heldCodes(state, next);
    const key = codes.join(' ');
    let group = groups.get(key);
    if (!group) groups.set(key, (group = { codes, members: [], byMemory: new Map() }));
    group.members.push(s);
    const memory = memoryKey(memoryAfter(problem, state, next));
    const alike = group.byMemory.get(memory);
    if (alike) alike.push(s);
    else group.byMemory.set(memory, [s]);
  });
  return [...groups.values()];
}
