/** What costs the left hand: a row for each term. Its weight stands in weights.json, and nowhere else. */
import { linear, termsOf, urgency } from '../../rules/costTerm';
import weights from './weights.json' with { type: 'json' };

const COMMON = 'common practice';

/** By finger: 4 alone is a little weak, 3 less so. */
const FINGER_WEAKNESS = [0, 0, 0, 0.4, 1] as const;

/** An ornament wants a neighbour finger above: an open string has all four, 4 has none. */
const ORNAMENT_WEAKNESS = [0.3, 0, 0, 0.7, 2] as const;

/** More haste than this costs no more: a finger that is late is late. From memory. */
const MOST_HASTE = 1.5;

/** A shift that cannot be done costs so much at once, however little is lacking. From memory. */
const LATE = 0.1;

/** A barre costs most at fret 1 and least about V to VII. */
function barreByFret(fret: number): number {
  if (fret >= 5 && fret <= 7) return 1;
  return fret < 5 ? 1 + 0.4 * (5 - fret) : 1 + 0.08 * (fret - 7);
}

/** W of a shift: about half a fret in the middle of the neck either way. From memory. */
const AIMED_AT_MM = 25;

/** Share of a full barre's effort by the number of strings under it. */
export const BARRE_SIZE = [0, 0, 0.3, 0.45, 0.65, 0.85, 1] as const;

export const LEFT_TERMS = termsOf(
  {
    stretch: {
      unit: 'mm',
      measures: 'way from the reach at ease to the reach at most, for each pair of fingers',
      words: 'stretch',
      group: 'stretch',
      start: 320,
      fitted: true,
      source: COMMON,
      shape: (share) => 0.4 * share + 0.6 * share * share,
    },
    extension: {
      unit: 'count',
      measures: 'frets that neighbours among the fingers lie further apart than a fret for each finger',
      words: 'fingers spread',
      group: 'stretch',
      start: 10,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    contraction: {
      unit: 'count',
      measures: 'frets that neighbours among the fingers lie closer together than a fret for each finger',
      words: 'squeezed fingers',
      start: 9,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    order: {
      unit: 'count',
      measures:
        'pairs on one fret with the higher-numbered finger on the lower-pitched string; a finger beside a barre',
      words: 'fingers against their order',
      start: 40,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    grip: {
      unit: 'count',
      measures: 'fingers that stop struck notes: the fewer the easier',
      words: 'fingers at work',
      start: 3,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    finger: {
      unit: 'count',
      measures: 'weakness of a finger that stops struck notes',
      words: 'work for weaker fingers',
      start: 12,
      fitted: false,
      source: COMMON,
      shape: (finger) => FINGER_WEAKNESS[finger]!,
    },
    weakPair: {
      unit: 'ms share',
      measures:
        'fingers that hinder each other in turn: how much of a quarter second is lacking, times how much',
      words: 'dependent fingers in quick turn',
      start: 12,
      fitted: true,
      source: COMMON,
      shape: (lack) => Math.max(0, lack),
    },
    hop: {
      unit: 'count',
      measures: 'a finger that leaves one string for another',
      words: 'finger leaving its string',
      group: 'hop',
      start: 15,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    lineHop: {
      unit: 'count',
      measures: 'two notes of a line by one finger on different strings, without a rest between them',
      words: 'finger leaving its string inside a line',
      group: 'hop',
      start: 25,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    lineSlide: {
      unit: 'count',
      measures: 'two notes of a line by one finger from a fret to the next, where a neighbour could go',
      words: 'finger sliding inside a line',
      start: 20,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    hopHaste: {
      unit: 'ms share',
      measures: 'time that the hop needs over the time it has',
      words: 'hurried finger',
      group: 'hop',
      start: 40,
      fitted: true,
      source: 'Fitts 1954',
      shape: (share) => Math.min(MOST_HASTE, urgency(share)),
    },
    barre: {
      unit: 'fret',
      measures: 'laying a barre, by fret, times its size',
      words: 'barre to lay',
      group: 'barre',
      start: 60,
      fitted: true,
      source: COMMON,
      shape: barreByFret,
    },
    barreHold: {
      unit: 'count',
      measures: 'a moment with a barre lying, times its size',
      words: 'barre to hold',
      group: 'barre',
      start: 5,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    smallBarre: {
      unit: 'strings',
      measures: 'strings beyond the first that 2, 3 or 4 lies across',
      words: 'barre by another finger than 1',
      group: 'barre',
      start: 110,
      fitted: true,
      source: COMMON,
      shape: (strings) => strings ** 1.3,
    },
    archedBarre: {
      unit: 'count',
      measures: 'laying a barre over three strings or more that leaves a higher one free',
      words: 'arched barre',
      group: 'barre',
      start: 120,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    shift: {
      unit: 'count',
      measures: 'a change of position',
      words: 'shifting',
      group: 'shift',
      start: 10,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    squeeze: {
      unit: 'fret',
      measures:
        'a stopped note for which a finger lies off its fret of the position, the hand no wider for it',
      words: 'finger off its fret',
      start: 6,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    opening: {
      unit: 'fret',
      measures: 'a stopped note for which 4 lies above its fret of the position, or 1 below: the thumb stays',
      words: 'reaching out of the position',
      start: 12,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    shiftDistance: {
      unit: 'mm',
      measures:
        'way of the hand along the neck, as its difficulty in bits: twice as far is not twice as hard',
      words: 'way along the neck',
      group: 'shift',
      start: 4,
      fitted: false,
      source: 'Fitts 1954, in the form log2(1 + D / W)',
      shape: (mm) => Math.log2(1 + mm / AIMED_AT_MM),
    },
    shiftHaste: {
      unit: 'ms share',
      measures: 'time that the shift needs over the time it has, from free to tight',
      words: 'hurried shift',
      group: 'shift',
      start: 60,
      fitted: true,
      source: 'Fitts 1954',
      shape: (share) => Math.min(1, urgency(share)),
    },
    shiftTooFast: {
      unit: 'ms share',
      measures: 'time that the shift needs beyond the time it has: a little can be stolen, much cannot',
      words: 'shift that cannot be done in time',
      group: 'shift',
      start: 100,
      fitted: false,
      source: 'Fitts 1954',
      shape: (share) => (share <= 1 ? 0 : LATE + (Math.min(3, share) - 1) ** 1.5),
    },
    jump: {
      unit: 'count',
      measures: 'a shift that no finger, open string or rest carries',
      words: 'shift that nothing carries',
      group: 'shift',
      start: 0,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    squeak: {
      unit: 'count',
      measures: 'a guide on a wound string',
      words: 'slide on a wound string',
      start: 4,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    handOver: {
      unit: 'count',
      measures: 'a held note that one finger hands to another',
      words: 'held note handed to another finger',
      start: 150,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    cutMelody: {
      unit: 'quarters',
      measures: 'written melody that does not sound',
      words: 'melody cut short',
      group: 'cut',
      start: 900,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    cutBass: {
      unit: 'quarters',
      measures: 'written bass that does not sound',
      words: 'bass cut short',
      group: 'cut',
      start: 500,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    cutInner: {
      unit: 'quarters',
      measures: 'written inner part that does not sound',
      words: 'inner part cut short',
      group: 'cut',
      start: 200,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    position: {
      unit: 'fret',
      measures: 'frets that the hand comes up the neck, once for a stay; dearer above XII',
      words: 'high position',
      start: 3,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    highNote: {
      unit: 'fret',
      measures: 'fret of a stopped note above the first, whichever finger stops it; not in a slow melody',
      words: 'high notes',
      start: 0.5,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    wound: {
      unit: 'fret',
      measures: 'a struck note on a wound string above fret 7',
      words: 'high wound string',
      start: 5,
      fitted: true,
      source: COMMON,
      shape: (fret) => Math.max(0, fret - 7),
    },
    openMelody: {
      unit: 'count',
      measures: 'an open string in the melody: more in slow lines, and the more the higher the position',
      words: 'open string in the melody',
      start: 3,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    openSlow: {
      unit: 'count',
      measures: 'an open string in a slow melody: it cannot be sung',
      words: 'open string in a slow melody',
      start: 6,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    crossedVoices: {
      unit: 'count',
      measures:
        'two notes of a voice that lie at once, the higher one on the lower-pitched string; no drones',
      words: 'higher note on a lower string',
      start: 25,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    droneStopped: {
      unit: 'count',
      measures: 'a pitch that comes again and again, stopped though there is an open string of it',
      words: 'drone that is not open',
      start: 12,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    figureString: {
      unit: 'count',
      measures: 'a figure whose neighbours lie on one string: the second ends the first',
      words: 'figure that stays on a string',
      start: 25,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    crossedLine: {
      unit: 'count',
      measures: 'a line that rises to a lower-pitched string or falls to a higher-pitched one',
      words: 'line against the strings',
      start: 25,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    stringSkip: {
      unit: 'strings',
      measures: 'strings skipped by a step of the melody',
      words: 'skipped string in the line',
      start: 12,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    cutMustRing: {
      unit: 'count',
      measures: 'a note let go that the teacher wants to ring',
      words: 'note that must ring cut short',
      group: 'cut',
      start: 3000,
      fitted: false,
      source: 'the teacher’s word',
      shape: linear,
    },
    cutRing: {
      unit: 'quarters',
      measures: 'a broken chord whose note does not ring on',
      words: 'broken chord cut short',
      group: 'cut',
      start: 120,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    regrip: {
      unit: 'count',
      measures: 'a note of a grip that is let go before its harmony ends, or not taken with the others',
      words: 'grip taken anew',
      group: 'cut',
      start: 15,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    fingerChanged: {
      unit: 'count',
      measures: 'a pitch struck again at its place by another finger; more where that is hurried',
      words: 'same pitch by another finger',
      start: 10,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    placeChanged: {
      unit: 'count',
      measures: 'a pitch struck again while it sounds, or as it ends, at another place',
      words: 'same pitch at another place',
      start: 160,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    slurBroken: {
      unit: 'count',
      measures: 'a written slur that cannot be played on one string',
      words: 'slur that cannot be played',
      start: 150,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    slideBroken: {
      unit: 'count',
      measures: 'a written slide that one finger does not play along one string',
      words: 'slide that no finger can play',
      start: 300,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    ornament: {
      unit: 'finger',
      measures: 'the finger under an ornament: 1 and 2 leave strong neighbours for it',
      words: 'weak fingers for the ornament',
      start: 20,
      fitted: true,
      source: COMMON,
      shape: (finger) => ORNAMENT_WEAKNESS[finger]!,
    },
    stringChange: {
      unit: 'count',
      measures: 'a melody that leaves its string',
      words: 'line leaving its string',
      start: 0,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    slowStringChange: {
      unit: 'count',
      measures: 'a slow melody that leaves its string for a neighbouring pitch',
      words: 'slow melody leaving its string',
      start: 12,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    ringOver: {
      unit: 'count',
      measures: 'a note of the melody on the string of the one before, which ends it',
      words: 'note that ends the one before',
      start: 0,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
    slurWeak: {
      unit: 'count',
      measures: 'a slur by 3-4 or 2-4',
      words: 'slur by weak fingers',
      start: 15,
      fitted: true,
      source: COMMON,
      shape: linear,
    },
    printed: {
      unit: 'count',
      measures: 'departure from a mark that came with the file',
      words: 'departure from the printed fingering',
      start: 60,
      fitted: false,
      source: COMMON,
      shape: linear,
    },
  },
  weights,
);

export type LeftTermId = keyof typeof LEFT_TERMS;
export const LEFT_TERM_IDS = Object.keys(LEFT_TERMS) as LeftTermId[];

/** What part of a shift is felt when something carries the hand. Source: common practice. */
export const CARRIER_SHARE = { none: 1, open: 0.6, guide: 0.5, shape: 0.3, pivot: 0.6 } as const;

/** How much an open string stands out in a line. Source: handbook 13, "Colour". */
export const OPEN_IN = { figure: 0, quick: 0, plain: 0.3, slow: 0 } as const;

/** The index finger opens backwards more easily than the others spread: this part of it counts. From memory. */
export const INDEX_OPENS = 0.6;

/** On one fret a finger can flatten or roll over to the next string: this part of a hop is left. From memory. */
export const FLATTENED_HOP = 0.4;

/** Finger 1 lays a small barre over both: this part is left. From memory. */
export const BARRED_HOP = 0.1;

/** Fingers that cross on one fret, one after the other and not at once: this part of it is left. From memory. */
export const CROSSED_IN_LINE = 0.4;

/** Fingers in turn hinder each other when they follow each other faster than this. From memory. */
export const WEAK_PAIR_MS = 250;

/** Another finger on a note that comes again at once is so many times dearer still. From memory. */
export const CHANGED_IN_HURRY = 3;

/** Share of the last note before a movement that its finger may give away. From memory. */
export const RELEASE_SHARE = 0.6;

/** Of a long note the finger may leave for the last part of it. From memory. */
export const LAST_SHARE = 0.25;

/** A finger that goes by itself is quicker than the hand on its arm: it needs this part of the time. From memory. */
export const FINGER_TIME = 0.8;

/** A shift over open strings has all the time that it can use after this. */
export const LONGEST_WINDOW_MS = 1500;

/** What is left of laying a barre when finger 1 already stands on its fret, or a smaller barre lies there. */
export const BARRE_PREPARED_SHARE = { finger: 0.6, smallerBarre: 0.4 } as const;

/** What is left of a cut where another voice strikes the same pitch: the sound goes on, the voice does not. From memory. */
export const RESTRUCK_SHARE = 0.15;

/** The share of a cut that counts at once; the rest grows with the lost share of the written value. */
export const CUT_AT_ONCE = 0.3;
