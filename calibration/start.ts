/** The weights as they stood before any fitting, and which of them are set by hand: what the tables of terms say. */
import { LEFT_TERM_IDS, LEFT_TERMS, type LeftTermId } from '../src/core/fingering/left/rules/terms';
import { RIGHT_TERM_IDS, RIGHT_TERMS, type RightTermId } from '../src/core/fingering/right/rules/terms';
import type { CostTerm } from '../src/core/fingering/rules/costTerm';

const startOf = <Id extends string>(ids: readonly Id[], terms: Readonly<Record<Id, CostTerm>>) =>
  Object.fromEntries(ids.map((id) => [id, terms[id].start])) as Record<Id, number>;
const setByHand = <Id extends string>(ids: readonly Id[], terms: Readonly<Record<Id, CostTerm>>) =>
  new Set(ids.filter((id) => !terms[id].fitted));

export const LEFT_START: Readonly<Record<LeftTermId, number>> = startOf(LEFT_TERM_IDS, LEFT_TERMS);
export const RIGHT_START: Readonly<Record<RightTermId, number>> = startOf(RIGHT_TERM_IDS, RIGHT_TERMS);
export const LEFT_SET: ReadonlySet<LeftTermId> = setByHand(LEFT_TERM_IDS, LEFT_TERMS);
export const RIGHT_SET: ReadonlySet<RightTermId> = setByHand(RIGHT_TERM_IDS, RIGHT_TERMS);
