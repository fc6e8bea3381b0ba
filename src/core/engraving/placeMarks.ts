/**
 * Marks get their places in their systems: numerals to the left of their noteheads, everything else in rows above and
 * below the staff. No mark touches a notehead, stem, beam, accidental, slur or another mark.
 */
import type { Mark, MarkKind } from '../marks/mark';
import { bottom, type Box, type EngravedPage, type NoteBox, overlaps, right, type SystemBox } from './page';
import { placeRows } from './rows';
import { GAP, sizeOf } from './sizes';

export interface PlacedMark extends Mark {
  readonly box: Box;
  readonly system: number;
  /** Where the line of a string or barre that goes on ends; null without one. */
  readonly lineTo: number | null;
}

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
