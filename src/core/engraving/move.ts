/** What stands on a page, further down. */
import type { Box, NoteBox, SystemBox } from './page';

export const moveBox = <T extends Box>(box: T, by: number): T => ({ ...box, y: box.y + by });

export const moveNote = (note: NoteBox, by: number): NoteBox =>
  by === 0 ? note : { ...moveBox(note, by), keeper: note.keeper && moveBox(note.keeper, by) };

export const moveDrawing = (svg: string, by: number): string =>
  by === 0 ? svg : `<g transform="translate(0, ${by})">${svg}</g>`;

export const moveSystem = (system: SystemBox, by: number): SystemBox =>
  by === 0
    ? system
    : {
        ...system,
        staffTop: system.staffTop + by,
        staffBottom: system.staffBottom + by,
        obstacles: system.obstacles.map((box) => moveBox(box, by)),
        svg: moveDrawing(system.svg, by),
        tempos: system.tempos.map(({ box, svg }) => ({ box: moveBox(box, by), svg: moveDrawing(svg, by) })),
      };
