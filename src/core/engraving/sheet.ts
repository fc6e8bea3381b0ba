/**
 * A page with its marks: every system has the room that its marks need, and no more. Room that was given once stays,
 * so that nothing moves under the hands of whoever is at work. A system is a strip of the engraved page, in the engraver's
 * own measures: one of which nothing has changed stays the same object wherever it moves to, so that nobody draws it again.
 */
import type { Mark } from '../marks/mark';
import { moveBox, moveDrawing } from './move';
import {
  bottom,
  type Box,
  type EngravedPage,
  type MovableWords,
  type NoteBox,
  right,
  type SystemBox,
} from './page';
import { marksBySystem, placeMarks, type PlacedMark } from './placeMarks';
import { wholeBox } from './rows';

/** One system with its marks, where the engraver put it. */
export interface SheetSystem {
  readonly index: number;
  /** The strip that belongs to it; on the sheet those of all systems lie one under the other. */
  readonly top: number;
  readonly bottom: number;
  readonly notes: readonly NoteBox[];
  readonly layout: SystemLayout;
}

interface SystemLayout {
  readonly wanted: readonly Mark[];
  readonly placed: readonly PlacedMark[];
  readonly drawing: SystemBox;
  /** The outermost things in it. */
  readonly top: number;
  readonly bottom: number;
}

export interface Sheet {
  readonly engraved: EngravedPage;
  readonly systems: readonly SheetSystem[];
  /** By system: from the staff before (or the page's edge) to its own, in the page's units. */
  readonly spread: readonly number[];
  readonly scale: number;
}

export interface SheetOptions {
  /** The same page with other marks: its room stays. */
  readonly before: Sheet | null;
  /** What room is given for, where that is more than what is shown. */
  readonly roomFor: readonly Mark[];
  /** Of the edition's marks, 1 for the normal size. */
  readonly scale: number;
}

/** In staff spaces: between two systems' outermost marks, at the page's edges, and between words and what is below. */
const BETWEEN_SYSTEMS = 1.4;
const PAGE_EDGE = 1.6;
const UNDER_WORDS = 0.6;
/** Words come out wider than the engraver thinks, who has another font: as a share of their width. */
const WIDER = 0.2;
/** Staves stand at least so far apart, however little there is between them. */
const BETWEEN_STAVES = 8;
/** What marks of full density usually need, for a page that is shown before they come. */
const USUAL_ABOVE = 4.4;
const USUAL_BELOW = 3.2;

export function sheetOf(
  engraved: EngravedPage,
  marks: readonly Mark[],
  { before = null, roomFor = marks, scale = 1 }: Partial<SheetOptions> = {},
): Sheet {
  const known = maybeKnown(before, engraved, scale);
  const layouts = layoutsOf(engraved, marks, known, scale);
  const room = roomOf(engraved, layouts, roomFor === marks ? null : marksBySystem(engraved, roomFor), scale);
  const spread = spreadOf(engraved, room, known?.spread ?? null);
  const strips = stripsOf(engraved, room, spread);
  const notes = known?.systems.map((one) => one.notes) ?? notesBySystem(engraved);
  const systems = layouts.map((layout, k): SheetSystem => {
    const old = known?.systems[k];
    return old && isStill(old, layout, strips[k]!)
      ? old
      : { index: k, ...strips[k]!, notes: notes[k]!, layout };
  });
  return { engraved, systems, spread, scale };
}

const maybeKnown = (before: Sheet | null, engraved: EngravedPage, scale: number): Sheet | null =>
  before?.engraved === engraved && before.scale === scale ? before : null;

const layoutsOf = (
  engraved: EngravedPage,
  marks: readonly Mark[],
  known: Sheet | null,
  scale: number,
): readonly SystemLayout[] =>
  marksBySystem(engraved, marks).map((wanted, k) => {
    const old = known?.systems[k]?.layout;
    return old && areSame(old.wanted, wanted) ? old : layoutOf(engraved, k, wanted, scale);
  });

type Reach = Pick<SystemLayout, 'top' | 'bottom'>;

/** Each system's strip: to half way between what reaches furthest of it and of its neighbours. */
function stripsOf(page: EngravedPage, room: readonly Reach[], spread: readonly number[]): readonly Reach[] {
  const { systems, staffSpace } = page;
  /** Half of what is free between a system and the one before. */
  const half = (k: number) =>
    (spread[k]! -
      (room[k - 1]!.bottom - systems[k - 1]!.staffBottom) -
      (systems[k]!.staffTop - room[k]!.top)) /
    2;
  return room.map(({ top, bottom: end }, k) => ({
    top: k === 0 ? systems[0]!.staffTop - spread[0]! : top - half(k),
    bottom: k === room.length - 1 ? end + PAGE_EDGE * staffSpace : end + half(k + 1),
  }));
}

const isStill = (old: SheetSystem, layout: SystemLayout, { top, bottom: end }: Reach): boolean =>
  old.layout === layout && old.top === top && old.bottom === end;

const areSame = (a: readonly Mark[], b: readonly Mark[]): boolean =>
  a.length === b.length && a.every((mark, k) => mark === b[k] || isSame(mark, b[k]!));

const isSame = (a: Mark, b: Mark): boolean =>
  a.id === b.id &&
  a.text === b.text &&
  a.state === b.state &&
  a.uid === b.uid &&
  a.toUid === b.toUid &&
  a.departs === b.departs &&
  a.below === b.below;

function layoutOf(page: EngravedPage, k: number, wanted: readonly Mark[], scale: number): SystemLayout {
  const placed = placeMarks(page, k, wanted, scale);
  const space = page.staffSpace;
  const drawing = raiseWords(page.systems[k]!, placed.map(wholeBox), space);
  const extent = extentOf(drawing, placed, placed.length > 0 ? null : space);
  return { wanted, placed, drawing, ...extent };
}

/** How far the systems reach with the marks that room is given for. */
function roomOf(
  page: EngravedPage,
  layouts: readonly SystemLayout[],
  roomFor: readonly (readonly Mark[])[] | null,
  scale: number,
): readonly Reach[] {
  if (!roomFor) return layouts;
  return layouts.map((layout, k) => {
    const full = fullLayout(page, k, roomFor[k]!, scale);
    return { top: Math.min(layout.top, full.top), bottom: Math.max(layout.bottom, full.bottom) };
  });
}

/** Room for what is not shown is measured once a page: it is given for good. */
const measured = new WeakMap<SystemBox, { readonly scale: number; readonly layout: SystemLayout }>();

function fullLayout(page: EngravedPage, k: number, wanted: readonly Mark[], scale: number): SystemLayout {
  const system = page.systems[k]!;
  const known = measured.get(system);
  if (known && known.scale === scale && areSame(known.layout.wanted, wanted)) return known.layout;
  const layout = layoutOf(page, k, wanted, scale);
  measured.set(system, { scale, layout });
  return layout;
}

function spreadOf(
  page: EngravedPage,
  room: readonly Reach[],
  before: readonly number[] | null,
): readonly number[] {
  const space = page.staffSpace;
  return room.map(({ top }, k) => {
    const staffGap = k === 0 ? 0 : BETWEEN_STAVES * space;
    const aboveStaff = page.systems[k]!.staffTop - top;
    const belowStaff = k === 0 ? 0 : room[k - 1]!.bottom - page.systems[k - 1]!.staffBottom;
    const gap = (k === 0 ? PAGE_EDGE : BETWEEN_SYSTEMS) * space;
    return Math.max(belowStaff + gap + aboveStaff, staffGap, before?.[k] ?? 0);
  });
}

function notesBySystem(page: EngravedPage): readonly NoteBox[][] {
  const bySystem: NoteBox[][] = page.systems.map(() => []);
  for (const note of page.notes) bySystem[note.system]!.push(note);
  return bySystem;
}

/** Tempos stand above everything: they give way upwards, one after the other. */
function raiseWords(system: SystemBox, marks: readonly Box[], space: number): SystemBox {
  const solid = [...system.obstacles, ...marks];
  const tempos = system.tempos.map((words): MovableWords => {
    const end = right(words.box) + WIDER * words.box.width;
    const under = solid.filter((box) => box.x < end && right(box) > words.box.x);
    const top = Math.min(system.staffTop, ...under.map((box) => box.y));
    const by = Math.min(0, top - UNDER_WORDS * space - bottom(words.box));
    const raised = { box: moveBox(words.box, by), svg: moveDrawing(words.svg, by) };
    solid.push(raised.box);
    return raised;
  });
  return { ...system, tempos };
}

/** @param usual room for marks that are still to come, in units of this; null where they are there */
function extentOf(system: SystemBox, marks: readonly PlacedMark[], usual: number | null) {
  const boxes = [...system.obstacles, ...marks.map(({ box }) => box), ...system.tempos.map(({ box }) => box)];
  return {
    top: Math.min(system.staffTop, ...boxes.map((box) => box.y)) - (usual ?? 0) * USUAL_ABOVE,
    bottom: Math.max(system.staffBottom, ...boxes.map(bottom)) + (usual ?? 0) * USUAL_BELOW,
  };
}
