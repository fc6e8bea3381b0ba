/** How large marks are, in staff spaces. */
import type { Mark, MarkKind } from '../marks/mark';

/** The box of one character. */
const SIZES: Readonly<Record<MarkKind, { readonly width: number; readonly height: number }>> = {
  finger: { width: 0.9, height: 1.22 },
  unplanned: { width: 0.9, height: 1.22 },
  pluck: { width: 0.95, height: 1.28 },
  string: { width: 1.3, height: 1.3 },
  barre: { width: 0.62, height: 1.2 },
  position: { width: 0.62, height: 1.2 },
  touch: { width: 0.5, height: 1.2 },
  damp: { width: 1.3, height: 1.3 },
  expression: { width: 0.66, height: 1.5 },
  remark: { width: 0.62, height: 1.42 },
  /** A dash before a numeral, where there is no room for a line from the other one. */
  guide: { width: 0.48, height: 0.2 },
};

/** Of the sizes that an edition can choose, next to the normal one. */
export const LARGE = 1.25;

/** Between a mark and what it must not touch, and between rows. */
export const GAP = 0.18;
export const ROW_GAP = 0.3;

/** Roman numerals and what stands before them are as wide as they are long. */
const LONG: readonly MarkKind[] = ['barre', 'position', 'touch', 'expression', 'remark'];

/** Square brackets around what came with the file. */
const BRACKETS = 0.7;
/** The sign at what is not as in the file. */
export const DEPARTING = 0.45;

/**
 * In the page's units.
 * @param scale of the edition's marks, 1 for the normal size
 */
export function sizeOf(mark: Mark, staffSpace: number, scale = 1) {
  const size = SIZES[mark.kind];
  const characters = LONG.includes(mark.kind) ? mark.text.length : 1;
  const brackets = mark.state === 'printed' && mark.kind !== 'string' ? BRACKETS : 0;
  const sign = mark.departs === null ? 0 : DEPARTING;
  const unit = scale * staffSpace;
  return { width: (size.width * characters + brackets + sign) * unit, height: size.height * unit };
}
