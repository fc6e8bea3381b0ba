/**
 * A page with its marks: every system has the room that its marks need, and no more. Room that was given once stays,
 * so that nothing moves under the hands of whoever is at work.
 */
import type { Mark } from '../marks/mark';
import { moveBox, moveDrawing, moveNote, moveSystem } from './move';
import { bottom, type Box, type EngravedPage, type MovableWords, right, type SystemBox } from './page';
import { placeMarks, type PlacedMark } from './placeMarks';
import { wholeBox } from './rows';

/** By system: from the staff before (or the page's edge) to its own, in the page's units. */
export type Spread = readonly number[];

export interface Sheet {
  readonly page: EngravedPage;
  readonly marks: readonly PlacedMark[];
  readonly spread: Spread;
}

/** In staff spaces: between two systems' outermost marks, at the page's edges, and between words and what is below. */
const BETWEEN_SYSTEMS = 1.4;
const PAGE_EDGE = 1.6;
const UNDER_WORDS = 0.6;
/** Staves stand at least so far apart, however little there is between them. */
const BETWEEN_STAVES = 8;
/** What marks of full density usually need, for a page that is shown before they come. */
const USUAL_ABOVE = 4.4;
const USUAL_BELOW = 3.2;

/** @param before the spread of the same page with other marks; null for a page that is laid out for the first time */
export function sheetOf(page: EngravedPage, marks: readonly Mark[], before: Spread | null): Sheet {
  const placed = placeMarks(page, marks);
  const space = page.staffSpace;
  const raised = page.systems.map((system, k) => {
    const boxes = placed.filter((mark) => mark.system === k).map(wholeBox);
    return raiseWords(system, boxes, space);
  });
  const extents = raised.map((system, k) => {
    const own = placed.filter((mark) => mark.system === k).map(({ box }) => box);
    return extentOf(system, own, own.length > 0 ? null : space);
  });
  const spread = extents.map(({ top }, k) => {
    const staffGap = k === 0 ? 0 : BETWEEN_STAVES * space;
    const aboveStaff = page.systems[k]!.staffTop - top;
    const belowStaff = k === 0 ? 0 : extents[k - 1]!.bottom - page.systems[k - 1]!.staffBottom;
    const gap = (k === 0 ? PAGE_EDGE : BETWEEN_SYSTEMS) * space;
    return Math.max(belowStaff + gap + aboveStaff, staffGap, before?.[k] ?? 0);
  });
  const by = movesOf(page.systems, spread);
  const last = page.systems.length - 1;
  return {
    page: {
      ...page,
      height: last < 0 ? page.height : extents[last]!.bottom + by[last]! + PAGE_EDGE * space,
      notes: page.notes.map((note) => moveNote(note, by[note.system]!)),
      systems: raised.map((system, k) => moveSystem(system, by[k]!)),
    },
    marks: placed.map((mark) => ({ ...mark, box: moveBox(mark.box, by[mark.system]!) })),
    spread,
  };
}

/** Tempos stand above everything: they give way upwards, one after the other. */
function raiseWords(system: SystemBox, marks: readonly Box[], space: number): SystemBox {
  const solid = [...system.obstacles, ...marks];
  const tempos = system.tempos.map((words): MovableWords => {
    const under = solid.filter((box) => box.x < right(words.box) && right(box) > words.box.x);
    const top = Math.min(system.staffTop, ...under.map((box) => box.y));
    const by = Math.min(0, top - UNDER_WORDS * space - bottom(words.box));
    const raised = { box: moveBox(words.box, by), svg: moveDrawing(words.svg, by) };
    solid.push(raised.box);
    return raised;
  });
  return { ...system, tempos };
}

/** @param usual room for marks that are still to come, in units of this; null where they are there */
function extentOf(system: SystemBox, marks: readonly Box[], usual: number | null) {
  const boxes = [...system.obstacles, ...marks, ...system.tempos.map(({ box }) => box)];
  return {
    top: Math.min(system.staffTop, ...boxes.map((box) => box.y)) - (usual ?? 0) * USUAL_ABOVE,
    bottom: Math.max(system.staffBottom, ...boxes.map(bottom)) + (usual ?? 0) * USUAL_BELOW,
  };
}

/** How far each system is moved so that its staff begins `spread` below the end of the staff before. */
function movesOf(systems: readonly SystemBox[], spread: Spread): readonly number[] {
  let end = 0;
  return systems.map(({ staffTop, staffBottom }, k) => {
    const by = end + spread[k]! - staffTop;
    end = staffBottom + by;
    return by;
  });
}
