/** Shares and limits in the rules of the left hand: what is felt of a term, and from when on. Set by hand. */
import type { Strike } from '../../problem/strike';

/** What part of a shift is felt when something carries the hand. Source: common practice. */
export const CARRIER_SHARE = { none: 1, open: 0.6, guide: 0.5, shape: 0.3, pivot: 0.6 } as const;

/** How much an open string stands out in a line. Source: handbook 13, "Colour". */
export const OPEN_IN = { figure: 0, quick: 0, plain: 0.3, slow: 0 } as const;

/** In a figure of one harmony fingers lie as in its chord, not one to a fret: this part of a squeeze is felt. Source: handbook 13, "Shapes". */
export const SQUEEZED_IN_FIGURE = 0.3;

/** The index finger opens backwards more easily than the others spread: this part of it counts. From memory. */
export const INDEX_OPENS = 0.6;

/** On one fret a finger can flatten or roll over to the next string: this part of a hop is left. From memory. */
export const FLATTENED_HOP = 0.7;

/** Finger 1 lays a small barre over both: this part is left. From memory. */
export const BARRED_HOP = 0.1;

/** From one grip to the next the whole hand moves: a finger that leaves its string with the bass of a figure counts so much of one in a line. From memory. */
export const HOP_UNDER_FIGURE = 0.5;

/** Fingers that cross on one fret, one after the other and not at once: this part of it is left. From memory. */
export const CROSSED_IN_LINE = 0.4;

/** In a quick run a finger that slides a semitone holds it up so many times more than in a slow one. From memory. */
export const SLID_IN_HURRY = 3;

/** Of a row that loses its guide this part is felt for each finger that is exchanged. From memory. */
export const EXCHANGED = 0.6;

/** Two notes of a row on neighbouring strings, three frets apart or more, are as bad as so many strings left. From memory. */
export const WIDE_FORM = 1.5;

/** Two notes of a row with other fingers than their form has. From memory. */
export const UNUSUAL_FORM = 1;

/**
 * Fingers so many strings apart stand askew to the frets, and being nearer than a fret for each crowds them only in part:
 * 2 and 3 on the third fret of strings 6 and 2. From memory.
 */
export const FAR_APART = 4;
export const CROWDED_FAR_APART = 0.5;

/** Tips on one fret, far from each other, where a barre would do: crowded by so many frets more. Set by hand. */
export const UNBARRED = 2;

/** Three fingers side by side without the first are crowded by so many frets more than with it. From memory. */
export const WITHOUT_INDEX = 0.3;

/** A figure that is moved is felt as one shape: a note of it that leaves its string counts so much more than one of a row. Set by hand. */
export const MOVED_SHAPE = 3;

/** Fingers in turn hinder each other when they follow each other faster than this. From memory. */
export const WEAK_PAIR_MS = 250;

/** Another finger on a note that comes again at once is so many times dearer still. From memory. */
export const CHANGED_IN_HURRY = 3;
/** The same from one chord to another: shapes are taught as shapes. From memory. */
export const CHANGED_IN_CHORDS = 0.4;

/** Share of the last note before a movement that its finger may give away. From memory. */
export const RELEASE_SHARE = 0.75;

/** Of a long note the finger may leave for the last part of it. From memory. */
export const LAST_SHARE = 0.25;

/** A finger that goes by itself is quicker than the hand on its arm: it needs this part of the time. From memory. */
export const FINGER_TIME = 0.8;

/** In less time than this a shift counts more, up to so much more: what fits one position stays there in a quick run. */
export const QUICK_WINDOW_MS = 150;
export const QUICK_SHIFT = 1;

/** A shift over open strings has all the time that it can use after this. */
export const LONGEST_WINDOW_MS = 1500;

/** What is left of laying a barre when finger 1 already stands on its fret, or a smaller barre lies there. */
export const BARRE_PREPARED_SHARE = { finger: 0.6, smallerBarre: 0.4 } as const;

/** Of a grip of slow notes so much is felt when it is taken anew. From memory. */
export const UNHURRIED_REGRIP = 0.4;

/** A shape that is moved is not formed note by note, nor left on the way: so many times dearer. Set by hand. */
export const MOVED_REGRIP = 2.5;

export const regripShare = ({ unhurried, inMove }: Pick<Strike, 'unhurried' | 'inMove'>): number =>
  inMove === 'moves' ? MOVED_REGRIP : unhurried ? UNHURRIED_REGRIP : 1;

/** What is left of a cut where another voice strikes the same pitch: the sound goes on, the voice does not. From memory. */
export const RESTRUCK_SHARE = 0.15;

/** The share of a cut that counts at once; the rest grows with the lost share of the written value. */
export const CUT_AT_ONCE = 0.3;
