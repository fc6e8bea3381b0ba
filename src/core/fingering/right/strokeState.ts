/** What the right hand does at a moment, and what it remembers of the moments before. */
import type { Pluck } from '../../score/model';
import type { StrokeGroup } from './strokes';
import { LONGEST_MEMORY_MS } from './terms';

/** The last stroke of the fingers: which of them, where the set stood (string number + rank), when. */
export interface FingersMemory {
  /** Bits: i 1, m 2, a 4. */
  readonly fingers: number;
  readonly place: number;
  readonly timeMs: number;
}

export interface ThumbMemory {
  /** The highest-pitched string that p played. */
  readonly string: number;
  readonly timeMs: number;
}

export interface StrokeState {
  /** By stroke of the group, lowest-pitched string first. */
  readonly letters: readonly Pluck[];
  /** After this group's strokes. */
  readonly fingers: FingersMemory | null;
  readonly thumb: ThumbMemory | null;
}

export const RANK: Readonly<Record<Pluck, number>> = { p: -1, i: 0, m: 1, a: 2 };

/** Where the set stands while it plays this group, or null when only p does. */
export function fingersIn(group: StrokeGroup, letters: readonly Pluck[]): FingersMemory | null {
  let fingers = 0;
  let sum = 0;
  let count = 0;
  letters.forEach((letter, k) => {
    if (letter === 'p') return;
    fingers |= 1 << RANK[letter];
    sum += group.strokes[k]!.string + RANK[letter];
    count++;
  });
  return count === 0 ? null : { fingers, place: sum / count, timeMs: group.timeMs };
}

export function thumbIn(group: StrokeGroup, letters: readonly Pluck[]): ThumbMemory | null {
  const last = letters.lastIndexOf('p');
  return last < 0 ? null : { string: group.strokes[last]!.string, timeMs: group.timeMs };
}

/** The state after a group, given the state before it. What is too long ago is forgotten. */
export function stateAfter(
  before: StrokeState | null,
  group: StrokeGroup,
  letters: readonly Pluck[],
): StrokeState {
  const recent = <T extends { readonly timeMs: number }>(memory: T | null | undefined) =>
    memory && group.timeMs - memory.timeMs < LONGEST_MEMORY_MS ? memory : null;
  return {
    letters,
    fingers: fingersIn(group, letters) ?? recent(before?.fingers),
    thumb: thumbIn(group, letters) ?? recent(before?.thumb),
  };
}

export function keyOf(state: StrokeState): string {
  const { letters, fingers, thumb } = state;
  const hand = fingers ? `${fingers.fingers}/${fingers.place}/${fingers.timeMs}` : '';
  return `${letters.join('')}|${hand}|${thumb ? `${thumb.string}/${thumb.timeMs}` : ''}`;
}
