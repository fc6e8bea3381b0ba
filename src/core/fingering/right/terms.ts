/** What costs the right hand. No weight stands anywhere else. */
import { checkedTerms, linear, urgency } from '../costTerm';

const COMMON = 'common practice';

/** p belongs to strings 4 to 6; every string further up is more out of its way. */
const THUMB_BY_STRING = [0, 6, 3, 1, 0, 0, 0] as const;

export const RIGHT_TERMS = checkedTerms({
  displacement: {
    unit: 'strings',
    measures: 'move of the set of fingers beyond what they spread by themselves',
    weight: 14,
    source: COMMON,
    shape: linear,
  },
  displacementHaste: {
    unit: 'ms share',
    measures: 'time that this move needs over the time it has',
    weight: 25,
    source: 'Fitts 1954',
    shape: urgency,
  },
  sway: {
    unit: 'strings',
    measures: 'move of the set from string to string within what the fingers spread',
    weight: 2.4,
    source: COMMON,
    shape: linear,
  },
  setMove: {
    unit: 'strings',
    measures: 'the set of fingers moved off the beat: in the middle of a figure it disturbs most',
    weight: 4,
    source: COMMON,
    shape: linear,
  },
  repeat: {
    unit: 'ms share',
    measures: 'a finger twice in a row: how much of 400 ms is lacking between the strokes',
    weight: 64,
    source: COMMON,
    shape: (lack) => 0.08 + Math.max(0, lack),
  },
  strokeHaste: {
    unit: 'ms share',
    measures: 'time that a finger needs to play again over the time it has, whatever lies between',
    weight: 23,
    source: 'the hand’s profile',
    shape: urgency,
  },
  pairHaste: {
    unit: 'ms share',
    measures: 'time that two fingers need in turn over the time they have',
    weight: 11,
    source: 'the hand’s profile',
    shape: urgency,
  },
  thumbRepeat: {
    unit: 'ms share',
    measures: 'p twice in a row: how much of 220 ms is lacking between the strokes',
    weight: 43,
    source: COMMON,
    shape: (lack) => Math.max(0, lack),
  },
  habit: {
    unit: 'count',
    measures: 'a third finger on a string on which two have begun to alternate',
    weight: 6,
    source: COMMON,
    shape: linear,
  },
  home: {
    unit: 'strings',
    measures: 'distance of the set from i on 3, m on 2, a on 1',
    weight: 3,
    source: COMMON,
    shape: linear,
  },
  spread: {
    unit: 'strings',
    measures: 'fingers of a chord that lie further apart or closer than a string for each finger',
    weight: 3,
    source: COMMON,
    shape: linear,
  },
  thumbString: {
    unit: 'count',
    measures: 'p on a treble string',
    weight: 8.6,
    source: COMMON,
    shape: (string) => THUMB_BY_STRING[string]!,
  },
  thumbLeap: {
    unit: 'strings',
    measures: 'leap of p over strings',
    weight: 2.1,
    source: COMMON,
    shape: (strings) => Math.max(0, strings - 1),
  },
  thumbLeapHaste: {
    unit: 'ms share',
    measures: 'time that the leap needs over the time it has',
    weight: 23,
    source: 'Fitts 1954',
    shape: urgency,
  },
  thumbMelody: {
    unit: 'count',
    measures: 'p on a note of the melody',
    weight: 13,
    source: COMMON,
    shape: linear,
  },
  fingerBass: {
    unit: 'count',
    measures: 'a finger on a note of the bass',
    weight: 32,
    source: COMMON,
    shape: linear,
  },
  ring: {
    unit: 'count',
    measures: 'a where a stronger finger could be',
    weight: 4,
    source: COMMON,
    shape: linear,
  },
  little: {
    unit: 'count',
    measures: 'c, the weakest of the fingers',
    weight: 8,
    source: COMMON,
    shape: linear,
  },
  brush: {
    unit: 'strings',
    measures: 'p brushing over strings in one stroke; a string between would sound with them',
    weight: 13,
    source: COMMON,
    shape: (gap) => (gap === 1 ? 1 : 6 * gap),
  },
  findAgain: {
    unit: 'ms share',
    measures: 'time that the fingers need to find their strings after a strum over the time they have',
    weight: 15,
    source: COMMON,
    shape: urgency,
  },
  busy: {
    unit: 'count',
    measures: 'awkwardness of the right hand where the left hand is busy',
    weight: 0.36,
    source: COMMON,
    shape: linear,
  },
  station: {
    unit: 'strings',
    measures: 'a finger away from its own string',
    weight: 0,
    source: COMMON,
    shape: linear,
  },
  offPair: {
    unit: 'count',
    measures: 'a finger that is not of the pair that alternates',
    weight: 0,
    source: COMMON,
    shape: linear,
  },
  offOrder: {
    unit: 'count',
    measures: 'a finger that is not the next of the order',
    weight: 0,
    source: COMMON,
    shape: linear,
  },
  wanted: {
    unit: 'count',
    measures: 'departure from the chosen order of a tremolo, or from the chosen starting finger',
    weight: 400,
    source: 'the teacher’s word',
    shape: linear,
  },
  sweepBack: {
    unit: 'count',
    measures: 'plectrum: two strokes in one direction that are no sweep to the neighbour string',
    weight: 20,
    source: COMMON,
    shape: linear,
  },
  pickOffBeat: {
    unit: 'count',
    measures: 'plectrum: up on a beat, down beside it; a rasgueado the same, out being down',
    weight: 6.5,
    source: COMMON,
    shape: linear,
  },
  pickSkip: {
    unit: 'strings',
    measures: 'plectrum: strings skipped between two strokes',
    weight: 7.6,
    source: COMMON,
    shape: linear,
  },
  pickSkipHaste: {
    unit: 'ms share',
    measures: 'plectrum: time that the stroke needs over the time it has',
    weight: 20,
    source: 'the hand’s profile',
    shape: urgency,
  },
  pickGap: {
    unit: 'strings',
    measures: 'plectrum: strings inside a chord that must not sound',
    weight: 30,
    source: COMMON,
    shape: linear,
  },
  printed: {
    unit: 'count',
    measures: 'departure from a letter that came with the file',
    weight: 40,
    source: COMMON,
    shape: linear,
  },
});

export type RightTermId = keyof typeof RIGHT_TERMS;
export const RIGHT_TERM_IDS = Object.keys(RIGHT_TERMS) as RightTermId[];

/** What the fingers spread by themselves, in strings. Source: handbook, "Crossing". */
export const OWN_SPREAD_STRINGS = 1;

/** Distance between strings at the soundhole. From memory: about 10.5 mm. */
export const STRING_GAP_AT_SOUNDHOLE_MM = 10.5;

/** The set's place when i is on 3, m on 2, a on 1: string number + rank. */
export const HOME_PLACE = 3;

/** A repeated block chord is no repeated finger: this share of it counts. Source: handbook, "Repeat". */
export const BLOCK_REPEAT_SHARE = 0.3;

/**
 * A rest stroke lands on the next lower-pitched string and plays it, p slides on to the next higher-pitched one: this
 * share of the repeat counts. Source: handbook, "Repeat".
 */
export const SLIDE_REPEAT_SHARE = 0.5;
export const THUMB_SLIDE_SHARE = 0.4;

export const REPEAT_FREE_MS = 400;
export const THUMB_REPEAT_FREE_MS = 220;

/** After a strum a finger finds its string in this time. From memory. */
export const FIND_AGAIN_MS = 260;

export const LONGEST_AWAY_MS = 440;

/** The left hand is busy when it leaps over so many frets. From memory. */
export const BUSY_LEAP_FRETS = 4;

/** After this the fingers, or the thumb, come from nowhere: they have had all the time they can use. From memory. */
export const LONGEST_FINGERS_MEMORY_MS = 1400;
export const LONGEST_THUMB_MEMORY_MS = 350;
/** And this long it is remembered which fingers played before the last ones. */
export const LONGEST_EARLIER_MEMORY_MS = 260;
