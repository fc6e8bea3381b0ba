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
  repeat: {
    unit: 'ms share',
    measures: 'a finger twice in a row: how much of 400 ms is lacking between the strokes',
    weight: 80,
    source: COMMON,
    shape: (lack) => 0.08 + Math.max(0, lack),
  },
  thumbRepeat: {
    unit: 'ms share',
    measures: 'p twice in a row: how much of 220 ms is lacking between the strokes',
    weight: 40,
    source: COMMON,
    shape: (lack) => Math.max(0, lack),
  },
  home: {
    unit: 'strings',
    measures: 'distance of the set from i on 3, m on 2, a on 1',
    weight: 3,
    source: COMMON,
    shape: linear,
  },
  thumbString: {
    unit: 'count',
    measures: 'p on a treble string',
    weight: 8,
    source: COMMON,
    shape: (string) => THUMB_BY_STRING[string]!,
  },
  thumbLeap: {
    unit: 'strings',
    measures: 'leap of p over strings',
    weight: 2,
    source: COMMON,
    shape: (strings) => Math.max(0, strings - 1),
  },
  thumbLeapHaste: {
    unit: 'ms share',
    measures: 'time that the leap needs over the time it has',
    weight: 20,
    source: 'Fitts 1954',
    shape: urgency,
  },
  thumbMelody: {
    unit: 'count',
    measures: 'p on a note of the melody',
    weight: 12,
    source: COMMON,
    shape: linear,
  },
  fingerBass: {
    unit: 'count',
    measures: 'a finger on a note of the bass',
    weight: 30,
    source: COMMON,
    shape: linear,
  },
  ring: {
    unit: 'count',
    measures: 'a where a stronger finger could be',
    weight: 2,
    source: COMMON,
    shape: linear,
  },
  brush: {
    unit: 'strings',
    measures: 'p brushing over strings in one stroke',
    weight: 12,
    source: COMMON,
    shape: (gap) => (gap === 1 ? 1 : 2 * gap),
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

/** What the fingers spread by themselves, in strings. Source: handbook, "Crossing". */
export const OWN_SPREAD_STRINGS = 1;

/** Distance between strings at the soundhole. From memory: about 10.5 mm. */
export const STRING_GAP_AT_SOUNDHOLE_MM = 10.5;

/** The set's place when i is on 3, m on 2, a on 1: string number + rank. */
export const HOME_PLACE = 3;

/** A repeated block chord is no repeated finger: this share of it counts. Source: handbook, "Repeat". */
export const BLOCK_REPEAT_SHARE = 0.3;

export const REPEAT_FREE_MS = 400;
export const THUMB_REPEAT_FREE_MS = 220;

/** After this the fingers, or the thumb, come from nowhere: they have had all the time they can use. From memory. */
export const LONGEST_FINGERS_MEMORY_MS = 1200;
export const LONGEST_THUMB_MEMORY_MS = 600;
