/**
 * The smallest set of signs from which the reading rule gives a plan back: Dijkstra's shortest path, moment by moment,
 * over what the reader knows. Having read everything right so far, the reader remembers what the plan has played; open
 * is only where the student thinks the hand is, and in which voices the dashed line of a string is going on.
 */
import type { PlannedNote } from '../../fingering/report/plan';
import type { Tuning } from '../../instrument/tuning';
import type { Pluck } from '../../score/model';
import { barreOver } from '../reading/barreOver';
import { LeftMemory, type Surroundings } from '../reading/leftMemory';
import { isSamePlace, type Place, positionAfter, readHarmonic, readNote } from '../reading/readNote';
import { isPlaced } from '../reading/readPlan';
import { RightMemory, strokeOf } from '../reading/rightMemory';
import type { WrittenNote, WrittenScore } from '../reading/writtenNote';
import type { Signs } from './signs';

/** What has to be printed whatever the reader knows. */
export interface Forced {
  readonly finger: boolean;
  readonly string: boolean;
  readonly pluck: boolean;
}
export const NOTHING_FORCED: Forced = { finger: false, string: false, pluck: false };

export interface SparseInput {
  readonly written: WrittenScore;
  readonly planned: ReadonlyMap<string, PlannedNote>;
  readonly barres: Signs['barres'];
  /** Numerals that may be printed, by the note where the hand arrives. */
  readonly arrivals: ReadonlyMap<string, number>;
  readonly forced: (uid: string) => Forced;
  /** Whether the line of the string of the first note can go on to the second, the next of its voice. */
  readonly joins: (before: string, next: string) => boolean;
}

/** A sign is what counts; the rest decides between sets of equal size: what a teacher would rather write. */
const SIGN = 1_000_000;
const PREFERENCE = { finger: 0, position: 10, string: 20, line: 1 } as const;

/** @returns the signs, and how many there are: a line counts once, a barre once */
export function fewestSigns(input: SparseInput): { readonly signs: Signs; readonly count: number } {
  const { strings, fingers, positions, cost } = leftSigns(input);
  const touches = touchesOf(input);
  const letters = fewestLetters(input);
  const count = Math.floor(cost / SIGN) + touches.size + letters.size + input.barres.length;
  return { signs: { fingers, strings, positions, touches, letters, barres: input.barres }, count };
}

// --- Left hand ------------------------------------------------------------------------------------------------

/** What is said of one note, or over one moment. */
type Sign =
  | { readonly kind: 'finger'; readonly uid: string; readonly value: number }
  | { readonly kind: 'string'; readonly uid: string; readonly value: number }
  | { readonly kind: 'position'; readonly uid: string; readonly value: number };

/** The way that led to a state, newest first. */
interface Way {
  readonly signs: readonly Sign[];
  readonly before: Way | null;
}

interface ReaderState {
  readonly position: number;
  /** Voices in which the string of the last note has been said, with that note. */
  readonly lines: ReadonlyMap<string, string>;
  readonly cost: number;
  readonly way: Way | null;
}

/** A note where the plan has it, with what the reader knows before it. */
interface PlacedNote {
  readonly note: WrittenNote;
  readonly place: Place;
  readonly around: Surroundings;
  readonly forced: Forced;
}

function leftSigns(input: SparseInput) {
  const { moments } = input.written;
  const barreAt = barreOver(moments, input.barres);
  const memory = new LeftMemory();
  let states: readonly ReaderState[] = [{ position: 1, lines: new Map(), cost: 0, way: null }];
  moments.forEach((moment, k) => {
    memory.begin(moment[0]!.onsetTicks);
    const notes = placedNotes(moment, barreAt[k]!, memory, input);
    const numeral = moment.flatMap(({ uid }) => {
      const value = input.arrivals.get(uid);
      return value === undefined ? [] : [{ kind: 'position', uid, value } as const];
    })[0];
    const entered = states.map((state) => ({ ...state, position: barreAt[k] ?? state.position }));
    const told = numeral ? entered.map((state) => withSign(state, numeral)) : [];
    const read = notes.reduce(
      (open, note) => cheapest(open.flatMap((state) => readings(state, note, input))),
      cheapest([...entered, ...told]),
    );
    const here = notes.map(({ place }) => place);
    states = cheapest(read.map((state) => ({ ...state, position: positionAfter(state.position, here) })));
  });
  return chosenOf(states.reduce((a, b) => (b.cost < a.cost ? b : a)));
}

function placedNotes(
  moment: readonly WrittenNote[],
  barre: number | null,
  memory: LeftMemory,
  { planned, forced }: SparseInput,
): readonly PlacedNote[] {
  return moment.flatMap((note): readonly PlacedNote[] => {
    const place = planned.get(note.uid)!;
    if (!isPlaced(place)) return [];
    const around = memory.around(note, barre);
    memory.play(note, place);
    return [{ note, place, around, forced: forced(note.uid) }];
  });
}

/** What may be said of a note: finger, string. */
const WAYS_TO_SAY = [
  [false, false],
  [true, false],
  [false, true],
  [true, true],
] as const;

/** The states after a note: every way to say enough of it. */
function readings(state: ReaderState, placed: PlacedNote, input: SparseInput): readonly ReaderState[] {
  const { note, place, forced } = placed;
  return WAYS_TO_SAY.flatMap(([finger, string]): readonly ReaderState[] => {
    if ((forced.finger && !finger) || ((forced.string || note.isTouched) && !string)) return [];
    if (!isEnough(placed, { finger, string }, state.position, input.written.tuning)) return [];
    const said: Sign[] = [];
    if (finger) said.push({ kind: 'finger', uid: note.uid, value: place.finger });
    if (string) said.push({ kind: 'string', uid: note.uid, value: place.string });
    const last = state.lines.get(note.voice);
    const goesOn = last !== undefined && input.joins(last, note.uid);
    const price = (finger ? SIGN + PREFERENCE.finger : 0) + (string ? priceOfString(goesOn) : 0);
    const lines = new Map(state.lines);
    if (string) lines.set(note.voice, note.uid);
    else lines.delete(note.voice);
    return [{ position: state.position, lines, cost: state.cost + price, way: longer(state.way, said) }];
  });
}

/** A line that goes on is no sign more, but no longer than it has to be. */
const priceOfString = (goesOn: boolean) => (goesOn ? PREFERENCE.line : SIGN + PREFERENCE.string);

/** The last way to say it says everything: it is taken whatever the reader makes of it. */
function isEnough(
  { note, place, around }: PlacedNote,
  { finger, string }: { readonly finger: boolean; readonly string: boolean },
  position: number,
  tuning: Tuning,
): boolean {
  if (finger && string) return true;
  const said = { finger: finger ? place.finger : null, string: string ? place.string : null };
  const reading = { ...around, position };
  const read = note.isTouched
    ? readHarmonic(place, said, reading)
    : readNote(note.midi, tuning, said, reading);
  return isSamePlace(read, place);
}

const longer = (way: Way | null, signs: readonly Sign[]): Way | null =>
  signs.length === 0 ? way : { signs, before: way };

const withSign = (state: ReaderState, sign: Extract<Sign, { kind: 'position' }>): ReaderState => ({
  ...state,
  position: sign.value,
  cost: state.cost + SIGN + PREFERENCE.position,
  way: longer(state.way, [sign]),
});

/** Of the states that know the same, the one with the fewest signs; the first of equal ones. */
function cheapest(states: readonly ReaderState[]): readonly ReaderState[] {
  const best = new Map<string, ReaderState>();
  for (const state of states) {
    const key = `${state.position} ${[...state.lines.values()].sort().join(' ')}`;
    const known = best.get(key);
    if (!known || state.cost < known.cost) best.set(key, state);
  }
  return [...best.values()];
}

function chosenOf({ way, cost }: ReaderState) {
  const fingers = new Map<string, number>();
  const strings = new Map<string, number>();
  const positions = new Map<string, number>();
  const into = { finger: fingers, string: strings, position: positions };
  for (let at = way; at; at = at.before)
    for (const { kind, uid, value } of at.signs) into[kind].set(uid, value);
  return { fingers, strings, positions, cost };
}

const touchesOf = ({ written, planned }: SparseInput): ReadonlyMap<string, number> =>
  new Map(
    written.moments
      .flat()
      .filter(({ isTouched }) => isTouched)
      .flatMap(({ uid }) => {
        const { fret } = planned.get(uid)!;
        return fret === null ? [] : [[uid, fret] as const];
      }),
  );

// --- Right hand -----------------------------------------------------------------------------------------------

/** Whatever is printed, the next stroke is read from what was played: a letter is needed where it is read otherwise. */
function fewestLetters({ written, planned, forced }: SparseInput): ReadonlyMap<string, Pluck> {
  const letters = new Map<string, Pluck>();
  const memory = new RightMemory();
  for (const moment of written.moments) {
    const stroke = strokeOf(moment, (uid) => planned.get(uid)!.string);
    if (!stroke) continue;
    const read = memory.read(stroke);
    const played = stroke.struck.map(({ uid }) => planned.get(uid)!.pluck!);
    stroke.struck.forEach(({ uid }, k) => {
      if (read[k] !== played[k] || forced(uid).pluck) letters.set(uid, played[k]!);
    });
    memory.play(stroke, played);
  }
  return letters;
}
