/** A long score comes from the engraver on several sheets; the desk shows it as one. */
import { moveNote, moveSystem } from './move';
import type { BarBox, EngravedPage, NoteBox, SystemBox } from './page';

/** @throws RangeError for an empty list */
export function joinPages(pages: readonly EngravedPage[]): EngravedPage {
  const first = pages[0];
  if (!first) throw new RangeError('joining pages: there is none');
  if (pages.length === 1) return first;
  const notes: NoteBox[] = [];
  const systems: SystemBox[] = [];
  const bars: BarBox[] = [];
  let top = 0;
  for (const page of pages) {
    const down = movedDown(page, top);
    notes.push(...down.notes.map((note) => ({ ...note, system: note.system + systems.length })));
    bars.push(...down.bars.map((bar) => ({ ...bar, system: bar.system + systems.length })));
    systems.push(...down.systems);
    top += page.height;
  }
  return { ...first, height: top, glyphs: pages.map((page) => page.glyphs).join(''), notes, systems, bars };
}

const movedDown = (page: EngravedPage, by: number): EngravedPage => ({
  ...page,
  notes: page.notes.map((note) => moveNote(note, by)),
  systems: page.systems.map((system) => moveSystem(system, by)),
});
