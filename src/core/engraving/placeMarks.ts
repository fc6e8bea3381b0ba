/**
 * Marks get their places in their systems: numerals to the left of their noteheads, everything else in rows above and
 * below the staff. No mark touches a notehead, stem, beam, accidental, slur or another mark.
 */
import type { Mark, MarkKind } from '../marks/mark';
import { boxesOf, DASH_ROOM, type Line, placeGuides } from './guides';
import { bottom, type Box, type EngravedPage, type NoteBox, overlaps, right } from './page';
import { placeRows } from './rows';
import { GAP, sizeOf } from './sizes';

export interface PlacedMark extends Mark {
  readonly box: Box;
  readonly system: number;
  /** Where the line of a string or barre that goes on ends; null without one. */
  readonly lineTo: number | null;
  /** A slanted line from numeral to numeral, of a guide finger alone. */
  readonly line?: Line;
}

/** How far to the left a numeral may go before it tries a place above or below: its ink is narrower than its box, and two spaces are the most. */
const FARTHEST_LEFT = 1.85;
/** Steps to each side in which a place is looked for. */
const GRID = 8;

/** By system: the marks that stand in it. A guide belongs to the system of the note that it leads to. */
export function marksBySystem(page: EngravedPage, marks: readonly Mark[]): readonly Mark[][] {
  const systemOf = new Map(page.notes.map(({ uid, system }) => [uid, system]));
  const bySystem: Mark[][] = page.systems.map(() => []);
  for (const mark of marks) {
    const system = systemOf.get(mark.kind === 'guide' ? mark.toUid : mark.uid);
    if (system !== undefined) bySystem[system]!.push(mark);
  }
  return bySystem;
}

/**
 * The marks of one system, placed.
 * @param scale of the edition's marks, 1 for the normal size
 */
export function placeMarks(
  page: EngravedPage,
  index: number,
  marks: readonly Mark[],
  scale = 1,
): readonly PlacedMark[] {
  const noteOf = notesOf(page);
  const { obstacles } = page.systems[index]!;
  const byKind = (...kinds: readonly MarkKind[]) => marks.filter((mark) => kinds.includes(mark.kind));
  const guided = new Set(byKind('guide').map(({ toUid }) => toUid));
  const numerals = placeNumerals(page, byKind('finger', 'unplanned'), { obstacles, noteOf, guided, scale });
  const guides = placeGuides(page, obstacles, byKind('guide'), numerals, scale);
  const solid = [...numerals, ...guides].flatMap((mark) => boxesOf(mark, page.staffSpace));
  const byRow = [
    byKind('pluck'),
    byKind('string'),
    byKind('damp'),
    byKind('expression'),
    byKind('barre', 'position', 'touch'),
    byKind('remark'),
  ];
  return [...numerals, ...guides, ...placeRows({ page, index, noteOf, scale }, byRow, solid)];
}

const noteMaps = new WeakMap<EngravedPage, ReadonlyMap<string, NoteBox>>();

/** Made once a page: its systems are placed one by one. */
function notesOf(page: EngravedPage): ReadonlyMap<string, NoteBox> {
  const known = noteMaps.get(page) ?? new Map(page.notes.map((note) => [note.uid, note]));
  noteMaps.set(page, known);
  return known;
}

/** What numerals are placed among, and which of them have a dash before them. */
interface Surroundings {
  readonly obstacles: readonly Box[];
  readonly noteOf: ReadonlyMap<string, NoteBox>;
  readonly guided: ReadonlySet<string>;
  readonly scale: number;
}

function placeNumerals(
  page: EngravedPage,
  marks: readonly Mark[],
  { obstacles, noteOf, guided, scale }: Surroundings,
): PlacedMark[] {
  const placed: PlacedMark[] = [];
  const covered: Box[] = [];
  for (const mark of marks) {
    const note = noteOf.get(mark.uid)!;
    const taken = [...near(obstacles, note, page.staffSpace), ...covered];
    const size = sizeOf(mark, page.staffSpace, scale);
    const dash = guided.has(mark.uid) ? DASH_ROOM * scale * page.staffSpace : 0;
    const whole = numeralBox(page, note, { ...size, width: size.width + dash }, taken);
    covered.push(whole);
    const box = { ...whole, x: whole.x + dash, width: size.width };
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
  const farthest = FARTHEST_LEFT * page.staffSpace;
  const left = slideLeft({ x: note.x - gap - size.width, y: middle, ...size }, taken, gap / 2);
  if (left.x >= note.x - farthest - size.width) return left;
  const centre = note.x + note.width / 2 - size.width / 2;
  const others = [
    { x: centre, y: note.y - gap - size.height, ...size },
    { x: centre, y: bottom(note) + gap, ...size },
  ];
  const isFree = (box: Box) => !taken.some((one) => overlaps(box, one));
  return others.find(isFree) ?? around(note, size, farthest).find(isFree) ?? left;
}

/** Places around a note, the nearest first; those to its left before others as near. */
function around(
  note: NoteBox,
  size: { readonly width: number; readonly height: number },
  farthest: number,
): readonly Box[] {
  const steps = Array.from({ length: 2 * GRID + 1 }, (_, k) => ((k - GRID) * farthest) / GRID);
  const home = { x: note.x - size.width, y: note.y + note.height / 2 - size.height / 2 };
  return steps
    .flatMap((dx) => steps.map((dy) => ({ x: home.x + dx, y: home.y + dy, ...size })))
    .map((box) => ({ box, away: distance(box, note) + (box.x > note.x ? 1e-3 : 0) }))
    .filter(({ away }) => away > 0 && away <= farthest)
    .sort((a, b) => a.away - b.away)
    .map(({ box }) => box);
}

/** Between the edges of two boxes. */
function distance(a: Box, b: Box): number {
  const dx = Math.max(0, b.x - right(a), a.x - right(b));
  const dy = Math.max(0, b.y - bottom(a), a.y - bottom(b));
  return Math.hypot(dx, dy);
}

/** Moves a box to the left past everything that it meets. */
function slideLeft(box: Box, taken: readonly Box[], gap: number): Box {
  const met = taken.filter((one) => overlaps(box, one));
  if (met.length === 0) return box;
  return slideLeft({ ...box, x: Math.min(...met.map((one) => one.x)) - gap - box.width }, taken, gap);
}
