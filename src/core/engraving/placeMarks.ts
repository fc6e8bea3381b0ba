/**
 * Marks get their places on an engraved page: numerals to the left of their noteheads, everything else in rows
 * above and below the staff. No mark touches a notehead, stem, beam, accidental, slur or another mark.
 */
import type { Mark, MarkKind } from '../marks/mark';
import { bottom, type Box, type EngravedPage, type NoteBox, overlaps, right, type SystemBox } from './page';

export interface PlacedMark extends Mark {
  readonly box: Box;
  readonly system: number;
  /** Where the line of a string or barre that goes on ends; null without one. */
  readonly lineTo: number | null;
}

/** Size of one character's box in staff spaces. */
const SIZES: Readonly<Record<MarkKind, { readonly width: number; readonly height: number }>> = {
  finger: { width: 0.72, height: 0.98 },
  unplanned: { width: 0.72, height: 0.98 },
  pluck: { width: 0.95, height: 1.28 },
  string: { width: 1.3, height: 1.3 },
  barre: { width: 0.62, height: 1.2 },
};

/** In staff spaces: between a mark and what it must not touch, and between rows. */
const GAP = 0.18;
const ROW_GAP = 0.3;

/** Room beside a mark in a row, in staff spaces. */
const SIDE_MARGIN = 0.25;

/** Noteheads of one moment stand at most so far apart, in staff spaces; those of the next one further. */
const ONE_MOMENT = 1.4;

/** Of the stacks of a row, so many fit on its line; the rest stand further out. */
const SHARE_ON_THE_LINE = 0.8;

/** How far to the left a numeral may go before it tries a place above or below its note. */
const FARTHEST_LEFT = 2.6;

export function placeMarks(page: EngravedPage, marks: readonly Mark[]): readonly PlacedMark[] {
  const noteOf = new Map(page.notes.map((note) => [note.uid, note]));
  const placed: PlacedMark[] = [];
  page.systems.forEach((system, index) => {
    const here = marks.filter((mark) => noteOf.get(mark.uid)?.system === index);
    const byKind = (kinds: readonly MarkKind[]) => here.filter((mark) => kinds.includes(mark.kind));
    const numerals = placeNumerals(page, system, byKind(['finger', 'unplanned']), noteOf);
    const byRow = [byKind(['pluck']), byKind(['string']), byKind(['barre'])];
    const rows = placeRows(page, index, byRow, numerals, noteOf);
    placed.push(...numerals, ...rows);
  });
  return placed;
}

function sizeOf(mark: Mark, staffSpace: number) {
  const size = SIZES[mark.kind];
  const characters = mark.kind === 'barre' ? mark.text.length : 1;
  return { width: size.width * characters * staffSpace, height: size.height * staffSpace };
}

function placeNumerals(
  page: EngravedPage,
  system: SystemBox,
  marks: readonly Mark[],
  noteOf: ReadonlyMap<string, NoteBox>,
): PlacedMark[] {
  const placed: PlacedMark[] = [];
  for (const mark of marks) {
    const note = noteOf.get(mark.uid)!;
    const taken = [...near(system.obstacles, note, page.staffSpace), ...placed.map((one) => one.box)];
    const box = numeralBox(page, note, sizeOf(mark, page.staffSpace), taken);
    placed.push({ ...mark, box, system: note.system, lineTo: null });
  }
  return placed;
}

const near = (obstacles: readonly Box[], note: Box, staffSpace: number) =>
  obstacles.filter((box) => box.x < right(note) + 4 * staffSpace && right(box) > note.x - 8 * staffSpace);

function numeralBox(
  page: EngravedPage,
  note: NoteBox,
  size: { width: number; height: number },
  taken: readonly Box[],
): Box {
  const gap = GAP * page.staffSpace;
  const middle = note.y + note.height / 2 - size.height / 2;
  const leftmost = note.x - (FARTHEST_LEFT * page.staffSpace + size.width);
  const left = slideLeft({ x: note.x - gap - size.width, y: middle, ...size }, taken, gap / 2);
  if (left.x >= leftmost) return left;
  const centre = note.x + note.width / 2 - size.width / 2;
  const others = [
    { x: centre, y: note.y - gap - size.height, ...size },
    { x: centre, y: bottom(note) + gap, ...size },
  ];
  return others.find((box) => !taken.some((one) => overlaps(box, one))) ?? left;
}

/** Moves a box to the left past everything that it meets. */
function slideLeft(box: Box, taken: readonly Box[], gap: number): Box {
  const met = taken.filter((one) => overlaps(box, one));
  if (met.length === 0) return box;
  return slideLeft({ ...box, x: Math.min(...met.map((one) => one.x)) - gap - box.width }, taken, gap);
}

/** One row after the other, from the staff outwards; what belongs to the bass goes below. */
function placeRows(
  page: EngravedPage,
  index: number,
  rows: readonly (readonly Mark[])[],
  numerals: readonly PlacedMark[],
  noteOf: ReadonlyMap<string, NoteBox>,
): PlacedMark[] {
  const space = page.staffSpace;
  const system = page.systems[index]!;
  const solid = [...system.obstacles, ...numerals.map((one) => one.box)];
  const placed: PlacedMark[] = [];
  for (const below of [false, true]) {
    const outermost: Box[] = [...solid];
    for (const row of rows) {
      const stacks = stacksOf(
        row.filter((mark) => mark.below === below),
        page,
        noteOf,
      );
      if (stacks.length === 0) continue;
      const edges = edgesOf(stacks, outermost, system, below, space);
      for (const [k, stack] of stacks.entries()) {
        let y = edges[k]!;
        for (const { mark, x, size } of stack) {
          y = below ? y : y - size.height;
          const box = { x, y, ...size };
          y = below ? y + size.height : y;
          const placedMark = { ...mark, box, system: index, lineTo: lineEnd(mark, box, index, page, noteOf) };
          placed.push(placedMark);
          outermost.push(placedMark.lineTo === null ? box : { ...box, width: placedMark.lineTo - box.x });
        }
      }
    }
  }
  return placed;
}

interface Stacked {
  readonly mark: Mark;
  readonly x: number;
  readonly size: { readonly width: number; readonly height: number };
}

/** Marks of one moment stand over each other in the order of their notes, the one nearest the staff first. */
function stacksOf(
  marks: readonly Mark[],
  page: EngravedPage,
  noteOf: ReadonlyMap<string, NoteBox>,
): Stacked[][] {
  const columns: { readonly noteX: number; readonly stack: Stacked[] }[] = [];
  const ordered = [...marks].sort((a, b) => noteOf.get(b.uid)!.y - noteOf.get(a.uid)!.y);
  for (const mark of ordered) {
    const note = noteOf.get(mark.uid)!;
    const size = sizeOf(mark, page.staffSpace);
    const known = columns.find((column) => Math.abs(column.noteX - note.x) < ONE_MOMENT * page.staffSpace);
    const x = mark.kind === 'barre' ? note.x : note.x + note.width / 2 - size.width / 2;
    if (known) known.stack.push({ mark, x: known.stack[0]!.x, size });
    else columns.push({ noteX: note.x, stack: [{ mark, x, size }] });
  }
  return columns.map((column) => column.stack);
}

/**
 * Where each stack of a row begins: on one line for the whole system as far as most of them fit there, further
 * out where something is in the way (a tempo, a high note).
 */
function edgesOf(
  stacks: readonly (readonly Stacked[])[],
  solid: readonly Box[],
  system: SystemBox,
  below: boolean,
  space: number,
): readonly number[] {
  const staff = below ? system.staffBottom : system.staffTop;
  const sign = below ? 1 : -1;
  const own = stacks.map((stack) => {
    const left = Math.min(...stack.map((one) => one.x)) - SIDE_MARGIN * space;
    const end = Math.max(...stack.map((one) => one.x + one.size.width)) + SIDE_MARGIN * space;
    const met = solid.filter((box) => box.x < end && right(box) > left);
    return Math.max(0, ...met.map((box) => sign * ((below ? bottom(box) : box.y) - staff)));
  });
  const line = [...own].sort((a, b) => a - b)[Math.floor((own.length - 1) * SHARE_ON_THE_LINE)] ?? 0;
  return own.map((out) => staff + sign * (Math.max(out, line) + ROW_GAP * space));
}

function lineEnd(
  mark: Mark,
  box: Box,
  system: number,
  page: EngravedPage,
  noteOf: ReadonlyMap<string, NoteBox>,
): number | null {
  if (mark.toUid === mark.uid) return null;
  const last = noteOf.get(mark.toUid);
  const end = last?.system === system ? right(last) : page.systems[system]!.right;
  return end > right(box) + 0.5 * page.staffSpace ? end : null;
}
