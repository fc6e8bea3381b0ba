/** How wide a page is engraved, so that it is as legible on a narrow screen: with fewer bars to a system. */

/** In the engraver's units, of which a staff space has eighteen: for a laptop's screen, and as it is stored. */
export const DESK_WIDTH = 1760;
/** A staff space is drawn no smaller than this, in pixels: a staff of 9 mm at arm's length. From memory. */
const LEAST_SPACE_PX = 9;
const UNITS_IN_A_SPACE = 18;
/** Narrower than this not a bar with its clef would fit. */
const NARROWEST = 640;
/** Pages are engraved in steps: a window that is drawn a little wider keeps its systems. */
const STEP = 80;

/** @param pixels the width that there is for the page */
export function pageWidthFor(pixels: number): number {
  const wanted = (pixels / LEAST_SPACE_PX) * UNITS_IN_A_SPACE;
  const stepped = Math.floor(wanted / STEP) * STEP;
  return Math.min(DESK_WIDTH, Math.max(NARROWEST, stepped));
}
