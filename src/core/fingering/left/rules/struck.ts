/** What it costs to stop or leave open the notes that are struck at a moment. */
import { openMidi, STRINGS } from '../../../instrument/tuning';
import type { Manner, Strike } from '../../problem/strike';
import { anchorLow, ANCHORS } from './anchor';
import type { Fresh } from './fresh';
import type { Hand } from './hand';
import { rangeAt } from './range';
import { fretOfStand, NO_STAND } from './stand';
import type { Bill } from './ledger';
import { FINGER_OF, isWound, NO_PLACE, type Placement, PLACEMENTS } from './place';

import type { OwnRule } from './rule';
import type { StruckNote } from './step';
import { OPEN_IN, regripShare, SQUEEZED_IN_FIGURE } from './shares';

/** The k-th note that is struck. */
export const struckRule = (note: StruckNote, k: number, fresh: Pick<Fresh, 'lies'>): OwnRule => ({
  id: `struck ${note.role === 'melody'} ${note.manner} ${note.printed.finger} ${note.printed.string} ${note.ornamented}`,
  code: (hand) => {
    const place = hand.placeOfStruck(k);
    if (place === NO_PLACE) return 0;
    return 2 * ((place + 1) * ANCHORS + hand.anchor) + Number(fresh.lies(hand, k));
  },
  charge: (code, bill) => {
    if (code === 0) return;
    const lies = code % 2 === 1;
    const [place, anchor] = placeIn(Math.floor(code / 2));
    chargeMarks(note, place, bill);
    if (!lies) chargeStruck(note, place, anchorLow(anchor), bill);
  },
});

const placeIn = (code: number): readonly [Placement, number] => [
  PLACEMENTS[Math.floor(code / ANCHORS) - 1]!,
  code % ANCHORS,
];

const LIES_NOT: Pick<Fresh, 'lies'> = { lies: () => false };

/** From above this position on an open string stands out more and more. */
const OPEN_POSITION = 3;

/** @param position where the hand stays */
export function chargeStruck(
  { role, manner }: Pick<Strike, 'role' | 'manner'>,
  place: Placement,
  position: number,
  bill: Bill,
): void {
  if (place.finger === 0) {
    if (role === 'melody') chargeOpen(manner, position, bill);
    return;
  }
  if (manner !== 'slow' && manner !== 'quick') bill.charge('highNote', place.fret - 1);
  if (manner === 'drone' && isAlsoOpen(place, bill)) bill.charge('droneStopped', 1);
  if (isWound(place.string)) bill.charge('wound', place.fret);
}

function isAlsoOpen({ string, fret }: Placement, { setting: { tuning } }: Bill): boolean {
  const midi = openMidi(tuning, string) + fret;
  return STRINGS.some((other) => openMidi(tuning, other) === midi);
}

function chargeOpen(manner: Manner, position: number, bill: Bill): void {
  if (manner === 'figure' || manner === 'drone') return;
  bill.charge('openMelody', OPEN_IN[manner] + Math.max(0, position - OPEN_POSITION));
  if (manner === 'slow') bill.charge('openSlow', 1);
}

/** What is printed at a note or asked of its finger holds for it whenever it is struck. */
function chargeMarks({ printed, ornamented }: StruckNote, place: Placement, bill: Bill): void {
  const departures =
    (printed.finger !== null && printed.finger !== place.finger ? 1 : 0) +
    (printed.string !== null && printed.string !== place.string ? 1 : 0);
  bill.charge('printed', departures);
  if (ornamented) bill.charge('ornament', place.finger);
}

/**
 * The k-th note that is placed here, which is struck later: it had better lie with the rest of its grip, of which so
 * many are laid.
 */
export const laidRule = (note: StruckNote, k: number, laid: number): OwnRule => ({
  ...struckRule(note, k, LIES_NOT),
  id: `laid ${laid} ${note.role === 'melody'} ${note.manner} ${note.unhurried} ${note.inMove}`,
  charge: (code, bill) => {
    if (code === 0) bill.charge('regrip', regripShare(note) / Math.sqrt(laid));
    else {
      const [place, anchor] = placeIn(code / 2);
      chargeStruck(note, place, anchorLow(anchor), bill);
    }
  },
});

/** The fingers that stop struck notes. */
export const stoppingRule = (fresh: Fresh): OwnRule => ({
  id: 'stopping',
  code: (hand) => stoppingFingers(hand, fresh.of(hand)),
  charge: (code, bill) => chargeFingers(code, bill),
});

/** @param fresh numbers of the notes that are placed */
function stoppingFingers(hand: Hand, fresh: readonly number[]): number {
  let fingers = 0;
  for (const k of fresh) {
    const place = hand.placeOfStruck(k);
    if (place !== NO_PLACE) fingers |= 1 << FINGER_OF[place]!;
  }
  return fingers;
}

/** A bit for each finger, 0 for open strings: one that bars counts once. */
export function chargeFingers(fingers: number, bill: Bill): void {
  for (let finger = 1; finger <= 4; finger++) {
    if ((fingers & (1 << finger)) === 0) continue;
    bill.charge('grip', 1);
    bill.charge('finger', finger);
  }
}

/** A hand that stops struck notes out of its position. */
export const reachingRule = (fresh: Fresh, inFigure: boolean): OwnRule => ({
  id: inFigure ? 'reaching in a figure' : 'reaching',
  code: (hand) => {
    if (stoppingFingers(hand, fresh.of(hand)) < 2) return 0;
    return isAlone(hand) ? drawnIn(hand) * 8 + opened(hand) : 8 * PARTS * overNut(hand);
  },
  charge: (code, bill) => {
    bill.charge('squeeze', ((inFigure ? SQUEEZED_IN_FIGURE : 1) * Math.floor(code / 8)) / PARTS);
    bill.charge('opening', code % 8);
  },
});

/** One finger is down: how several lie to each other is the business of their shape. */
const isAlone = ({ down }: Hand): boolean => (down & (down - 1)) === 0;

/** Frets by which all of a shape lies over the nut, where no position is. */
const overNut = ({ range }: Hand): number => Math.max(0, 1 - rangeAt(range).high);

/** Frets by which the hand opens: 4 lies above its own, 1 below. */
function opened(hand: Hand): number {
  const [index, little] = [hand.standUnder(1), hand.standUnder(4)];
  const below = index === NO_STAND ? 0 : Math.max(0, hand.anchor - fretOfStand(index));
  const above = little === NO_STAND ? 0 : Math.max(0, fretOfStand(little) - 3 - hand.anchor);
  return Math.min(7, below + above);
}

/** Frets are counted in so many parts. */
const PARTS = 4;

/** In the first position a finger lies a fret behind its own, as it does in chords there: not quite a squeeze. From memory. */
const PARTS_BEHIND_AT_NUT = 1;

/** Parts of a fret by which fingers lie elsewhere than on their own, the hand no wider for it: the most of any. */
function drawnIn(hand: Hand): number {
  let most = 0;
  for (let finger = 1; finger <= 4; finger++) {
    const stand = hand.standUnder(finger);
    if (stand === NO_STAND) continue;
    const off = fretOfStand(stand) - (finger - 1) - hand.anchor;
    const within = finger === 1 ? Math.max(0, off) : finger === 4 ? Math.max(0, -off) : Math.abs(off);
    const behindAtNut = off === -1 && hand.anchor === 1;
    most = Math.max(most, behindAtNut ? PARTS_BEHIND_AT_NUT : PARTS * within);
  }
  return most;
}
