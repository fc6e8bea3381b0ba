/** Rows of marks above and below a staff: letters nearest to it, then strings, then barres. */
import type { Mark, MarkKind } from '../marks/mark';
import type { PlacedMark } from './placeMarks';
import { bottom, type Box, type EngravedPage, type NoteBox, right } from './page';
import { GAP, ROW_GAP, sizeOf } from './sizes';

/** Between marks of one moment that stand over each other, in staff spaces. */
const IN_STACK = 0.06;

/** Room beside a mark in a row, in staff spaces. */
const SIDE_MARGIN = 0.25;

/** Noteheads of one moment stand at most so far apart, in staff spaces; those of the next one further. */
const ONE_MOMENT = 1.4;

/** Of the stacks of a row, so many fit on its line; the rest stand further out. */
const SHARE_ON_THE_LINE = 0.8;

/** A stack leaves the line of its row where that is further out than this from its own place, in staff spaces. */
const FARTHEST_OUT = 3;

/** Which system of which page, and how large its marks are. */
export interface Setting {
  readonly page: EngravedPage;
  readonly index: number;
  readonly noteOf: ReadonlyMap<string, NoteBox>;
  readonly scale: number;
}

/**
 * One row after the other, from the staff outwards; what belongs to the bass goes below.
 * @param marked what the numerals and their lines cover
 */
export function placeRows(
  setting: Setting,
  rows: readonly (readonly Mark[])[],
  marked: readonly Box[],
): PlacedMark[] {
  const { page, index, noteOf } = setting;
  const space = page.staffSpace;
  const system = page.systems[index]!;
  const solid = [...system.obstacles, ...marked];
  const placed: PlacedMark[] = [];
  for (const below of [false, true]) {
    const side = { staff: below ? system.staffBottom : system.staffTop, below };
    /** Of the rows before. */
    const inner: Box[] = [];
    for (const row of rows) {
      const stacks = stacksOf(
        row.filter((mark) => mark.below === below),
        setting,
      );
      const places = stacks.map((stack) => placeOf(stack, side, { solid, inner, noteOf, space }));
      const here = placeRow(stacks, places, side, space);
      placed.push(...here.map((mark) => ({ ...mark, system: index })));
      inner.push(...here.map(wholeBox));
    }
  }
  return placed;
}

type InRow = Omit<PlacedMark, 'system'>;

/** The line of a mark that goes on belongs to it. */
export const wholeBox = ({ box, lineTo }: Pick<PlacedMark, 'box' | 'lineTo'>): Box =>
  lineTo === null ? box : { ...box, width: lineTo - box.x };

/** From left to right; a stack gives way to those before it. */
function placeRow(
  stacks: readonly (readonly Stacked[])[],
  places: readonly Place[],
  side: Side,
  space: number,
): readonly InRow[] {
  const outs = outsOf(places, side, space);
  const placed: InRow[] = [];
  for (const [k, stack] of stacks.entries()) {
    const place = places[k]!;
    const met = [...place.met, ...placed.map(wholeBox).filter((box) => isBeside(place, box))];
    const out = freeFrom(side, outs[k]!, { ...place, met }, space);
    let y = side.staff + (side.below ? out : -out);
    for (const { mark, x, size, lineTo } of stack) {
      const box = { x, y: side.below ? y : y - size.height, ...size };
      y += (side.below ? 1 : -1) * (size.height + IN_STACK * space);
      placed.push({ ...mark, box, lineTo });
    }
  }
  return placed;
}

interface Stacked {
  readonly mark: Mark;
  readonly x: number;
  readonly size: { readonly width: number; readonly height: number };
  readonly lineTo: number | null;
}

/** What holds for a while begins at its note, not over the middle of it. */
const HELD: readonly MarkKind[] = ['barre', 'position', 'remark'];

/** Marks of one moment stand over each other in the order of their notes, the one nearest the staff first. */
function stacksOf(marks: readonly Mark[], setting: Setting): Stacked[][] {
  const { page, index, noteOf, scale } = setting;
  const columns: { readonly noteX: number; readonly stack: Stacked[] }[] = [];
  const ordered = [...marks].sort((a, b) => noteOf.get(b.uid)!.y - noteOf.get(a.uid)!.y);
  for (const mark of ordered) {
    const note = noteOf.get(mark.uid)!;
    const size = sizeOf(mark, page.staffSpace, scale);
    const known = columns.find((column) => Math.abs(column.noteX - note.x) < ONE_MOMENT * page.staffSpace);
    const own = HELD.includes(mark.kind) ? note.x : note.x + note.width / 2 - size.width / 2;
    const x = Math.min(known ? known.stack[0]!.x : own, page.systems[index]!.right - size.width);
    const stacked = { mark, x, size, lineTo: lineEnd(mark, x + size.width, setting) };
    if (known) known.stack.push(stacked);
    else columns.push({ noteX: note.x, stack: [stacked] });
  }
  return columns.sort((a, b) => a.noteX - b.noteX).map((column) => column.stack);
}

/** What stands around a stack. */
interface Around {
  readonly solid: readonly Box[];
  readonly inner: readonly Box[];
  readonly noteOf: ReadonlyMap<string, NoteBox>;
  readonly space: number;
}

function placeOf(stack: readonly Stacked[], side: Side, { solid, inner, noteOf, space }: Around): Place {
  const left = Math.min(...stack.map((one) => one.x)) - SIDE_MARGIN * space;
  const end = Math.max(...stack.map((one) => one.lineTo ?? one.x + one.size.width)) + SIDE_MARGIN * space;
  const isMet = (box: Box) => isBeside({ left, end }, box);
  const own = stack.map(({ mark }) => noteOf.get(mark.uid)!);
  return {
    left,
    end,
    height: stack.reduce((sum, { size }) => sum + size.height + IN_STACK * space, 0),
    least: Math.max(...[...own, ...inner.filter(isMet)].map((box) => outerOf(side, box))),
    met: [...solid, ...inner].filter(isMet),
  };
}

/** Of a side of the staff, lengths outwards from its outermost line. */
interface Side {
  readonly staff: number;
  readonly below: boolean;
}

const innerOf = ({ staff, below }: Side, box: Box) => (below ? box.y - staff : staff - bottom(box));
const outerOf = ({ staff, below }: Side, box: Box) => (below ? bottom(box) - staff : staff - box.y);

/** What one stack of a row needs, and what is in its way. */
interface Place {
  readonly left: number;
  readonly end: number;
  readonly height: number;
  /** It begins outside its own notes and outside the rows before it. */
  readonly least: number;
  readonly met: readonly Box[];
}

const isBeside = ({ left, end }: Pick<Place, 'left' | 'end'>, box: Box) => box.x < end && right(box) > left;

/** The nearest place from `start` outwards where nothing is in the way. */
function freeFrom(side: Side, start: number, { height, met }: Place, space: number): number {
  let at = start;
  for (let moved = true; moved;) {
    const inTheWay = met.find(
      (box) =>
        innerOf(side, box) < at + height + GAP * space && outerOf(side, box) > at - ROW_GAP * space + 1e-6,
    );
    moved = inTheWay !== undefined;
    if (inTheWay) at = outerOf(side, inTheWay) + ROW_GAP * space;
  }
  return at;
}

/**
 * How far out each stack of a row begins: on one line for the whole system as far as most of them fit there and it is
 * not far from their own nearest place.
 */
function outsOf(places: readonly Place[], side: Side, space: number): readonly number[] {
  const own = places.map((place) => freeFrom(side, Math.max(0, place.least) + ROW_GAP * space, place, space));
  const line = [...own].sort((a, b) => a - b)[Math.floor((own.length - 1) * SHARE_ON_THE_LINE)] ?? 0;
  return places.map((place, k) => {
    const onLine = freeFrom(side, Math.max(own[k]!, line), place, space);
    return onLine - own[k]! > FARTHEST_OUT * space ? own[k]! : onLine;
  });
}

function lineEnd(mark: Mark, from: number, { page, index, noteOf }: Setting): number | null {
  if (mark.toUid === mark.uid) return null;
  const last = noteOf.get(mark.toUid);
  const end = last?.system === index ? right(last) : page.systems[index]!.right;
  return end > from + 0.5 * page.staffSpace ? end : null;
}
