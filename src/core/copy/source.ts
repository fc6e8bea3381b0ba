/** What a copy is made from, besides the engraved page. */
import type { Fretboard } from '../instrument/fretboard';
import type { HandAction } from '../fingering/left/explain/handScript';
import type { FingeringPlan } from '../fingering/report/plan';
import type { Mark } from '../marks/mark';
import type { BarCorrection } from '../score/corrections';
import type { Score } from '../score/model';

export interface CopySource {
  readonly score: Score;
  readonly plan: FingeringPlan;
  /** Those that are printed. */
  readonly marks: readonly Mark[];
  readonly markScale: number;
  readonly corrections: ReadonlyMap<string, BarCorrection>;
  /** The teacher's, by bar uid. */
  readonly remarks: ReadonlyMap<string, string>;
  /** For the hot spots. */
  readonly script: readonly HandAction[];
  readonly board: Fretboard;
  readonly title: string;
  /** Whose hand, tuning, capo: one line under the title. */
  readonly subtitle: string;
  /** Which version of what and when: at the foot of every page. */
  readonly imprint: string;
}
