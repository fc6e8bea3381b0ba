/** What is said about the left hand: reasons beside a choice, ways out, the script of the hand. */
import { points } from './units';
import type { ChoiceReason } from '../fingering/left/explain/reasons';
import type { HandAction, HandActionKind } from '../fingering/left/explain/handScript';
import { isBarreGrip } from '../fingering/left/explain/grips';
import type { Role } from '../fingering/problem/strike';
import type { Remedy, RemedyKind } from '../fingering/report/remedies';
import type { RingEnd } from '../rings/ring';
import { midiName } from '../music/pitch';
import { roman } from '../music/roman';
import { REASONS } from './en';

/** Where in the piece: a bar and a beat in words. */
export type PlaceOf = (ticks: number) => { readonly bar: string; readonly beat: string };

const ROLES: Readonly<Record<Role, string>> = { melody: 'melody', bass: 'bass', inner: 'inner note' };
const noteName = (role: Role, midi: number) => `the ${ROLES[role]} ${midiName(midi).replace(/\d$/, '')}`;
const beats = (quarters: number) => `${Number(quarters.toFixed(2))} ${quarters === 1 ? 'beat' : 'beats'}`;

const untilText = ({ bar, beat }: ReturnType<PlaceOf>) => (beat === '1' ? `bar ${bar}` : `beat ${beat}`);

type ReasonTexts = {
  readonly [C in ChoiceReason['code']]: (
    reason: Extract<ChoiceReason, { readonly code: C }>,
    place: PlaceOf,
    bpm: number,
  ) => string;
};

/** Each says what goes against a choice. */
export const CHOICE_REASONS: ReasonTexts = {
  fingerHolds: (r, place) =>
    `${r.finger} holds ${noteName(r.role, r.midi)} until ${untilText(place(r.untilTicks))}`,
  shift: (r, _place, bpm) =>
    `a ${Math.round(r.distanceMm)} mm shift to ${roman(r.toPosition)} in ${Math.round(r.windowMs)} ms at ♩=${Math.round(bpm)}, about ${Math.round(r.neededMs)} needed`,
  cut: (r) => `lets ${noteName(r.role, r.midi)} go ${beats(r.quarters)} early`,
  stretch: (r) => `${r.low} to ${r.high} open ${Math.round(r.mm)} mm, ${Math.round(r.atEaseMm)} lie at ease`,
  barre: (r) => `a barre over ${r.strings} strings at ${roman(r.fret)}`,
  hop: (r) => `${r.finger} has to leave its string for another`,
  term: (r) => `${REASONS[r.term]} +${points(Math.abs(r.difference))}`,
};

export const choiceReasonText = (reason: ChoiceReason, place: PlaceOf, bpm: number): string =>
  (CHOICE_REASONS[reason.code] as (value: ChoiceReason, place: PlaceOf, bpm: number) => string)(
    reason,
    place,
    bpm,
  );

/** On the button that accepts it. */
export const REMEDIES: Readonly<Record<RemedyKind, (remedy: Remedy) => string>> = {
  pluck: () => 'Pluck it, no slur',
  leaveOut: () => 'Leave this note out',
  octaveUp: () => 'Bass an octave up',
  octaveDown: () => 'Bass an octave down',
  noteOctaveUp: () => 'An octave up',
  noteOctaveDown: () => 'An octave down',
  tuning: (r) => `Tune: ${TUNINGS[String(r.value)] ?? String(r.value)}`,
  capo: (r) => `Capo at fret ${r.value}`,
  letGo: (r) => `Let it go after ${beats(r.quarters ?? 0)}`,
  pencil: (r) => `Give the ${r.attribute} back to pencil`,
};

const TUNINGS: Readonly<Record<string, string>> = {
  standard: 'as usual',
  'sixth-to-d': 'sixth to D',
  'fifth-to-g-sixth-to-d': 'fifth to G, sixth to D',
  'third-to-f-sharp': 'third to F♯',
};

export const remedyText = (remedy: Remedy): string => REMEDIES[remedy.kind](remedy);

/** Why a note stops, on its lane. */
export const RING_ENDS: Readonly<Record<RingEnd, string>> = {
  written: 'ends as written',
  fingerNeeded: 'its finger is needed',
  handMoves: 'the hand moves',
  stringUsed: 'its string is struck again',
  barre: 'a barre lies down on it',
  landed: 'a rest stroke lands on it',
  released: 'let go',
  endOfPiece: 'rings to the end',
};

const where = ({ grip }: HandAction): string =>
  isBarreGrip(grip)
    ? `strings ${grip.firstString} to ${grip.lastString}, fret ${grip.fret}`
    : `string ${grip.firstString}, fret ${grip.fret}`;

const ACTIONS: Readonly<Record<HandActionKind, (action: HandAction, place: PlaceOf) => string>> = {
  place: (a) => `place ${a.finger} on ${where(a)}`,
  prepare: (a, place) => {
    const from = place(a.earliestTicks);
    return `place ${a.finger} on ${where(a)}; it can lie from bar ${from.bar}, beat ${from.beat}`;
  },
  lift: (a) => `lift ${a.finger}`,
  slide: (a) =>
    `slide ${a.finger} along string ${a.grip.firstString} from fret ${a.fromFret} to ${a.grip.fret}`,
  stay: (a) => `${a.finger} stays on ${where(a)}`,
  barre: (a) => `lay ${a.finger} across ${where(a)}`,
  hinge: (a) => `hinge ${a.finger}: only ${where(a)} stays down`,
};

/** One line of the script that a teacher says aloud. */
export const actionText = (action: HandAction, place: PlaceOf): string => ACTIONS[action.kind](action, place);
