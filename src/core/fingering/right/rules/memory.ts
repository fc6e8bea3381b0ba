/** What the right hand still knows of the strokes before: its mode, and no times. */
import { isPick, type Pluck } from '../../../score/model';
import { EFFECTS, type StrokeEffect } from './effects';
import { KEEP, type Mode, modeNumber } from './modes';
import { isAbove, NO_STATIONS, stationed, type StationMap, withoutThoseBelow } from './stations';
import { tailMs, type StrokeGroup } from './strokes';

export const RANK: Readonly<Record<Pluck, number>> = { p: -1, i: 0, m: 1, a: 2, c: 3, down: 4, up: 5 };

/** What lies between the last stroke of the fingers and now: nothing, strokes of p alone, or a note that p has not. */
export type Since = 'nothing' | 'thumb' | 'slur';

/** What the fingers know. What they cost and what they know next depends on nothing else of the memory. */
export interface FingersPart {
  /** start: nothing has been played. away: a strum has taken them off the strings. any: for bounds, it costs nothing. */
  readonly mode: Mode | 'start' | 'away' | 'any';
  readonly map: StationMap;
  /** The last fingers that played: bits, i 1, m 2, a 4, c 8. */
  readonly last: number;
  /** The string of a finger that played alone, else 0. */
  readonly string: number;
  readonly since: Since;
  /** For bounds: other strings may have their fingers, too, but it is not known which. */
  readonly hazy: boolean;
}

/** The plectrum's last stroke, where it ended. */
export interface PickMemory {
  readonly down: boolean;
  readonly string: number;
}

/** What the thumb knows, or the plectrum. */
export interface ThumbPart {
  /** The highest-pitched string that p played at the moment before, 0 for none; whether alone, and a bass. */
  readonly string: number;
  readonly alone: boolean;
  readonly bass: boolean;
  readonly pick: PickMemory | null;
}

export interface RightMemory {
  readonly fingers: FingersPart;
  readonly thumb: ThumbPart;
}

const bare = (mode: FingersPart['mode']): FingersPart => ({
  mode,
  map: NO_STATIONS,
  last: 0,
  string: 0,
  since: 'nothing',
  hazy: false,
});
export const NO_FINGERS = bare('start');
export const AWAY_FINGERS = bare('away');
export const ANY_FINGERS: FingersPart = { ...bare('any'), hazy: true };
export const NO_THUMB: ThumbPart = { string: 0, alone: false, bass: false, pick: null };
export const NO_MEMORY: RightMemory = { fingers: NO_FINGERS, thumb: NO_THUMB };

/** How a group is played: its letters, lowest-pitched string first, and what the fingers think in. */
export interface Played {
  readonly letters: readonly Pluck[];
  readonly mode: Mode;
}

/** The fingers of a group, when they play. */
export interface FingersStroke {
  readonly bits: number;
  /** The string of a finger that plays alone, else 0. */
  readonly string: number;
  /** By finger, lowest-pitched string first. */
  readonly strings: readonly number[];
  readonly ranks: readonly number[];
}

/** A group's strokes as the hand plays them: made once, compared with many memories. */
export interface Sharing extends Played {
  readonly fingers: FingersStroke | null;
  /** The lowest and the highest-pitched string of p, and whether the lowest note is the bass. */
  readonly thumb: { readonly lowest: number; readonly string: number; readonly bass: boolean } | null;
  readonly pick: PickMemory | null;
  /** The fingers have left their strings afterwards. */
  readonly away: boolean;
  /** Nothing is remembered after it. */
  readonly forgets: boolean;
  /** How long after its onset the last string sounds. */
  readonly tail: number;
  /** Whether the next stroke comes so soon that a finger must not play twice. */
  readonly quickNext: boolean;
}

export function sharingFor(group: StrokeGroup, { letters, mode }: Played): Sharing {
  const { strokes, effect } = group;
  const away = effect !== null && (EFFECTS[effect] as StrokeEffect).away;
  const tail = tailMs(group);
  const none = {
    letters,
    mode,
    fingers: null,
    thumb: null,
    pick: null,
    away,
    forgets: group.forgets,
    tail,
    quickNext: group.quickNext,
  };
  if (letters.length === 0) return { ...none, away: false };
  if (isPick(letters[0] ?? null)) {
    const down = letters[0] === 'down';
    // Towards the floor a sweep ends on the highest-pitched string.
    return { ...none, pick: { down, string: strokes.at(down ? -1 : 0)!.string } };
  }
  const playing = letters.flatMap((letter, k) =>
    letter === 'p' ? [] : [{ letter, string: strokes[k]!.string }],
  );
  const thumbs = letters.flatMap((letter, k) => (letter === 'p' ? [strokes[k]!.string] : []));
  return {
    ...none,
    // A strum is a gesture of the whole hand: which finger has moved where says nothing.
    fingers:
      playing.length === 0 || away
        ? null
        : {
            bits: playing.reduce((bits, one) => bits | (1 << RANK[one.letter]), 0),
            string: playing.length === 1 ? playing[0]!.string : 0,
            strings: playing.map(({ string }) => string),
            ranks: playing.map(({ letter }) => RANK[letter]),
          },
    thumb:
      thumbs.length === 0
        ? null
        : { lowest: thumbs[0]!, string: thumbs.at(-1)!, bass: strokes[0]!.hand === 'thumb' },
  };
}

/** What the fingers know after a group. */
export function fingersAfter(before: FingersPart, sharing: Sharing): FingersPart {
  const { letters, fingers, mode, away, forgets, quickNext } = sharing;
  if (forgets) return ANY_FINGERS;
  if (away) return AWAY_FINGERS;
  if (letters.length === 0) return before.since === 'slur' ? before : rested(before, 'slur');
  if (!fingers || mode === KEEP)
    return mode.kind === 'thumb' ? bare(mode) : rested(cleared(before, sharing), 'thumb');
  const { bits, string } = fingers;
  const known = { mode, last: bits, string, since: 'nothing' } as const;
  if (mode.kind !== 'stations') return { ...known, map: NO_STATIONS, hazy: false };
  const { map, hazy } = stationed(cleared(before, sharing), fingers);
  // Where there is time it does not matter which of the stations has played; but a tune remembers its chord.
  return quickNext || string === 0 ? { ...known, map, hazy } : { ...known, last: 0, string: 0, map, hazy };
}

const cleared = (before: FingersPart, { thumb }: Sharing): FingersPart =>
  thumb && isAbove(before.map, thumb.string)
    ? { ...before, map: withoutThoseBelow(before.map, thumb.string) }
    : before;

/** The fingers have not played: stations and cycles need not know any more which of them did last. */
function rested(before: FingersPart, since: Since): FingersPart {
  if (typeof before.mode === 'string') return before;
  const { kind } = before.mode;
  if (kind === 'thumb') return before;
  if (kind === 'stations' || kind === 'cycle') return { ...before, last: 0, string: 0, since };
  return { ...before, since };
}

/** What the thumb knows after a group. */
export function thumbAfter(before: ThumbPart, { letters, thumb, pick, away, forgets }: Sharing): ThumbPart {
  if (forgets) return NO_THUMB;
  if (letters.length === 0) return before;
  if (pick) return { ...NO_THUMB, pick };
  if (!thumb || away) return NO_THUMB;
  const alone = letters.every((letter) => letter === 'p');
  return { string: thumb.string, alone, bass: thumb.bass, pick: null };
}

export const memoryAfter = ({ fingers, thumb }: RightMemory, now: Sharing): RightMemory => ({
  fingers: fingersAfter(fingers, now),
  thumb: thumbAfter(thumb, now),
});

const SINCE: Readonly<Record<Since, number>> = { nothing: 0, thumb: 1, slur: 2 };
const BARE_MODES = { start: 0, away: 1, any: 2 } as const;
const MODE_NUMBERS_FROM = 3;

/** Equal for parts that are: whole numbers below 2³⁰. */
export function fingersKey({ mode, map, last, string, since, hazy }: FingersPart): number {
  const stroke = (last << 6) | (string << 3) | (SINCE[since] << 1) | (hazy ? 1 : 0);
  // Only stations have a map, and then the mode needs no room.
  if (typeof mode !== 'string' && mode.kind === 'stations') return ((map << 10) | stroke) * 2;
  const number = typeof mode === 'string' ? BARE_MODES[mode] : MODE_NUMBERS_FROM + modeNumber(mode);
  return ((number << 10) | stroke) * 2 + 1;
}

export function thumbKey({ string, alone, bass, pick }: ThumbPart): number {
  const picked = pick === null ? 0 : 1 + pick.string * 2 + (pick.down ? 1 : 0);
  return (picked << 5) | (string << 2) | (bass ? 2 : 0) | (alone ? 1 : 0);
}
