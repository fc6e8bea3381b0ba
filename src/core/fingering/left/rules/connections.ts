/** How a note is joined to the one that leads to it: slurs, slides, the melody's way over the strings. */
import { type Manner, STEP_SEMITONES } from '../../problem/strike';
import { chargeAgain, chargeRestruck } from './cuts';
import type { Bill } from './ledger';
import { FINGER_OF, NO_PLACE, type Placement, PLACEMENTS, STRING_OF } from './place';
import type { WayRule } from './rule';
import type { Link } from './step';
import {
  BARRED_HOP,
  CROSSED_IN_LINE,
  EXCHANGED,
  FLATTENED_HOP,
  HOP_UNDER_FIGURE,
  MOVED_SHAPE,
  SLID_IN_HURRY,
  UNUSUAL_FORM,
  WIDE_FORM,
} from './shares';

/** One note after another, by where the two lie. */
export const linkRule = (link: Link): WayRule => ({
  id: idOf(link),
  from: { code: (hand) => hand.placeOn(link.fromColumn) + 1, ms: () => 0 },
  to: { code: (hand) => hand.placeOfStruck(link.to) + 1 },
  charge: (from, to, _ms, bill) => {
    if (from > 0 && to > 0) chargeLink(link, PLACEMENTS[from - 1]!, PLACEMENTS[to - 1]!, bill);
  },
});

/** What a link costs depends on besides its places. */
const idOf = ({ kind, semitones, manner, slid, hurry, inChords }: Link) =>
  kind === 'again' || kind === 'restruck'
    ? `${kind} ${hurry}${inChords ? ' chords' : ''}`
    : `${kind} ${manner} ${slid ? '~' : ''} ${semitones}`;

function chargeLink(link: Link, a: Placement, b: Placement, bill: Bill): void {
  const { kind, semitones, manner } = link;
  if (kind === 'again') chargeAgain(a, b, link, bill);
  else if (kind === 'restruck') chargeRestruck(a, b, link, bill);
  else if (kind === 'slur') chargeSlur(a, b, bill);
  else if (kind === 'parallel') chargeParallel(a, b, 1, bill);
  else if (kind === 'moved') chargeParallel(a, b, MOVED_SHAPE, bill);
  else if (kind === 'slide')
    bill.charge('slideBroken', a.string === b.string && a.finger === b.finger ? 0 : 1);
  else chargeLineFinger(a, b, link, bill);
  if (kind === 'line') chargeLine(a, b, semitones, manner, bill);
}

/** They keep their strings, and as many fingers as can be. Source: handbook 13, "parallels". @param felt how much a string left counts */
function chargeParallel(a: Placement, b: Placement, felt: number, bill: Bill): void {
  if (a.string !== b.string) bill.charge('parallelString', felt);
  else if (a.finger > 0 && b.finger > 0 && a.finger !== b.finger) bill.charge('parallelFinger', EXCHANGED);
}

/** String and finger of a place, 0 for an open one and for none. */
const SPOTS = 25;
const spotCode = (place: number) =>
  place === NO_PLACE || FINGER_OF[place] === 0 ? 0 : (STRING_OF[place]! - 1) * 4 + FINGER_OF[place]!;

/**
 * Of notes that move along with each other one keeps its finger on its string, as the guide; others may be exchanged.
 * Source: handbook 13, "parallels".
 */
export const guideRule = (along: readonly Link[]): WayRule => ({
  id: `guide ${along.length}`,
  from: { code: (hand) => spotsCode(along.map((one) => hand.placeOn(one.fromColumn))), ms: () => 0 },
  to: { code: (hand) => spotsCode(along.map((one) => hand.placeOfStruck(one.to))) },
  charge: (from, to, _ms, bill) => {
    const [before, after] = [spotsIn(from, along.length), spotsIn(to, along.length)];
    // Over an open string the hand is free to come anew.
    if ([...before, ...after].includes(0)) return;
    if (before.every((spot, k) => spot !== after[k])) bill.charge('parallelFinger', 1);
  },
});

/**
 * Thirds of a row lie on neighbouring strings; what is wider leaves strings between, or each of its notes asks for a
 * stretch. Two notes that move along have the fingers of their form: 1 lies on the lower fret, so that it leads the
 * hand. Common practice.
 */
export const formRule = (low: Link, high: Link): WayRule => ({
  id: 'form',
  from: { code: () => 0, ms: () => 0 },
  to: { code: (hand) => formOf(hand.placeOfStruck(low.to), hand.placeOfStruck(high.to)) },
  charge: (_from, to, _ms, bill) => {
    if (to & WIDE) bill.charge('parallelString', WIDE_FORM);
    if (to & UNUSUAL) bill.charge('parallelFinger', UNUSUAL_FORM);
  },
});

const WIDE = 1;
const UNUSUAL = 2;

function formOf(low: number, high: number): number {
  if (low === NO_PLACE || high === NO_PLACE || FINGER_OF[low] === 0 || FINGER_OF[high] === 0) return 0;
  const [a, b] = [PLACEMENTS[low]!, PLACEMENTS[high]!];
  return (isWideForm(a, b) ? WIDE : 0) | (isUnusual(a, b) ? UNUSUAL : 0);
}

/** Fingers of the lower and the higher note, by how many strings and frets lie between: thirds and sixths. */
const FORM_FINGERS: Readonly<Record<string, readonly [number, number]>> = {
  '1 1': [2, 1],
  '1 2': [3, 1],
  '2 0': [2, 3],
  '2 1': [2, 1],
};

function isUnusual(low: Placement, high: Placement): boolean {
  const usual = FORM_FINGERS[`${low.string - high.string} ${low.fret - high.fret}`];
  return usual !== undefined && (low.finger !== usual[0] || high.finger !== usual[1]);
}

const WIDE_FRETS = 3;

const isWideForm = (low: Placement, high: Placement): boolean =>
  Math.abs(low.string - high.string) === 1 && Math.abs(low.fret - high.fret) >= WIDE_FRETS;

const spotsCode = (places: readonly number[]): number =>
  places.reduce((code, place) => code * SPOTS + spotCode(place), 0);

const spotsIn = (code: number, count: number): readonly number[] =>
  Array.from({ length: count }, (_, k) => Math.floor(code / SPOTS ** k) % SPOTS);

export function chargeSlur(a: Placement, b: Placement, bill: Bill): void {
  if (!slurPlayable(a, b)) bill.charge('slurBroken', 1);
  else if (weakSlur(a, b)) bill.charge('slurWeak', 1);
}

/** Hammer-on from open or a lower finger, pull-off to open or a lower finger, on one string. */
export function slurPlayable(a: Placement, b: Placement): boolean {
  if (a.string !== b.string || a.fret === b.fret) return false;
  return b.fret > a.fret ? b.finger > a.finger : b.finger < a.finger;
}

/** 3-4 and 2-4, up or down. */
export const weakSlur = (a: Placement, b: Placement) =>
  Math.max(a.finger, b.finger) === 4 && Math.min(a.finger, b.finger) >= 2;

/** To the next fret of its string a neighbour could go; in a quick run a longer slide is heard, too. */
function slideShare(frets: number, manner: Manner): number {
  if (manner === 'quick') return frets === 1 ? SLID_IN_HURRY : Math.min(1, frets);
  return frets === 1 ? 1 : 0;
}

/**
 * One finger for two notes of a line: on another string it must leave the first; along its own it slides, unless that is
 * written (`slid`). Further along it carries the hand, which is priced as a shift.
 * Source: handbook, "What costs" (hop: prefer a neighbour finger).
 */
export function chargeLineFinger(
  a: Placement,
  b: Placement,
  { kind, slid, manner }: Pick<Link, 'kind' | 'slid' | 'manner'>,
  bill: Bill,
): void {
  if (a.finger === 0 || b.finger === 0) return;
  if (a.finger !== b.finger) {
    if (crossOnOneFret(a, b) || crossOnOneString(a, b)) bill.charge('order', CROSSED_IN_LINE);
  } else if (a.string !== b.string)
    bill.charge(
      'lineHop',
      hopShare(a, b) * (kind === 'bassLine' && manner === 'figure' ? HOP_UNDER_FIGURE : 1),
    );
  else if (!slid) bill.charge('lineSlide', slideShare(Math.abs(a.fret - b.fret), manner));
}

const hopShare = (a: Placement, b: Placement) =>
  a.fret !== b.fret ? 1 : a.finger === 1 ? BARRED_HOP : FLATTENED_HOP;

/** The lower-numbered finger belongs on the lower-pitched string. Source: handbook, "What costs" (order). */
const crossOnOneFret = (a: Placement, b: Placement) =>
  a.fret === b.fret && a.string !== b.string && a.finger < b.finger !== a.string > b.string;

/**
 * Drawn in at the nut a lower finger could stop the higher fret: one over the other, as where 4 stops the second fret
 * and 3 the third. Higher up the hand moves for it. Common practice.
 */
function crossOnOneString(a: Placement, b: Placement): boolean {
  const up = b.fret > a.fret;
  if (a.string !== b.string || a.fret === b.fret || b.finger > a.finger === up) return false;
  return Math.abs(indexFret(a) - indexFret(b)) <= 1;
}

/** Where the index finger lies when the other has one fret to each finger down to it. */
const indexFret = ({ fret, finger }: Placement) => Math.max(1, fret - finger + 1);

/** How the melody goes from string to string. Source: handbook, "What costs" (colour) and "Looking ahead". */
export function chargeLine(a: Placement, b: Placement, semitones: number, manner: Manner, bill: Bill): void {
  if (a.string === b.string) {
    if (semitones === 0) return;
    bill.charge('ringOver', 1);
    if (manner === 'figure') bill.charge('figureString', 1);
    return;
  }
  const isStep = Math.abs(semitones) <= STEP_SEMITONES;
  bill.charge('stringChange', 1);
  if (manner === 'slow' && isStep) bill.charge('slowStringChange', 1);
  if (manner === 'figure' || manner === 'drone') return;
  if (semitones > 0 === b.string > a.string) bill.charge('crossedLine', 1);
  const skipped = Math.abs(b.string - a.string) - 1;
  if (isStep) bill.charge('stringSkip', skipped);
}
