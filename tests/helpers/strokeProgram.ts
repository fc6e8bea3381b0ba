/**
 * The right hand as an integer program, written down from the notes and the rules: a column says that a moment's notes
 * lie on these strings and are played by these letters; pairs of columns carry the prices of coming from one to the
 * other, unless the fingers (or the thumb) play in between. It knows nothing of the planner's memories or layers.
 *
 * Left out (their weights must be 0): what looks back further than to the last strokes, the map of stations. Brute force
 * and the dual check know it.
 */
import type { HandProfile } from '../../src/core/instrument/handProfile';
import type { FingeringProblem } from '../../src/core/fingering/problem/problem';
import {
  memoryAfter,
  NO_MEMORY,
  type RightMemory,
  type Sharing,
  sharingFor,
} from '../../src/core/fingering/right/rules/memory';
import type { RightSetting } from '../../src/core/fingering/right/rules/setting';
import { fingersPartCost, groupCost, thumbPartCost } from '../../src/core/fingering/right/rules/strokeCost';
import type { RightTermId } from '../../src/core/fingering/right/rules/terms';
import {
  type PlacedStrike,
  type StrokeGroup,
  strokeGroup,
} from '../../src/core/fingering/right/rules/strokes';
import type { Column } from './integerProgram';
import { LinearProgram } from './linearProgram';
import { naivePlayed } from './naive';
import { KEEP, modeNumber } from '../../src/core/fingering/right/rules/modes';

export const UNPRICED_STROKES: readonly RightTermId[] = ['restation', 'visit', 'spread', 'thumbAbove'];

interface Way {
  readonly name: string;
  readonly placed: readonly PlacedStrike[];
  readonly group: StrokeGroup;
  readonly sharing: Sharing;
}

/** @param choices by moment: every way to put its notes on strings */
export function strokeProgram(
  problem: FingeringProblem,
  setting: RightSetting,
  choices: readonly (readonly (readonly PlacedStrike[])[])[],
): string {
  const model = new LinearProgram();
  const ways = rightHand(model, problem, setting, choices);
  for (const at of ways)
    model.row(
      at.map(({ name }) => [1, name] as const),
      '=',
      1,
    );
  return model.text();
}

/** Both hands: the strings of the right hand are those of the left hand's columns. */
export function linkHands(
  model: LinearProgram,
  problem: FingeringProblem,
  setting: RightSetting,
  columns: readonly (readonly Column[])[],
): void {
  const choices = problem.moments.map(({ struck }, k) =>
    struck.reduce<readonly (readonly PlacedStrike[])[]>(
      (rows, strike) =>
        rows.flatMap((row) =>
          placesByString(columns[k]!, strike)
            .filter((place) => row.every((other) => other.place.string !== place.string))
            .map((place) => [...row, { strike, place, slurred: false }]),
        ),
      [[]],
    ),
  );
  const ways = rightHand(model, problem, setting, choices);
  problem.moments.forEach(({ struck }, k) => {
    model.row(
      ways[k]!.map(({ name }) => [1, name] as const),
      '=',
      1,
    );
    for (const strike of struck) {
      for (const { string } of placesByString(columns[k]!, strike)) {
        const played = ways[k]!.filter(({ placed }) =>
          placed.some((one) => one.strike === strike && one.place.string === string),
        );
        const lies = columns[k]!.filter((one) => one.strike === strike && one.place.string === string);
        model.row(
          [...played.map(({ name }) => [1, name] as const), ...lies.map(({ name }) => [-1, name] as const)],
          '=',
          0,
        );
      }
    }
  });
}

/** One place for each string: which finger stops it is nothing to the right hand. */
function placesByString(columns: readonly Column[], strike: number) {
  const places = new Map(
    columns.filter((one) => one.strike === strike).map(({ place }) => [place.string, place]),
  );
  return [...places.values()];
}

function rightHand(
  model: LinearProgram,
  problem: FingeringProblem,
  setting: RightSetting,
  choices: readonly (readonly (readonly PlacedStrike[])[])[],
): readonly (readonly Way[])[] {
  const ways = choices.map((rows, k) =>
    rows.flatMap((placed, row) => {
      const group = strokeGroup(problem, setting, k, placed);
      return naivePlayed(group).map((played): Way => ({
        name: `z_${k}_${row}_${played.letters.join('') || 'none'}${modeNumber(played.mode)}`,
        placed,
        group,
        sharing: sharingFor(group, played),
      }));
    }),
  );
  ways.forEach((at, k) => {
    for (const way of at) {
      model.binaries.add(way.name);
      model.cost(groupCost(way.group, way.sharing), way.name);
      fromStart(model, problem, ways, k, way);
      for (let j = 0; j < k; j++) fromMoment(model, problem.hand, ways, [j, k], way);
    }
  });
  return ways;
}

/** Whether the fingers think otherwise after it: they play, or p takes over from them. */
const usesFingers = ({ sharing }: Way) =>
  sharing.fingers !== null || (sharing.mode !== KEEP && plays(sharing));
const usesThumb = ({ sharing }: Way) => sharing.thumb !== null;
const plays = ({ letters }: Sharing) => letters.length > 0;

/** What the fingers pay when they have not played yet. */
function fromStart(
  model: LinearProgram,
  problem: FingeringProblem,
  ways: readonly (readonly Way[])[],
  k: number,
  to: Way,
) {
  const before = ways.slice(0, k).flat().filter(usesFingers);
  model.together(
    fingersPartCost(NO_MEMORY.fingers, to.group, to.sharing, problem.hand),
    [to.name],
    before.map(({ name }) => name),
  );
}

function fromMoment(
  model: LinearProgram,
  hand: HandProfile,
  ways: readonly (readonly Way[])[],
  [j, k]: readonly [number, number],
  to: Way,
) {
  const between = ways.slice(j + 1, k).flat();
  for (const from of ways[j]!) {
    const memory = memoryAfter(NO_MEMORY, from.sharing);
    if (usesFingers(from))
      model.together(
        fingersPartCost(rested(ways, memory.fingers, j, k), to.group, to.sharing, hand),
        [from.name, to.name],
        between.filter(usesFingers).map(({ name }) => name),
      );
    // p is remembered for one stroke of the hand, whoever plays it.
    if (usesThumb(from))
      model.together(
        thumbPartCost(memory.thumb, to.group, to.sharing, hand),
        [from.name, to.name],
        between.filter(({ sharing }) => plays(sharing)).map(({ name }) => name),
      );
  }
}

/** The fingers when something without them lies between the moments j and k: slurred notes, or strokes of p. */
function rested(
  ways: readonly (readonly Way[])[],
  fingers: RightMemory['fingers'],
  j: number,
  k: number,
): RightMemory['fingers'] {
  if (k === j + 1 || typeof fingers.mode === 'string') return fingers;
  const { kind } = fingers.mode;
  if (kind === 'thumb') return fingers;
  const slurred = ways[k - 1]!.every(({ sharing }) => !plays(sharing));
  const since = slurred ? 'slur' : 'thumb';
  const forgets = kind === 'stations' || kind === 'cycle';
  return forgets ? { ...fingers, last: 0, string: 0, since } : { ...fingers, since };
}
