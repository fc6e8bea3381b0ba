/**
 * The weights of the right hand before any fitting: those of the table, which are set by hand against handbook 13. Fitting
 * starts from them and has not moved them yet.
 */
import { type RightWeights, TABLE_WEIGHTS } from '../../src/core/fingering/right/rules/style';

export const START: RightWeights = TABLE_WEIGHTS;
