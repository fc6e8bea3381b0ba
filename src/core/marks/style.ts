/** How a page is marked: what an edition can choose. Source of the choices: handbook 2, "Schools differ". */

/** full: every note. teaching: what a careful editor prints. sparse: the fewest from which all the rest follows. */
export const DENSITIES = ['full', 'teaching', 'sparse'] as const;
export type Density = (typeof DENSITIES)[number];

export const BARRE_LETTERS = ['C', 'B'] as const;
/** Of a barre that is not whole: strings of six, or the usual fraction. */
export const BARRE_FRACTIONS = ['sixths', 'halves'] as const;
/** Where the letters of the right hand stand: the thumb's below and the others above, or all on one side. */
export const PLUCK_SIDES = ['byHand', 'above', 'below'] as const;
export const MARK_SIZES = ['normal', 'large'] as const;

export interface MarkStyle {
  readonly density: Density;
  readonly barreLetter: (typeof BARRE_LETTERS)[number];
  readonly barreFraction: (typeof BARRE_FRACTIONS)[number];
  readonly pluckSide: (typeof PLUCK_SIDES)[number];
  readonly size: (typeof MARK_SIZES)[number];
}

export const PLAIN_MARKS: MarkStyle = {
  density: 'full',
  barreLetter: 'C',
  barreFraction: 'sixths',
  pluckSide: 'byHand',
  size: 'normal',
};
