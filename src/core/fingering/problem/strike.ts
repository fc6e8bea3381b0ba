/** What is played at once on one string, and what part it has in the music. */
import type { TouchPlace } from '../../instrument/harmonics';
import type { PrintedMarks } from '../../score/model';

export type Role = 'melody' | 'bass' | 'inner';

/** One string set sounding once. Notes of equal pitch and onset (a unison of two voices) share a strike. */
export interface Strike {
  readonly index: number;
  readonly uids: readonly string[];
  readonly midi: number;
  readonly onsetTicks: number;
  /** Where the notation ends it. */
  readonly writtenEndTicks: number;
  /** Where a guitarist would end it: a note of a broken chord rings on (at a lower price if it cannot). */
  readonly endTicks: number;
  readonly voice: string;
  readonly role: Role;
  /** Comes before the beat of its main note. */
  readonly grace: boolean;
  /** The strike that a two-note slur leads here from. */
  readonly slurredFrom: number | null;
  /** The strike that a slide leads here from. */
  readonly slidFrom: number | null;
  /** A trill, mordent or turn is played on it. */
  readonly ornamented: boolean;
  /** The strike before it in the same line. */
  readonly lineFrom: number | null;
  /** The teacher's word that it lasts for its written value. */
  readonly mustRing: boolean;
  /** Where a natural harmonic can be touched; null for every other note. */
  readonly touch: readonly TouchPlace[] | null;
  readonly printed: PrintedMarks;
}

/** Up to a whole tone is a step, more is a leap. */
export const STEP_SEMITONES = 2;
