/** The rows under the score. Heights in staff spaces. */
import type { SystemLanes } from '$core/engraving/lanes';

/** One voice's figures below the strokes. */
export const FIGURE_ROW = 1.4;
/** Letters of the right hand with what is said of them. */
export const STROKES_ROW = 2.55;
/** One string. */
export const RING_ROW = 0.93;
/** The neck as far as the hand goes, and the words over it. */
export const NECK = 4.2;
export const NECK_WORDS = 1.25;

/** What every row under the score is drawn from: lengths in the page's units. */
export interface RowProps {
  lanes: SystemLanes;
  top: number;
  unit: number;
  left: number;
  right: number;
}

/** Ids of what is drawn when each takes so much room and nothing may overlap; those that matter most come first. */
export function roomy(
  lanes: readonly { readonly id: string; readonly at: number; readonly room: number }[],
): ReadonlySet<string> {
  const drawn: { readonly id: string; readonly at: number; readonly end: number }[] = [];
  for (const { id, at, room } of lanes)
    if (drawn.every((one) => at >= one.end || at + room <= one.at)) drawn.push({ id, at, end: at + room });
  return new Set(drawn.map(({ id }) => id));
}
