/** How large marks are, in staff spaces. */
import type { Mark, MarkKind } from '../marks/mark';

/** The box of one character. */
const SIZES: Readonly<Record<MarkKind, { readonly width: number; readonly height: number }>> = {
  finger: { width: 0.72, height: 0.98 },
  unplanned: { width: 0.72, height: 0.98 },
  pluck: { width: 0.95, height: 1.28 },
  string: { width: 1.3, height: 1.3 },
  barre: { width: 0.62, height: 1.2 },
};

/** Between a mark and what it must not touch, and between rows. */
export const GAP = 0.18;
export const ROW_GAP = 0.3;

/** In the page's units. */
export function sizeOf(mark: Mark, staffSpace: number) {
  const size = SIZES[mark.kind];
  const characters = mark.kind === 'barre' ? mark.text.length : 1;
  return { width: size.width * characters * staffSpace, height: size.height * staffSpace };
}
