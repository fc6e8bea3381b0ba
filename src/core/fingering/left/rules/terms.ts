/** What costs the left hand. No weight stands anywhere else. */
import { checkedTerms, linear, urgency } from '../../rules/costTerm';

const COMMON = 'common practice';

/** By finger: 4 alone is a little weak, 3 less so. */
const FINGER_WEAKNESS = [0, 0, 0, 0.4, 1] as const;

/** An ornament wants a neighbour finger above: an open string has all four, 4 has none. */
const ORNAMENT_WEAKNESS = [0.3, 0, 0, 0.7, 2] as const;

/** A barre costs most at fret 1 and least about V to VII. */
function barreByFret(fret: number): number {
  if (fret >= 5 && fret <= 7) return 1;
  return fret < 5 ? 1 + 0.4 * (5 - fret) : 1 + 0.08 * (fret - 7);
}

/** W of a shift: about half a fret in the middle of the neck either way. From memory. */
const AIMED_AT_MM = 25;

/** Share of a full barre's effort by the number of strings under it. */
export const BARRE_SIZE = [0, 0, 0.3, 0.45, 0.65, 0.85, 1] as const;

export const LEFT_TERMS = checkedTerms({
  stretch: {
    unit: 'mm',
    measures: 'way from the reach at ease to the reach at most, for each pair of fingers',
    weight: 94,
    source: COMMON,
    shape: (share) => 0.4 * share + 0.6 * share * share,
  },
  extension: {
    unit: 'count',
    measures: 'frets that neighbours among the fingers lie further apart than a fret for each finger',
    weight: 10,
    source: COMMON,
    shape: linear,
  },
  contraction: {
    unit: 'count',
    measures: 'frets that neighbours among the fingers lie closer together than a fret for each finger',
    weight: 12,
    source: COMMON,
    shape: linear,
  },
  order: {
    unit: 'count',
    measures:
      'pairs on one fret with the higher-numbered finger on the lower-pitched string; a finger beside a barre',
    weight: 48,
    source: COMMON,
    shape: linear,
  },
  grip: {
    unit: 'count',
    measures: 'fingers that stop struck notes: the fewer the easier',
    weight: 4.7,
    source: COMMON,
    shape: linear,
  },
  finger: {
    unit: 'count',
    measures: 'weakness of a finger that stops struck notes',
    weight: 12,
    source: COMMON,
    shape: (finger) => FINGER_WEAKNESS[finger]!,
  },
  weakPair: {
    unit: 'ms share',
    measures:
      'fingers that hinder each other in turn: how much of a quarter second is lacking, times how much',
    weight: 11,
    source: COMMON,
    shape: (lack) => Math.max(0, lack),
  },
  hop: {
    unit: 'count',
    measures: 'a finger that leaves one string for another',
    weight: 7.5,
    source: COMMON,
    shape: linear,
  },
  lineHop: {
    unit: 'count',
    measures: 'two notes of a line by one finger on different strings, without a rest between them',
    weight: 25,
    source: COMMON,
    shape: linear,
  },
  lineSlide: {
    unit: 'count',
    measures: 'two notes of a line by one finger from a fret to the next, where a neighbour could go',
    weight: 20,
    source: COMMON,
    shape: linear,
  },
  hopHaste: {
    unit: 'ms share',
    measures: 'time that the hop needs over the time it has',
    weight: 40,
    source: 'Fitts 1954',
    shape: urgency,
  },
  barre: {
    unit: 'fret',
    measures: 'laying a barre, by fret, times its size',
    weight: 42,
    source: COMMON,
    shape: barreByFret,
  },
  barreHold: {
    unit: 'count',
    measures: 'a moment with a barre lying, times its size',
    weight: 5,
    source: COMMON,
    shape: linear,
  },
  smallBarre: {
    unit: 'strings',
    measures: 'strings beyond the first that 2, 3 or 4 lies across',
    weight: 77,
    source: COMMON,
    shape: (strings) => strings ** 1.3,
  },
  archedBarre: {
    unit: 'count',
    measures: 'laying a barre over three strings or more that leaves a higher one free',
    weight: 85,
    source: COMMON,
    shape: linear,
  },
  shift: { unit: 'count', measures: 'a change of position', weight: 10, source: COMMON, shape: linear },
  squeeze: {
    unit: 'mm',
    measures: 'the hand opening or closing by a fret: an extension or contraction, the thumb stays',
    weight: 0.64,
    source: COMMON,
    shape: linear,
  },
  shiftDistance: {
    unit: 'mm',
    measures: 'way of the hand along the neck, as its difficulty in bits: twice as far is not twice as hard',
    weight: 4,
    source: 'Fitts 1954, in the form log2(1 + D / W)',
    shape: (mm) => Math.log2(1 + mm / AIMED_AT_MM),
  },
  shiftHaste: {
    unit: 'ms share',
    measures: 'time that the shift needs over the time it has, from free to tight',
    weight: 12,
    source: 'Fitts 1954',
    shape: (share) => Math.min(1, urgency(share)),
  },
  shiftTooFast: {
    unit: 'ms share',
    measures: 'time that the shift needs beyond the time it has: a little can be stolen, much cannot',
    weight: 100,
    source: 'Fitts 1954',
    shape: (share) => (Math.min(5, Math.max(1, share)) - 1) ** 1.5,
  },
  jump: {
    unit: 'count',
    measures: 'a shift that no finger, open string or rest carries',
    weight: 0,
    source: COMMON,
    shape: linear,
  },
  squeak: {
    unit: 'count',
    measures: 'a guide on a wound string',
    weight: 4,
    source: COMMON,
    shape: linear,
  },
  handOver: {
    unit: 'count',
    measures: 'a held note that one finger hands to another',
    weight: 150,
    source: COMMON,
    shape: linear,
  },
  cutMelody: {
    unit: 'quarters',
    measures: 'written melody that does not sound',
    weight: 900,
    source: COMMON,
    shape: linear,
  },
  cutBass: {
    unit: 'quarters',
    measures: 'written bass that does not sound',
    weight: 500,
    source: COMMON,
    shape: linear,
  },
  cutInner: {
    unit: 'quarters',
    measures: 'written inner part that does not sound',
    weight: 200,
    source: COMMON,
    shape: linear,
  },
  position: {
    unit: 'fret',
    measures:
      'position above the first, a stopped note at a time; dearer above XII, and with fingers wasted over the nut',
    weight: 3.9,
    source: COMMON,
    shape: (fret) => Math.max(0, fret - 1) + 12 * Math.max(0, fret - 12) + 2 * Math.max(0, 1 - fret),
  },
  wound: {
    unit: 'fret',
    measures: 'a struck note on a wound string above fret 7',
    weight: 6.4,
    source: COMMON,
    shape: (fret) => Math.max(0, fret - 7),
  },
  openMelody: {
    unit: 'fret',
    measures: 'an open string in the melody, by the position: the higher, the more it stands out',
    weight: 3,
    source: COMMON,
    shape: (position) => 1 + Math.max(0, position - 3),
  },
  crossedLine: {
    unit: 'count',
    measures: 'a line that rises to a lower-pitched string or falls to a higher-pitched one',
    weight: 23,
    source: COMMON,
    shape: linear,
  },
  stringSkip: {
    unit: 'strings',
    measures: 'strings skipped by a step of the melody',
    weight: 12,
    source: COMMON,
    shape: linear,
  },
  cutMustRing: {
    unit: 'count',
    measures: 'a note let go that the teacher wants to ring',
    weight: 3000,
    source: 'the teacher’s word',
    shape: linear,
  },
  cutRing: {
    unit: 'quarters',
    measures: 'a broken chord whose note does not ring on',
    weight: 120,
    source: COMMON,
    shape: linear,
  },
  fingerChanged: {
    unit: 'count',
    measures: 'a pitch struck again at its place by another finger; more where that is hurried',
    weight: 8.6,
    source: COMMON,
    shape: linear,
  },
  placeChanged: {
    unit: 'count',
    measures: 'a pitch struck again while it sounds, or as it ends, at another place',
    weight: 44,
    source: COMMON,
    shape: linear,
  },
  slurBroken: {
    unit: 'count',
    measures: 'a written slur that cannot be played on one string',
    weight: 150,
    source: COMMON,
    shape: linear,
  },
  slideBroken: {
    unit: 'count',
    measures: 'a written slide that one finger does not play along one string',
    weight: 300,
    source: COMMON,
    shape: linear,
  },
  ornament: {
    unit: 'finger',
    measures: 'the finger under an ornament: 1 and 2 leave strong neighbours for it',
    weight: 20,
    source: COMMON,
    shape: (finger) => ORNAMENT_WEAKNESS[finger]!,
  },
  stringChange: {
    unit: 'count',
    measures: 'a melody that leaves its string',
    weight: 0,
    source: COMMON,
    shape: linear,
  },
  ringOver: {
    unit: 'count',
    measures: 'a note of the melody on the string of the one before, which ends it',
    weight: 0,
    source: COMMON,
    shape: linear,
  },
  slurWeak: { unit: 'count', measures: 'a slur by 3-4 or 2-4', weight: 15, source: COMMON, shape: linear },
  printed: {
    unit: 'count',
    measures: 'departure from a mark that came with the file',
    weight: 60,
    source: COMMON,
    shape: linear,
  },
});

export type LeftTermId = keyof typeof LEFT_TERMS;
export const LEFT_TERM_IDS = Object.keys(LEFT_TERMS) as LeftTermId[];

/** What part of a shift's distance is felt when something carries the hand. Source: common practice. */
export const CARRIER_SHARE = { none: 1, open: 1, guide: 0.7, shape: 0.5, pivot: 0.8 } as const;

/** The index finger opens backwards more easily than the others spread: this part of it counts. From memory. */
export const INDEX_OPENS = 0.6;

/** Up to this way of the hand it is an extension or a contraction and no shift: the thumb stays. From memory. */
export const SQUEEZE_FRETS = 1;

/** On one fret a finger can flatten or roll over to the next string: this part of a hop is left. From memory. */
export const FLATTENED_HOP = 0.4;

/** Fingers that cross on one fret, one after the other and not at once: this part of it is left. From memory. */
export const CROSSED_IN_LINE = 0.4;

/** Fingers in turn hinder each other when they follow each other faster than this. From memory. */
export const WEAK_PAIR_MS = 250;

/** Another finger on a note that comes again at once is so many times dearer still. From memory. */
export const CHANGED_IN_HURRY = 3;

/** Share of the last note before a movement that its finger may give away. From memory. */
export const RELEASE_SHARE = 0.5;

/** A shift over open strings has all the time that it can use after this. */
export const LONGEST_WINDOW_MS = 1500;

/** What is left of laying a barre when finger 1 already stands on its fret, or a smaller barre lies there. */
export const BARRE_PREPARED_SHARE = { finger: 0.6, smallerBarre: 0.4 } as const;

/** The share of a cut that counts at once; the rest grows with the lost share of the written value. */
export const CUT_AT_ONCE = 0.3;
