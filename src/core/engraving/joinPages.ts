/** A long score comes from the engraver on several sheets; the desk shows it as one. */
import type { Box, EngravedPage, NoteBox, SystemBox } from './page';

/** @throws RangeError for an empty list */
export function joinPages(pages: readonly EngravedPage[]): EngravedPage {
  const first = pages[0];
  if (!first) throw new RangeError('joining pages: there is none');
  if (pages.length === 1) return first;
  const notes: NoteBox[] = [];
  const systems: SystemBox[] = [];
  const svg: string[] = [];
  let top = 0;
  for (const page of pages) {
    const down = <T extends Box>(box: T): T => ({ ...box, y: box.y + top });
    notes.push(
      ...page.notes.map((note) => ({
        ...down(note),
        keeper: note.keeper && down(note.keeper),
        system: note.system + systems.length,
      })),
    );
    systems.push(
      ...page.systems.map((system) => ({
        ...system,
        staffTop: system.staffTop + top,
        staffBottom: system.staffBottom + top,
        obstacles: system.obstacles.map(down),
      })),
    );
    svg.push(`<g transform="translate(0, ${top})">${page.svg}</g>`);
    top += page.height;
  }
  return { ...first, height: top, svg: svg.join(''), notes, systems };
}
