/** What is played at once on one string, and what part it has in the music. */
import type { TouchPlace } from '../../instrument/harmonics';
import type { PrintedMarks } from '../../score/model';

/**
 * Of a note of a line: `quick` below a quarter second a note, `slow` in a slow melody, `plain` between. `figure`: it is
 * part of a figure over several strings, or no line at all, and no string stands out. `drone`: one pitch again and again.
 */
export type Manner = 'figure' | 'drone' | 'quick' | 'plain' | 'slow';

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
  /**
   * Where its place is taken: with the first note of the grip that it is part of, in which it may lie silent for a while;
   * with its own beginning where it is part of none.
   */
  readonly laidTicks: number;
  /** The strike of its grip that it strikes again, and so takes its place over from. */
  readonly continues: number | null;
  /** Number of the grip that it is part of. */
  readonly grip: number | null;
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
  /** Of a figure that is moved along the neck: whether it moves or stays; null elsewhere. */
  readonly inMove: 'moves' | 'stays' | null;
  /** Of thirds, sixths, chords or shapes that move together: the note that it comes from. */
  readonly parallelFrom: number | null;
  /** How it is sung: how much an open string, or another one, would stand out. */
  readonly manner: Manner;
  /** It lasts so long that the hand can come back to it at ease. */
  readonly unhurried: boolean;
  /** The teacher's word that it lasts for its written value. */
  readonly mustRing: boolean;
  /** Where a natural harmonic can be touched; null for every other note. */
  readonly touch: readonly TouchPlace[] | null;
  readonly printed: PrintedMarks;
}

/** Part of a grip, but not heard at this time: it is still to be struck, or its written time is over. */
export const isSilent = ({ grip, onsetTicks, writtenEndTicks }: Strike, tick: number): boolean =>
  grip !== null && (onsetTicks > tick || writtenEndTicks <= tick);

/** One pitch that comes again in its voice: the hand had better leave it as it is. Another voice strikes it for itself. */
export const isSameAgain = (before: Strike, after: Strike): boolean =>
  before.midi === after.midi && before.voice === after.voice && !areApart(before, after);

/** Of a figure that is moved along the neck one note moves and the other stays: never the same, though of one pitch. */
export const areApart = (one: Strike, other: Strike): boolean =>
  one.inMove !== null && other.inMove !== null && one.inMove !== other.inMove;

/** Up to a whole tone is a step, more is a leap. */
export const STEP_SEMITONES = 2;
