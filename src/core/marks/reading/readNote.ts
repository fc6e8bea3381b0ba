/** What a student plays where little or nothing is printed: the left hand, note by note, from what has been played. */
import { openMidi, STRINGS, type Tuning } from '../../instrument/tuning';

/** Where a note is played and with what. */
export interface Place {
  readonly string: number;
  readonly fret: number;
  readonly finger: number;
}

/** What is printed at a note; null where nothing is. */
export interface Said {
  readonly finger: number | null;
  readonly string: number | null;
}

export const NOTHING_SAID: Said = { finger: null, string: null };

/** What the student knows before a note. */
export interface Reading {
  /** The fret where finger 1 lies or would lie. */
  readonly position: number;
  /** Of a barre in force: its fret. */
  readonly barre: number | null;
  /** Notes that still sound, and those of the same chord that have been read already. */
  readonly busy: readonly Place[];
  /** Strings that are taken by notes of the same chord. */
  readonly taken: ReadonlySet<number>;
  /** The same pitch at the same moment in another voice, which has been read already. */
  readonly shared: Place | null;
  /** Where the same pitch was played last, not long ago. */
  readonly before: Place | null;
}

/** A hand covers so many frets without stretching. Source: handbook 4, one finger per fret. */
const SPAN = 4;
const LAST_FINGER = 4;

/**
 * Rules, in this order. A pitch that two voices write at once is one sound. A pitch that was played a moment ago stays where it was, if the hand is still there. In first
 * position open strings are played open; elsewhere what lies under the hand, then open strings. One finger per fret;
 * where that finger is busy, the next one. A numeral moves the hand as little as it has to.
 * @param midi as it sounds above the capo
 * @returns null where the student would not know
 */
export function readNote(midi: number, tuning: Tuning, said: Said, reading: Reading): Place | null {
  const { before, shared, taken } = reading;
  if (shared && (said.string ?? shared.string) === shared.string) return shared;
  const places = STRINGS.filter((string) => !taken.has(string) && (said.string ?? string) === string)
    .map((string) => ({ string, fret: midi - openMidi(tuning, string) }))
    .filter(({ fret }) => fret >= 0);
  if (said.finger !== null) return nearestWith(said.finger, places, reading);
  if (before && isStillThere(before, reading) && places.some(({ string }) => string === before.string))
    return before;
  const open = places.find(({ fret }) => fret === 0);
  const under = places.find(({ fret }) => isUnder(fret, reading.position));
  const chosen =
    (reading.position === 1 && open) || under || open || (said.string === null ? null : places[0]);
  return chosen ? { ...chosen, finger: fingerFor(chosen, reading) } : null;
}

export const isSamePlace = (a: Place | null, b: Place): boolean =>
  a !== null && a.string === b.string && a.fret === b.fret && a.finger === b.finger;

/**
 * A natural harmonic is printed with its string and the fret where it is touched: only the finger can be read.
 * @param at its string and fret
 */
export const readHarmonic = (at: Omit<Place, 'finger'>, said: Said, reading: Reading): Place => ({
  ...at,
  finger: said.finger ?? fingerFor(at, reading),
});

const isUnder = (fret: number, position: number) => fret >= position && fret < position + SPAN;

/** The hand has not left it, its string is free and its finger is not elsewhere. */
function isStillThere(place: Place, { position, busy, taken }: Reading): boolean {
  if (taken.has(place.string)) return false;
  if (place.fret === 0) return true;
  return (
    place.fret >= position - 1 &&
    place.fret <= position + SPAN &&
    !busy.some((one) => one.finger === place.finger && one.fret !== place.fret)
  );
}

/** Of the places that a numeral can mean, the one that the hand is nearest to. */
function nearestWith(
  finger: number,
  places: readonly Omit<Place, 'finger'>[],
  { position }: Reading,
): Place | null {
  if (finger === 0) {
    const open = places.find(({ fret }) => fret === 0);
    return open ? { ...open, finger } : null;
  }
  const moves = places
    .filter(({ fret }) => fret > 0)
    .map((place) => ({ place, by: Math.abs(place.fret - finger + 1 - position) }))
    .sort((a, b) => a.by - b.by || a.place.fret - b.place.fret);
  return moves[0] ? { ...moves[0].place, finger } : null;
}

/** One finger per fret, from the position; a finger that lies elsewhere gives way to its neighbour. */
function fingerFor({ string, fret }: Omit<Place, 'finger'>, { position, barre, busy }: Reading): number {
  if (fret === 0) return 0;
  if (fret === barre) return 1;
  const own = isUnder(fret, position) ? fret - position + 1 : 1;
  const isFree = (finger: number) =>
    !busy.some((one) => one.finger === finger && (one.string !== string || one.fret !== fret));
  const upwards = Array.from({ length: LAST_FINGER - own + 1 }, (_, k) => own + k);
  const downwards = Array.from({ length: own - 1 }, (_, k) => own - 1 - k);
  return [...upwards, ...downwards].find(isFree) ?? own;
}

/**
 * The position after a moment: a finger that lies one fret out of its place is stretched or squeezed, one that lies
 * further out has taken the hand along.
 */
export function positionAfter(position: number, played: readonly Place[]): number {
  const stopped = played.filter(({ fret }) => fret > 0);
  const lowest = stopped.reduce<Place | null>((a, b) => (a === null || b.finger < a.finger ? b : a), null);
  if (!lowest) return position;
  const own = Math.max(1, lowest.fret - lowest.finger + 1);
  return Math.abs(own - position) > 1 ? own : position;
}
