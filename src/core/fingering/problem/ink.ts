/** The teacher's decisions as the planners see them. */
import type { Pluck } from '../../score/model';

export interface InkMarks {
  readonly finger: number | null;
  readonly string: number | null;
  readonly pluck: Pluck | null;
}

/** Ink by note uid. */
export type Ink = ReadonlyMap<string, InkMarks>;

export const NO_INK: InkMarks = { finger: null, string: null, pluck: null };
