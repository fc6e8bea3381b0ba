/**
 * A stretch of the fretboard as the player looks down on it, in millimetres: the nut to the left, the first string
 * uppermost, frets as far apart as they are. Left-handers see it mirrored.
 */
import type { FingerStay, PlannedNote } from '../fingering/report/plan';
import { acrossMm, fingertipMm, type Fretboard, fretDistanceMm } from '../instrument/fretboard';
import { STRINGS } from '../instrument/tuning';

/** A finger on the board, or an open string that is struck. */
export interface Tip {
  readonly id: string;
  readonly finger: number;
  readonly string: number;
  readonly fret: number;
  readonly x: number;
  readonly y: number;
  /** Its string is struck at this moment. */
  readonly struck: boolean;
}

export interface Wire {
  readonly fret: number;
  readonly x: number;
  /** Its ends, where the outer strings lie. */
  readonly top: number;
  readonly bottom: number;
}

export interface BoardString {
  readonly string: number;
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
}

export interface BoardPicture {
  readonly wires: readonly Wire[];
  readonly strings: readonly BoardString[];
  readonly tips: readonly Tip[];
  /** The grip that comes next. */
  readonly ghosts: readonly Tip[];
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
}

/** What a hand does at a moment. */
export interface Grip {
  readonly ticks: number;
  readonly stays: readonly FingerStay[];
  /** The notes that begin. */
  readonly notes: readonly PlannedNote[];
}

/** So many frets are seen at least. */
const LEAST_FRETS = 5;
/** Mm: a nut and the edge of the board. */
const NUT = 5;

/** The grip at a moment and the next one that differs; null for the next where the piece ends. */
export function gripsAt(
  fingers: readonly FingerStay[],
  moments: readonly { readonly ticks: number; readonly notes: readonly PlannedNote[] }[],
  moment: number,
): { readonly here: Grip; readonly next: Grip | null } {
  const gripOf = (k: number): Grip => {
    const { ticks, notes } = moments[k]!;
    return {
      ticks,
      notes,
      stays: fingers.filter(({ fromTicks, toTicks }) => fromTicks <= ticks && toTicks > ticks),
    };
  };
  const here = gripOf(moment);
  const key = ({ stays }: Grip) =>
    stays
      .map(({ finger, string, fret }) => `${finger} ${string} ${fret}`)
      .sort()
      .join();
  for (let k = moment + 1; k < moments.length; k++) {
    const next = gripOf(k);
    if (next.stays.length > 0 && key(next) !== key(here)) return { here, next };
  }
  return { here, next: null };
}

/** @param mirrored for a player who stops the strings with the right hand */
export function boardPicture(
  board: Fretboard,
  here: Grip,
  next: Grip | null,
  mirrored: boolean,
): BoardPicture {
  const frets = [...here.stays, ...(next?.stays ?? [])].map(({ fret }) => fret);
  const low = Math.max(0, Math.min(...frets, board.frets) - 2);
  const from = frets.length === 0 ? 0 : Math.min(low, board.frets - LEAST_FRETS);
  const to = Math.min(board.frets, Math.max(from + LEAST_FRETS, ...frets.map((fret) => fret + 1)));
  const along = (fret: number) => fretDistanceMm(fret, board.scaleLengthMm);
  const [start, end] = [along(from), along(to)];
  /** Along the board, from the left edge of the picture. */
  const xAt = (mm: number) => (mirrored ? end - mm : mm - start);
  const middle = (atMm: number, string: number) =>
    acrossMm(string, atMm, board) - acrossMm(STRINGS.length, atMm, board) / 2;
  const shift = acrossMm(STRINGS.length, end, board) / 2;
  const yAt = (atMm: number, string: number) => shift + middle(atMm, string);
  const tipsOf = ({ stays, notes }: Grip): readonly Tip[] => [
    ...stays.map(({ finger, string, fret }): Tip => {
      const at = fingertipMm(fret, board.scaleLengthMm);
      const struck = notes.some((note) => note.string === string);
      return { id: `${finger} ${string}`, finger, string, fret, x: xAt(at), y: yAt(at, string), struck };
    }),
    ...notes
      .filter(({ fret }) => fret === 0)
      .map(({ string }): Tip => {
        const at = start - NUT;
        return {
          id: `open ${string}`,
          finger: 0,
          string: string!,
          fret: 0,
          x: xAt(at),
          y: yAt(start, string!),
          struck: true,
        };
      }),
  ];
  return {
    wires: Array.from({ length: to - from + 1 }, (_, k): Wire => {
      const at = along(from + k);
      return { fret: from + k, x: xAt(at), top: yAt(at, 1), bottom: yAt(at, STRINGS.length) };
    }),
    strings: STRINGS.map((string): BoardString => ({
      string,
      x1: xAt(start),
      y1: yAt(start, string),
      x2: xAt(end),
      y2: yAt(end, string),
    })),
    tips: tipsOf(here),
    ghosts: next ? tipsOf(next) : [],
    left: 0,
    right: end - start,
    bottom: acrossMm(STRINGS.length, end, board),
  };
}
