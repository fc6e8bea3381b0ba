/** What the right hand has to pluck, given the strings. */
import type { Pluck } from '../../score/model';
import type { FingeringProblem, Role } from '../problem';
import type { Placement } from '../left/handState';
import { slurPlayable } from '../left/connectionCost';

export interface Stroke {
  readonly strike: number;
  readonly string: number;
  readonly role: Role;
  readonly printed: Pluck | null;
}

/** The strokes of one moment, from the lowest-pitched string (6) up. Slurred strikes are not plucked. */
export interface StrokeGroup {
  readonly momentIndex: number;
  readonly timeMs: number;
  readonly strokes: readonly Stroke[];
}

export function strokeGroupsOf(
  problem: FingeringProblem,
  placements: readonly (Placement | null)[],
): readonly StrokeGroup[] {
  const groups: StrokeGroup[] = [];
  for (const moment of problem.moments) {
    const strokes = moment.struck.flatMap((index): Stroke[] => {
      const place = placements[index];
      if (!place || isSlurred(problem, placements, index)) return [];
      const { role, printed } = problem.strikes[index]!;
      return [{ strike: index, string: place.string, role, printed: printed.pluck }];
    });
    if (strokes.length === 0) continue;
    strokes.sort((a, b) => b.string - a.string);
    groups.push({ momentIndex: moment.index, timeMs: moment.timeMs, strokes });
  }
  return groups;
}

function isSlurred(
  problem: FingeringProblem,
  placements: readonly (Placement | null)[],
  index: number,
): boolean {
  const source = problem.strikes[index]!.slurredFrom;
  const from = source === null ? null : placements[source];
  return !!from && slurPlayable(from, placements[index]!);
}

/**
 * Every way to share out one group's strings: fingers in order across the strings, p lowest, and p alone may
 * take several strings by brushing. Source: handbook, "Chords".
 */
export function sharingsOf(count: number): readonly (readonly Pluck[])[] {
  const fingers: readonly Pluck[] = ['i', 'm', 'a'];
  const sharings: Pluck[][] = [];
  for (let subset = 0; subset < 8; subset++) {
    const chosen = fingers.filter((_, bit) => subset & (1 << bit));
    const thumbs = count - chosen.length;
    if (thumbs < 0) continue;
    sharings.push([...Array<Pluck>(thumbs).fill('p'), ...chosen]);
  }
  return sharings;
}
