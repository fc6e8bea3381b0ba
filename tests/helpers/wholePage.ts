/** The strips of a sheet laid one under the other: where everything stands once the systems have their room. */
import { moveBox, moveSystem } from '../../src/core/engraving/move';
import type { NoteBox, SystemBox } from '../../src/core/engraving/page';
import type { PlacedMark } from '../../src/core/engraving/placeMarks';
import type { Sheet } from '../../src/core/engraving/sheet';

export interface WholePage {
  readonly height: number;
  readonly staffSpace: number;
  readonly systems: readonly SystemBox[];
  readonly notes: readonly NoteBox[];
  readonly marks: readonly PlacedMark[];
}

export function wholePage({ engraved, systems }: Sheet): WholePage {
  let height = 0;
  const laid = systems.map(({ top, bottom, notes, layout }) => {
    const by = height - top;
    height += bottom - top;
    return {
      system: moveSystem(layout.drawing, by),
      notes: notes.map((note) => moveBox(note, by)),
      marks: layout.placed.map((mark) => ({ ...mark, box: moveBox(mark.box, by) })),
    };
  });
  return {
    height,
    staffSpace: engraved.staffSpace,
    systems: laid.map(({ system }) => system),
    notes: laid.flatMap((one) => one.notes),
    marks: laid.flatMap((one) => one.marks),
  };
}
