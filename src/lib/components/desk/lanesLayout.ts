/** Heights under the score, in staff spaces. */

/** One voice's figures below the strokes. */
export const FIGURE_ROW = 2.05;
