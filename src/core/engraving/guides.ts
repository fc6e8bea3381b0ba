/**
 * Guide fingers on the page: a thin line from numeral to numeral where nothing is in its way, a dash before the second
 * numeral elsewhere. Source of both forms: handbook 2.
 */
import type { Mark } from '../marks/mark';
import { type Box, type EngravedPage, overlaps, right } from './page';
import type { PlacedMark } from './placeMarks';
import { sizeOf } from './sizes';

export interface Line {
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
}

/** In staff spaces: between a numeral and the line, how long a line may be, and how thick it counts. */
const FREE_END = 0.15;
const LONGEST = 14;
const SHORTEST = 0.9;
const THICKNESS = 0.16;
/** Kept free before the numeral of a guide finger. */
export const DASH_ROOM = 0.62;
/** Pieces that a line is taken apart into to see what it meets. */
const PIECES = 24;

export function placeGuides(
  page: EngravedPage,
  solid: readonly Box[],
  marks: readonly Mark[],
  numerals: readonly PlacedMark[],
  scale: number,
): PlacedMark[] {
  const space = page.staffSpace;
  const numeralOf = new Map(numerals.map((mark) => [mark.uid, mark]));
  const placed: PlacedMark[] = [];
  for (const mark of marks) {
    const to = numeralOf.get(mark.toUid);
    if (!to) continue;
    const taken = [
      ...solid,
      ...numerals.map(({ box }) => box),
      ...placed.flatMap((one) => boxesOf(one, space)),
    ];
    const from = numeralOf.get(mark.uid);
    const line = from && maybeLine(from.box, to.box, space, taken);
    const own = { ...mark, system: to.system, lineTo: null };
    if (line) placed.push({ ...own, box: boxAround(line), line });
    else placed.push({ ...own, box: dashBefore(to.box, sizeOf(mark, space, scale), scale * space) });
  }
  return placed;
}

function maybeLine(from: Box, to: Box, space: number, taken: readonly Box[]): Line | null {
  const line = {
    x1: right(from) + FREE_END * space,
    y1: from.y + from.height / 2,
    x2: to.x - FREE_END * space,
    y2: to.y + to.height / 2,
  };
  const length = line.x2 - line.x1;
  if (length < SHORTEST * space || length > LONGEST * space) return null;
  const pieces = piecesOf(line, space);
  return taken.some((box) => pieces.some((piece) => overlaps(piece, box))) ? null : line;
}

/** A slanted line as small boxes. */
function piecesOf({ x1, y1, x2, y2 }: Line, space: number): readonly Box[] {
  const [dx, dy] = [(x2 - x1) / PIECES, (y2 - y1) / PIECES];
  const height = Math.abs(dy) + THICKNESS * space;
  return Array.from({ length: PIECES }, (_, k) => ({
    x: x1 + k * dx,
    y: y1 + (k + 0.5) * dy - height / 2,
    width: dx,
    height,
  }));
}

const boxAround = ({ x1, y1, x2, y2 }: Line): Box => ({
  x: x1,
  y: Math.min(y1, y2),
  width: x2 - x1,
  height: Math.max(Math.abs(y2 - y1), 1e-3),
});

/** What a placed mark covers: a slanted line no more than itself. */
export const boxesOf = (mark: PlacedMark, space: number): readonly Box[] =>
  mark.line ? piecesOf(mark.line, space) : [mark.box];

/** In the room that was kept for it. */
function dashBefore(
  numeral: Box,
  { width, height }: { readonly width: number; readonly height: number },
  unit: number,
): Box {
  const x = numeral.x - (DASH_ROOM * unit + width) / 2;
  return { x, y: numeral.y + numeral.height / 2 - height / 2, width, height };
}
