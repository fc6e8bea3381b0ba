/** What the right hand does at a moment, and what it remembers of the moments before. */
import type { Pluck } from '../../score/model';
import type { StrokeGroup } from './strokes';
import { LONGEST_FINGERS_MEMORY_MS, LONGEST_THUMB_MEMORY_MS } from './terms';

/** The last stroke of the fingers: which of them, where the set stood (string number + rank), when. */
export interface FingersMemory {
  /** Bits: i 1, m 2, a 4. */
  readonly fingers: number;
  /** The mean over the fingers that played: a whole number of sixths of a string. */
  readonly placeSixths: number;
  readonly timeMs: number;
  readonly momentIndex: number;
}

export interface ThumbMemory {
  /** The highest-pitched string that p played. */
  readonly string: number;
  readonly timeMs: number;
  readonly momentIndex: number;
}

/** One way to share out a group's strokes, with what it leaves in memory. */
export interface Sharing {
  /** By stroke of the group, lowest-pitched string first. */
  readonly letters: readonly Pluck[];
  /** Null when only p plays. */
  readonly fingers: FingersMemory | null;
  readonly thumb: ThumbMemory | null;
}

export interface StrokeState extends Sharing {
  /** The strokes of this moment; `fingers` and `thumb` of the state may be older. */
  readonly sharing: Sharing;
}

export const RANK: Readonly<Record<Pluck, number>> = { p: -1, i: 0, m: 1, a: 2 };

/** Places are means over one, two or three fingers, so sixths of a string keep them whole. */
export const SIXTHS = 6;

export function sharingFor(group: StrokeGroup, letters: readonly Pluck[]): Sharing {
  const { timeMs, momentIndex } = group;
  const playing = letters.flatMap((letter, k) =>
    letter === 'p' ? [] : [{ letter, string: group.strokes[k]!.string }],
  );
  const sum = playing.reduce((total, one) => total + one.string + RANK[one.letter], 0);
  const fingers = playing.reduce((bits, one) => bits | (1 << RANK[one.letter]), 0);
  const last = letters.lastIndexOf('p');
  return {
    letters,
    fingers: playing.length
      ? { fingers, placeSixths: (SIXTHS * sum) / playing.length, timeMs, momentIndex }
      : null,
    thumb: last < 0 ? null : { string: group.strokes[last]!.string, timeMs, momentIndex },
  };
}

/** The state after a group, given the state before it. What is too long ago is forgotten. */
export function stateAfter(before: StrokeState | null, group: StrokeGroup, sharing: Sharing): StrokeState {
  return {
    letters: sharing.letters,
    sharing,
    fingers: sharing.fingers ?? recent(before?.fingers, group.timeMs, LONGEST_FINGERS_MEMORY_MS),
    thumb: sharing.thumb ?? recent(before?.thumb, group.timeMs, LONGEST_THUMB_MEMORY_MS),
  };
}

function recent<T extends { readonly timeMs: number }>(
  memory: T | null | undefined,
  nowMs: number,
  longestMs: number,
) {
  return memory && nowMs - memory.timeMs < longestMs ? memory : null;
}

/**
 * One number for states that behave alike from here on. Moments fit into 2^16, places into 2^6, strings into
 * 2^3 and sharings of one group into 2^4, so that all of it stays below 2^53.
 */
export function keyOf(state: StrokeState, sharingNumber: number): number {
  const { fingers, thumb } = state;
  const hand = fingers ? (fingers.momentIndex + 1) * 512 + fingers.placeSixths * 8 + fingers.fingers : 0;
  const p = thumb ? (thumb.momentIndex + 1) * 8 + thumb.string : 0;
  return (hand * 1_048_576 + p) * 16 + sharingNumber;
}
