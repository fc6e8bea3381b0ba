/** A plan read as a student would read it with nothing printed: what would come out otherwise, note by note. */
import { type Tuning, tuningOrThrow } from '../../instrument/tuning';
import { groupedBy } from '../../fingering/problem/groupedBy';
import type { FingeringPlan, PlannedNote } from '../../fingering/report/plan';
import type { Role } from '../../fingering/problem/strike';
import type { Texture } from '../../figures/texture';
import type { Pluck, Score } from '../../score/model';
import { twinNotes } from '../../survey/twins';
import { figurePlaces, readLetters, type Struck } from './readLetter';
import { NOTHING_SAID, type Place, positionAfter, type Reading, readNote } from './readNote';

/** Of one note: what the student would play, and so what has to be said. */
export interface NoteReading {
  readonly uid: string;
  /** Null where the student would not know. */
  readonly place: Place | null;
  readonly letter: Pluck | null;
  readonly needsFinger: boolean;
  readonly needsString: boolean;
  readonly needsLetter: boolean;
}

/** So long what was played is remembered, in bars. */
const MEMORY_BARS = 2;

export function readPlan(
  score: Score,
  plan: FingeringPlan,
  roles: ReadonlyMap<string, Role>,
): ReadonlyMap<string, NoteReading> {
  const places = readLeft(score, plan);
  const letters = readRight(score, plan, roles);
  return new Map(
    plan.notes.map(({ uid, pluck }) => {
      const { place, needsFinger, needsString } = places.get(uid) ?? UNREAD;
      const letter = letters.get(uid) ?? null;
      const needsLetter = pluck !== null && letter !== pluck;
      return [uid, { uid, place, letter, needsFinger, needsString, needsLetter }] as const;
    }),
  );
}

type LeftReading = Pick<NoteReading, 'place' | 'needsFinger' | 'needsString'>;
const UNREAD: LeftReading = { place: null, needsFinger: false, needsString: false };

const isPlaced = (note: PlannedNote): note is PlannedNote & Place =>
  note.string !== null && note.fret !== null && note.finger !== null;

/** A note where it was played. */
interface Played extends Place {
  readonly midi: number;
  readonly measure: number;
  readonly untilTicks: number;
}

function readLeft(score: Score, plan: FingeringPlan): ReadonlyMap<string, LeftReading> {
  const tuning = tuningOrThrow(score.tuningId);
  const noteOf = new Map(score.notes.map((note) => [note.uid, note]));
  const twins = twinsOf(score, plan);
  const barreAt = barresByMoment(plan);
  const readings = new Map<string, LeftReading>();
  const last = new Map<number, Played>();
  let sounding: readonly Played[] = [];
  let position = 1;
  for (const moment of byMoment(plan)) {
    const ticks = noteOf.get(moment[0]!.uid)!.onsetTicks;
    const barre = barreAt.get(moment[0]!.momentIndex) ?? null;
    if (barre !== null) position = barre;
    sounding = sounding.filter(({ untilTicks }) => untilTicks > ticks);
    const played: Played[] = [];
    for (const note of moment) {
      const written = noteOf.get(note.uid)!;
      const { soundingMidi: midi, measureIndex: measure } = written;
      const known = last.get(midi);
      const reading: Reading = {
        position,
        barre,
        busy: [...sounding, ...played].filter(({ fret }) => fret > 0),
        taken: new Set(played.map(({ string }) => string)),
        before: twins.get(note.uid) ?? (known && measure - known.measure < MEMORY_BARS ? known : null),
      };
      if (!isPlaced(note)) continue;
      readings.set(note.uid, written.harmonic ? harmonic(note) : unsaid(midi, tuning, note, reading));
      const { string, fret, finger } = note;
      played.push({ string, fret, finger, midi, measure, untilTicks: ticks + written.durationTicks });
    }
    for (const one of played) last.set(one.midi, one);
    position = positionAfter(position, played);
    const struck = new Set(played.map(({ string }) => string));
    sounding = [...sounding.filter(({ string }) => !struck.has(string)), ...played];
  }
  return readings;
}

/** Where a harmonic is touched is nothing that a reader could guess. */
const harmonic = (note: Place): LeftReading => ({ place: note, needsFinger: false, needsString: true });

/** The fewest signs from which the note is read as it was planned; a finger rather than a string. */
function unsaid(midi: number, tuning: Tuning, note: Place, reading: Reading): LeftReading {
  const { finger, string } = note;
  const place = readNote(midi, tuning, NOTHING_SAID, reading);
  const rows = [
    { said: NOTHING_SAID, needsFinger: false, needsString: false },
    { said: { finger, string: null }, needsFinger: true, needsString: false },
    { said: { finger: null, string }, needsFinger: false, needsString: true },
  ];
  const enough = rows.find(({ said }) => isSame(readNote(midi, tuning, said, reading), note));
  return { place, needsFinger: enough?.needsFinger ?? true, needsString: enough?.needsString ?? true };
}

const isSame = (a: Place | null, b: Place): boolean =>
  a !== null && a.string === b.string && a.fret === b.fret && a.finger === b.finger;

const byMoment = (plan: FingeringPlan): readonly (readonly PlannedNote[])[] => [
  ...groupedBy(plan.notes, ({ momentIndex }) => momentIndex).values(),
];

/** Fret of the barre that is marked over a moment. */
function barresByMoment(plan: FingeringPlan): ReadonlyMap<number, number> {
  const momentOf = new Map(plan.notes.map((note) => [note.uid, note.momentIndex]));
  const barres = new Map<number, number>();
  for (const { fret, fromUid, toUid } of plan.barres)
    for (let moment = momentOf.get(fromUid)!; moment <= momentOf.get(toUid)!; moment++)
      barres.set(moment, fret);
  return barres;
}

/** The same notes of the first bar of the same music, as they are planned there. */
function twinsOf(score: Score, plan: FingeringPlan): ReadonlyMap<string, Place> {
  const planned = new Map(plan.notes.map((note) => [note.uid, note]));
  const twins = new Map<string, Place>();
  for (const [uid, twin] of twinNotes(score)) {
    const note = planned.get(twin);
    if (note && isPlaced(note)) twins.set(uid, note);
  }
  return twins;
}

/** What the right hand has done so far. */
interface Strokes {
  lastFinger: Pluck | null;
  otherFinger: Pluck | null;
  beforeLast: Pluck | null;
  sinceThumb: number;
  stringsBefore: readonly number[];
  readonly figures: Map<string, { readonly letters: readonly Pluck[]; readonly measure: number }>;
}

function readRight(
  score: Score,
  plan: FingeringPlan,
  roles: ReadonlyMap<string, Role>,
): ReadonlyMap<string, Pluck> {
  const textureOf = texturesOf(plan);
  const measureOf = new Map(score.notes.map((note) => [note.uid, note.measureIndex]));
  const letters = new Map<string, Pluck>();
  const strokes: Strokes = {
    lastFinger: null,
    otherFinger: null,
    beforeLast: null,
    sinceThumb: 0,
    stringsBefore: [],
    figures: new Map(),
  };
  for (const moment of byMoment(plan)) {
    const plucked = moment
      .filter((note) => note.pluck !== null && note.string !== null)
      .sort((a, b) => b.string! - a.string!);
    if (plucked.length === 0) continue;
    const measure = measureOf.get(plucked[0]!.uid)!;
    const struck = plucked.map(({ uid, string }): Struck => ({
      uid,
      string: string!,
      role: roles.get(uid) ?? 'inner',
      texture: textureOf.get(uid) ?? 'mixed',
    }));
    const places = figurePlaces(struck, strokes.stringsBefore, strokes.sinceThumb);
    const known = places.map((place) => strokes.figures.get(place));
    const figure = known.find((one) => one && measure - one.measure < MEMORY_BARS)?.letters ?? null;
    const read = readLetters(struck, { ...strokes, figure });
    plucked.forEach(({ uid }, k) => letters.set(uid, read[k]!));
    const own = plucked.map(({ pluck }) => pluck!);
    for (const place of places) strokes.figures.set(place, { letters: own, measure });
    remember(strokes, struck, own);
  }
  return letters;
}

function remember(strokes: Strokes, struck: readonly Struck[], letters: readonly Pluck[]): void {
  strokes.stringsBefore = struck.map(({ string }) => string);
  strokes.sinceThumb = letters.includes('p') ? 0 : strokes.sinceThumb + 1;
  const fingers = letters.filter((letter) => letter !== 'p');
  if (fingers.length !== 1) return;
  const [finger] = fingers;
  const isTurn = finger === strokes.beforeLast && finger !== strokes.lastFinger;
  strokes.otherFinger = isTurn ? strokes.lastFinger : null;
  strokes.beforeLast = strokes.lastFinger;
  strokes.lastFinger = finger!;
}

function texturesOf(plan: FingeringPlan): ReadonlyMap<string, Texture> {
  return new Map(plan.figures.flatMap(({ uids, texture }) => uids.map((uid) => [uid, texture] as const)));
}
