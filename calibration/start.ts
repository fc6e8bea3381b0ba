/** The left hand's weights as they stood before any fitting: what the table of terms says. */
import { LEFT_TERM_IDS, LEFT_TERMS, type LeftTermId } from '../src/core/fingering/left/rules/terms';

export const LEFT_START = Object.fromEntries(
  LEFT_TERM_IDS.map((id) => [id, LEFT_TERMS[id].start]),
) as Readonly<Record<LeftTermId, number>>;
