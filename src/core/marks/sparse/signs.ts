/** Signs that are printed on a page, as a reader finds them. */
import type { PlannedBarre } from '../../fingering/report/plan';
import type { Pluck } from '../../score/model';

export interface Signs {
  /** By note. */
  readonly fingers: ReadonlyMap<string, number>;
  readonly strings: ReadonlyMap<string, number>;
  readonly letters: ReadonlyMap<string, Pluck>;
  /** Roman numerals, by the note that they stand over. */
  readonly positions: ReadonlyMap<string, number>;
  /** Frets where natural harmonics are touched, by note. */
  readonly touches: ReadonlyMap<string, number>;
  readonly barres: readonly PlannedBarre[];
}
