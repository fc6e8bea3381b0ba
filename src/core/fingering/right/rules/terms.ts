/**
 * What costs the right hand: a row for each term, its weight in weights.json. Tastes are small beside what the left hand pays, so that
 * they choose letters and not strings; faults are large: for one of them a note may go to another string. Numbers set
 * by hand against handbook 13.
 */
import { linear, termsOf, urgency } from '../../rules/costTerm';
import weights from './weights.json' with { type: 'json' };

const COMMON = 'common practice';
const TEXTURES = 'handbook 13';

/** p among the fingers, above the strings that are its own: the size of two bad crossings, worse the higher. */
const THUMB_INNER_BY_STRING = [0, 90, 60, 25, 7, 0, 0] as const;
/** p with the bass: it goes where the bass goes. */
const THUMB_BASS_BY_STRING = [0, 12, 5, 1, 0, 0, 0] as const;
/** p in a figure of one voice that may be played by p i m as well. */
const THUMB_EITHER_BY_STRING = [0, 90, 60, 22, 0, 0, 0] as const;
/** A finger on the thumb's strings, as part of a chord; in a broken chord they are the thumb's as long as it is near. */
const FINGER_LOW_BY_STRING = [0, 0, 0, 0, 1, 5, 8] as const;
const BROKEN_LOW_BY_STRING = [0, 0, 0, 0, 1, 40, 50] as const;

export const RIGHT_TERMS = termsOf(
  {
    displacement: {
      unit: 'strings',
      measures: 'move of the set of fingers beyond what they spread by themselves',
      words: 'the hand moves',
      group: 'moves',
      start: 3,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    repeat: {
      unit: 'ms share',
      measures: 'a finger twice in a row with nothing between: how much of 250 ms is lacking',
      words: 'a finger twice in a row',
      group: 'again',
      start: 40,
      fitted: true,
      source: TEXTURES,
      shape: (lack) => Math.max(0, lack),
    },
    repeatInTune: {
      unit: 'count',
      measures: 'a finger twice in a row in a tune, however slow',
      words: 'a finger twice in a row in a tune',
      group: 'again',
      start: 5,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    offTurn: {
      unit: 'count',
      measures: 'fingers of a line that do not take turns',
      words: 'breaks the alternation',
      start: 40,
      fitted: true,
      source: TEXTURES,
      shape: linear,
    },
    turn: {
      unit: 'count',
      measures: 'a pair with a in a line: more than a bad crossing',
      words: 'a in a line',
      start: 12,
      fitted: true,
      source: TEXTURES,
      shape: linear,
    },
    restation: {
      unit: 'count',
      measures:
        'the fingers moved to other strings: in the middle of a figure a whole one, less while p plays',
      words: 'the fingers go to other strings',
      start: 24,
      fitted: true,
      source: TEXTURES,
      shape: linear,
    },
    visit: {
      unit: 'count',
      measures: 'another finger on a string that has its own, since the note comes again at once',
      words: 'a finger on the string of another',
      start: 3,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    modeChange: {
      unit: 'count',
      measures: 'another way to think: from stations to turns, from turns to a run of p',
      words: 'another way to play begins',
      start: 2,
      fitted: true,
      source: TEXTURES,
      shape: linear,
    },
    cycleOrder: {
      unit: 'count',
      measures: 'an order of a tremolo that is less usual than a m i',
      words: 'a less usual order of the tremolo',
      start: 2,
      fitted: false,
      source: 'from memory',
      shape: linear,
    },
    cycleChange: {
      unit: 'count',
      measures: 'another order in the middle of a tremolo',
      words: 'the tremolo changes its order',
      start: 40,
      fitted: true,
      source: TEXTURES,
      shape: linear,
    },
    thumbRun: {
      unit: 'count',
      measures: 'p takes over a line, or gives it back',
      words: 'p takes over the line',
      start: 15,
      fitted: true,
      source: TEXTURES,
      shape: linear,
    },
    thumbHaste: {
      unit: 'ms share',
      measures: 'p again on its way through a line: how much of 220 ms is lacking',
      words: 'p again and again, too fast',
      group: 'again',
      start: 60,
      fitted: true,
      source: TEXTURES,
      shape: (lack) => Math.max(0, lack),
    },
    thumbInner: {
      unit: 'count',
      measures: 'p on a note that belongs to the fingers, by string',
      words: 'p on a note of the fingers',
      start: 1,
      fitted: true,
      source: TEXTURES,
      shape: (string) => THUMB_INNER_BY_STRING[string]!,
    },
    thumbEither: {
      unit: 'count',
      measures: 'p in a figure of one voice, by string',
      words: 'p above its strings',
      start: 1,
      fitted: true,
      source: TEXTURES,
      shape: (string) => THUMB_EITHER_BY_STRING[string]!,
    },
    thumbBass: {
      unit: 'count',
      measures: 'p with the bass on a treble string',
      words: 'p on a treble string',
      start: 1,
      fitted: true,
      source: TEXTURES,
      shape: (string) => THUMB_BASS_BY_STRING[string]!,
    },
    thumbAbove: {
      unit: 'count',
      measures: 'p on a higher-pitched string than a finger that has its place below',
      words: 'p reaches over a finger',
      start: 20,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    doubleThumb: {
      unit: 'count',
      measures: 'p twice in a row in a figure: a finger was free',
      words: 'p twice in a row while a finger is free',
      start: 15,
      fitted: true,
      source: TEXTURES,
      shape: linear,
    },
    thumbAgain: {
      unit: 'ms share',
      measures: 'p of a bass again, not by a slide: how much of 220 ms is lacking',
      words: 'p again at once',
      start: 10,
      fitted: true,
      source: COMMON,
      shape: (lack) => Math.max(0, lack),
    },
    fingerBass: {
      unit: 'count',
      measures: 'a finger on a note of the bass',
      words: 'a finger on the bass',
      start: 36,
      fitted: true,
      source: TEXTURES,
      shape: linear,
    },
    fingerLow: {
      unit: 'count',
      measures: 'a finger on a bass string',
      words: 'a finger on a bass string',
      start: 1,
      fitted: true,
      source: COMMON,
      shape: (string) => FINGER_LOW_BY_STRING[string]!,
    },
    brokenLow: {
      unit: 'count',
      measures: 'a finger on a bass string in a broken chord',
      words: 'a finger on a string of the thumb',
      start: 1,
      fitted: true,
      source: TEXTURES,
      shape: (string) => BROKEN_LOW_BY_STRING[string]!,
    },
    slowLow: {
      unit: 'ms share',
      measures: 'a finger on a bass string in a slow line: how far from 220 to 440 ms',
      words: 'a slow bass string belongs to p',
      start: 1,
      fitted: true,
      source: TEXTURES,
      shape: (value) => Math.max(0, value),
    },
    ring: {
      unit: 'count',
      measures: 'a where a stronger finger could be',
      words: 'a: a stronger finger is free',
      start: 2,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    little: {
      unit: 'count',
      measures: 'c, the weakest of the fingers',
      words: 'c is the weakest finger',
      start: 8,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    home: {
      unit: 'strings',
      measures: 'distance of the set from i on 3, m on 2, a on 1',
      words: 'the hand away from its place',
      start: 1,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    spread: {
      unit: 'strings',
      measures: 'neighbouring fingers that lie further apart or closer than a string for each finger',
      words: 'fingers spread or crowded',
      start: 2,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    brush: {
      unit: 'strings',
      measures: 'p brushing over strings in one stroke; a string between would sound with them',
      words: 'p brushes strings',
      start: 4,
      fitted: false,
      source: COMMON,
      shape: (gap) => (gap === 1 ? 1 : 20 * gap),
    },
    twoThumbs: {
      unit: 'count',
      measures: 'two strings for p in a chord of up to four notes: filtered unless marked or inked',
      words: 'p on two strings of a small chord',
      start: 300,
      fitted: false,
      source: TEXTURES,
      shape: linear,
    },
    findAgain: {
      unit: 'ms share',
      measures: 'time that the fingers need to find their strings after a strum over the time they have',
      words: 'the fingers must find their strings after a strum',
      start: 15,
      fitted: false,
      source: COMMON,
      shape: urgency,
    },
    station: {
      unit: 'strings',
      measures: 'a finger away from its own string',
      words: 'a finger away from its own string',
      start: 0,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    offPair: {
      unit: 'count',
      measures: 'a finger that is not of the pair that alternates',
      words: 'not of the pair that alternates',
      start: 0,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    wanted: {
      unit: 'count',
      measures: 'departure from the chosen order of a tremolo, or from the chosen starting finger',
      words: 'not the finger that was chosen',
      start: 400,
      fitted: false,
      source: 'the teacher’s word',
      shape: linear,
    },
    sweep: {
      unit: 'count',
      measures: 'plectrum: a sweep on to the neighbour string',
      words: 'a sweep where strokes alternate',
      start: 0,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    sweepBack: {
      unit: 'count',
      measures: 'plectrum: two strokes in one direction that are no sweep to the neighbour string',
      words: 'two strokes one way that are no sweep',
      start: 20,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    pickOffBeat: {
      unit: 'count',
      measures: 'plectrum: up on a beat, down beside it; a rasgueado the same, out being down',
      words: 'back up on a beat, or down beside it',
      start: 6.5,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    pickSkip: {
      unit: 'strings',
      measures: 'plectrum: strings skipped between two strokes',
      words: 'the plectrum skips strings',
      start: 7.6,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    pickSkipHaste: {
      unit: 'ms share',
      measures: 'plectrum: time that the stroke needs over the time it has',
      words: 'the plectrum in haste',
      start: 20,
      fitted: false,
      source: 'the hand’s profile',
      shape: urgency,
    },
    pickGap: {
      unit: 'strings',
      measures: 'plectrum: strings inside a chord that must not sound',
      words: 'strings inside the sweep must not sound',
      start: 30,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    printed: {
      unit: 'count',
      measures: 'departure from a letter that came with the file',
      words: 'departs from the printed letter',
      start: 40,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
  },
  weights,
);

export type RightTermId = keyof typeof RIGHT_TERMS;
export const RIGHT_TERM_IDS = Object.keys(RIGHT_TERMS) as RightTermId[];

/** What the fingers spread by themselves, in strings. Source: handbook, "Crossing". */
export const OWN_SPREAD_STRINGS = 1;

/** Distance between strings at the soundhole. From memory: about 10.5 mm. */
export const STRING_GAP_AT_SOUNDHOLE_MM = 10.5;

/** The set's place when i is on 3, m on 2, a on 1: string number + rank. */
export const HOME_PLACE = 3;

/** Where a finger may play again with nothing between, and p likewise. Source: handbook 13. */
export const REPEAT_FREE_MS = 250;
export const BLOCK_FREE_MS = 180;
export const THUMB_FREE_MS = 220;

/** Below this a line alternates strictly; a pause of so many ms lets it begin anew. Source: handbook 13; from memory. */
export const STRICT_MS = 350;
export const PAUSE_MS = 600;

/** After a strum a finger finds its string in this time. From memory. */
export const FIND_AGAIN_MS = 260;
/** A roll leaves them at their strings: they have less to find. From memory. */
export const AFTER_ROLL_SHARE = 0.4;

/**
 * Times between strokes in steps: quick ones to 10 ms, slow ones as the classes in which they count, so that few are
 * told apart.
 */
export function steppedGapMs(ms: number): number {
  if (ms < QUICK_MS) return GAP_STEP_MS * Math.round(ms / GAP_STEP_MS);
  return ms < STRICT_MS
    ? (QUICK_MS + STRICT_MS) / 2
    : ms < PAUSE_MS
      ? (STRICT_MS + PAUSE_MS) / 2
      : LONG_GAP_MS;
}
const QUICK_MS = 260;
const GAP_STEP_MS = 10;
export const LONG_GAP_MS = 700;

/** The pace of a line, from where p is too slow for it to where it is all the thumb's; see `slowLow`. */
export function steppedPaceMs(ms: number): number {
  return Math.max(THUMB_FREE_MS, Math.min(2 * THUMB_FREE_MS, PACE_STEP_MS * Math.floor(ms / PACE_STEP_MS)));
}
const PACE_STEP_MS = 10;
