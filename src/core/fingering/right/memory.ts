/** What the right hand still knows of the moments before, as ages in whole ms. */
import { isPick, type Pluck } from '../../score/model';
import type { StrokeEffect } from './effects';
import { EFFECTS } from './effects';
import { tailMs, type StrokeGroup } from './strokes';
import {
  LONGEST_AWAY_MS,
  LONGEST_EARLIER_MEMORY_MS,
  LONGEST_FINGERS_MEMORY_MS,
  LONGEST_THUMB_MEMORY_MS,
} from './terms';

export const RANK: Readonly<Record<Pluck, number>> = { p: -1, i: 0, m: 1, a: 2, c: 3, down: 4, up: 5 };

/** Places are means over one to four fingers, so twelfths of a string keep them whole. */
export const PLACE_PARTS = 12;

/** The last stroke of the fingers: which of them, where the set stood (string number + rank), how long ago. */
export interface FingersMemory {
  /** Bits: i 1, m 2, a 4, c 8. */
  readonly bits: number;
  /** The mean over the fingers that played, in twelfths of a string. */
  readonly place: number;
  /** The string of a finger that played alone, else 0. */
  readonly string: number;
  /** Below 0 as long as a roll is still going on. */
  readonly ageMs: number;
}

export interface ThumbMemory {
  /** The highest-pitched string that p played. */
  readonly string: number;
  readonly ageMs: number;
}

/** Fingers that played before the last ones, and not since. */
export interface EarlierMemory {
  readonly bits: number;
  readonly ageMs: number;
}

export interface PickMemory {
  readonly down: boolean;
  /** The string where the stroke ended. */
  readonly string: number;
  readonly ageMs: number;
}

/** What the fingers know. What they cost and what they know next depends on nothing else of the memory. */
export interface FingersPart {
  readonly last: FingersMemory | null;
  readonly earlier: EarlierMemory | null;
  /** How long ago a strum took the fingers off their strings; null since they have found them again. */
  readonly awayMs: number | null;
}

/** What the thumb knows, or the plectrum. */
export interface ThumbPart {
  readonly thumb: ThumbMemory | null;
  readonly pick: PickMemory | null;
}

export interface RightMemory {
  readonly fingers: FingersPart;
  readonly thumb: ThumbPart;
}

export const NO_FINGERS: FingersPart = { last: null, earlier: null, awayMs: null };
export const NO_THUMB: ThumbPart = { thumb: null, pick: null };
export const NO_MEMORY: RightMemory = { fingers: NO_FINGERS, thumb: NO_THUMB };

/** A group's strokes as the hand plays them: made once, compared with many memories. */
export interface Sharing {
  /** By stroke of the group, lowest-pitched string first. */
  readonly letters: readonly Pluck[];
  /** Null when no finger plays. */
  readonly fingers: FingersMemory | null;
  readonly thumb: ThumbMemory | null;
  readonly pick: PickMemory | null;
  readonly away: boolean;
  /** How long after its onset the last string sounds. */
  readonly tail: number;
  /** Nothing is remembered after it. */
  readonly forgets: boolean;
}

export function sharingFor(group: StrokeGroup, letters: readonly Pluck[]): Sharing {
  const { strokes, effect } = group;
  const away = effect !== null && (EFFECTS[effect] as StrokeEffect).away;
  const tail = tailMs(group);
  const ageMs = 0 - tail;
  const none = { letters, fingers: null, thumb: null, pick: null, away, tail, forgets: group.forgets };
  if (letters.length === 0) return { ...none, away: false };
  if (isPick(letters[0] ?? null)) {
    const down = letters[0] === 'down';
    // Towards the floor a sweep ends on the highest-pitched string.
    return { ...none, pick: { down, string: strokes.at(down ? -1 : 0)!.string, ageMs } };
  }
  const playing = letters.flatMap((letter, k) =>
    letter === 'p' ? [] : [{ letter, string: strokes[k]!.string }],
  );
  const sum = playing.reduce((total, one) => total + one.string + RANK[one.letter], 0);
  const last = letters.lastIndexOf('p');
  return {
    ...none,
    // A strum is a gesture of the whole hand: which finger has moved where says nothing.
    fingers:
      playing.length === 0 || away
        ? null
        : {
            bits: playing.reduce((bits, one) => bits | (1 << RANK[one.letter]), 0),
            place: (PLACE_PARTS * sum) / playing.length,
            string: playing.length === 1 ? playing[0]!.string : 0,
            ageMs,
          },
    thumb: last < 0 ? null : { string: strokes[last]!.string, ageMs },
  };
}

/** From this age on nothing is hasty any more: ages count in steps, so that few are told apart. From memory. */
const SETTLED_MS = 400;
const SETTLED_STEP_MS = 200;

function olderMs(ageMs: number, ms: number): number {
  const age = ageMs + ms;
  return age <= SETTLED_MS ? age : Math.ceil(age / SETTLED_STEP_MS) * SETTLED_STEP_MS;
}

const older = <T extends { readonly ageMs: number }>(
  memory: T | null,
  ms: number,
  longestMs: number,
): T | null => {
  const ageMs = memory ? olderMs(memory.ageMs, ms) : Infinity;
  return memory && ageMs < longestMs ? { ...memory, ageMs } : null;
};

/** The same memory so many ms later. What is too long ago is forgotten. */
export const agedFingers = ({ last, earlier, awayMs }: FingersPart, ms: number): FingersPart => ({
  last: older(last, ms, LONGEST_FINGERS_MEMORY_MS),
  earlier: older(earlier, ms, LONGEST_EARLIER_MEMORY_MS),
  awayMs: awayMs === null || awayMs + ms >= LONGEST_AWAY_MS ? null : awayMs + ms,
});

export const agedThumb = ({ thumb, pick }: ThumbPart, ms: number): ThumbPart => ({
  thumb: older(thumb, ms, LONGEST_THUMB_MEMORY_MS),
  pick: older(pick, ms, LONGEST_THUMB_MEMORY_MS),
});

export const aged = ({ fingers, thumb }: RightMemory, ms: number): RightMemory => ({
  fingers: agedFingers(fingers, ms),
  thumb: agedThumb(thumb, ms),
});

/** What is known after a group; `before` is as old as the group's moment. */
export function fingersAfter(
  before: FingersPart,
  { letters, fingers, away, forgets, tail }: Sharing,
): FingersPart {
  if (forgets) return NO_FINGERS;
  if (letters.length === 0) return before;
  if (away) return { ...NO_FINGERS, awayMs: -tail };
  if (!fingers) return before;
  return { last: fingers, earlier: notSince(before, fingers.bits), awayMs: null };
}

export function thumbAfter(before: ThumbPart, { letters, thumb, pick, away, forgets }: Sharing): ThumbPart {
  if (forgets) return NO_THUMB;
  if (letters.length === 0) return before;
  return { thumb: thumb ?? (away ? null : before.thumb), pick };
}

export const memoryAfter = ({ fingers, thumb }: RightMemory, now: Sharing): RightMemory => ({
  fingers: fingersAfter(fingers, now),
  thumb: thumbAfter(thumb, now),
});

function notSince({ last, earlier }: FingersPart, played: number): EarlierMemory | null {
  const before = (last?.bits ?? 0) & ~played;
  if (before !== 0 && last!.ageMs < LONGEST_EARLIER_MEMORY_MS) return { bits: before, ageMs: last!.ageMs };
  const older = (earlier?.bits ?? 0) & ~played;
  return older !== 0 ? { bits: older, ageMs: earlier!.ageMs } : null;
}

/** Equal for parts that are. Ages may be below 0 by the length of a roll. */
export function fingersKey({ last, earlier, awayMs }: FingersPart): string {
  const hand = last ? `${last.bits},${last.place},${last.string},${last.ageMs}` : '';
  return `${hand};${earlier ? `${earlier.bits},${earlier.ageMs}` : ''};${awayMs ?? ''}`;
}

export function thumbKey({ thumb, pick }: ThumbPart): string {
  const p = thumb ? `${thumb.string},${thumb.ageMs}` : '';
  return `${p};${pick ? `${pick.down ? 'd' : 'u'}${pick.string},${pick.ageMs}` : ''}`;
}
