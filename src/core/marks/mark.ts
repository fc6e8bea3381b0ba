/** A mark that a fingering asks for, before it has a place on the page. */
import type { MarkCause } from './cause';

/** Whose mark it is: proposed, decided by the teacher, or in the file. */
export type MarkState = 'pencil' | 'ink' | 'printed';

export type MarkKind =
  | 'finger'
  | 'pluck'
  | 'string'
  | 'barre'
  | 'position'
  | 'guide'
  | 'damp'
  | 'touch'
  | 'expression'
  | 'remark'
  | 'unplanned';

export interface Mark {
  /** Stable over plans: kind and note. */
  readonly id: string;
  readonly kind: MarkKind;
  readonly uid: string;
  /** The last note that the mark holds for; its own note when it is one note's. A guide: the note that it leads to. */
  readonly toUid: string;
  readonly text: string;
  readonly state: MarkState;
  /** On the side of the bass: below the staff. */
  readonly below: boolean;
  /** Why a careful editor prints it; empty where nobody would miss it. */
  readonly causes: readonly MarkCause[];
  /** What the file has instead; null where it says the same or nothing. */
  readonly departs: string | null;
}
