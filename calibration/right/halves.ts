/** The right hand's passages in two halves: every second one of a category is used for fitting, the others check. */
import { RIGHT_PASSAGES, type RightPassage } from './passages';

export const RIGHT_CATEGORIES = Object.keys(RIGHT_PASSAGES);

const everySecond = (category: string, rest: 0 | 1): readonly RightPassage[] =>
  RIGHT_PASSAGES[category]!.filter((_passage, k) => k % 2 === rest);

export const fittingRightHalf = (category: string) => everySecond(category, 0);
export const checkingRightHalf = (category: string) => everySecond(category, 1);

export const fittingRight = RIGHT_CATEGORIES.flatMap(fittingRightHalf);
export const checkingRight = RIGHT_CATEGORIES.flatMap(checkingRightHalf);
