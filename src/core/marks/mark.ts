/** A mark that a fingering asks for, before it has a place on the page. */

/** Whose mark it is: proposed, decided by the teacher, or in the file. */
export type MarkState = 'pencil' | 'ink' | 'printed';

export type MarkKind = 'finger' | 'pluck' | 'string' | 'barre' | 'unplanned';

export interface Mark {
  /** Stable over plans: kind and note. */
  readonly id: string;
  readonly kind: MarkKind;
  readonly uid: string;
  /** The last note that the mark holds for; its own note when it is one note's. */
  readonly toUid: string;
  readonly text: string;
  readonly state: MarkState;
  /** On the side of the bass: below the staff. */
  readonly below: boolean;
}
